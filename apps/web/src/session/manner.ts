/** How the pointer catches and selects, as the user has set it. */
import type { Divide, RegionRule, SnapKind } from '@kadrel/core';

/** Shapes that one selects by. */
export const REGION_SHAPES = ['rectangle', 'circle', 'fence', 'lasso', 'brush'] as const;
/** One of the shapes that one selects by. */
export type RegionShape = (typeof REGION_SHAPES)[number];
/** What a click or a region does with what is selected already. */
export const SELECTINGS = ['replace', 'toggle', 'add', 'take away'] as const;
/** What a click or a region does with what is selected already. */
export type Selecting = (typeof SELECTINGS)[number];

/** What a region takes: whole parts, or of the selected part its faces, edges or corners. */
export const TAKINGS = ['parts', 'faces', 'edges', 'corners'] as const;
/** What a region takes. */
export type Taking = (typeof TAKINGS)[number];

/** How the pointer catches and selects. */
export interface Manner {
  /** Which parts may be caught. */
  readonly catching: 'all' | 'selected' | 'others';
  readonly catchLocked: boolean;
  /** A pick stays on the part that the pointer has rested on. */
  readonly stayOnPart: boolean;
  readonly divide: Divide;
  readonly halfWay: 'part' | 'all';
  /** Which verbs the snaps serve. */
  readonly serves: Readonly<Record<'move' | 'turn' | 'resize', boolean>>;
  /** What factors go in steps of while a corner is pulled. */
  readonly factorStep: number;
  readonly shape: RegionShape;
  readonly taking: Taking;
  /** What a region must do with a part; by the drag, it encloses to the right and touches to the left. */
  readonly rule: RegionRule | 'by the drag';
  /** A region takes only parts of which something can be seen in it. */
  readonly onlySeen: boolean;
  readonly selecting: Selecting;
  /** Half the width of the brush, pixels. */
  readonly brushPx: number;
}

/** In a new session. */
export const FIRST_MANNER: Manner = {
  catching: 'all',
  catchLocked: true,
  stayOnPart: false,
  divide: { into: 2 },
  halfWay: 'part',
  serves: { move: true, turn: true, resize: true },
  factorStep: 0.05,
  shape: 'rectangle',
  taking: 'parts',
  rule: 'touching',
  onlySeen: false,
  selecting: 'replace',
  brushPx: 18,
};

/** Kinds that are on in a new session: points that one sees, and what asks for no aim. */
export const FIRST_SNAPS: readonly SnapKind[] = [
  'endpoint',
  'midpoint',
  'centre',
  'quadrant',
  'face centre',
  'intersection',
  'pin',
  'dock',
  'guide',
  'parallel',
  'on face',
];

/** Shift and a letter force a kind for one pick. */
export const FORCING_KEYS: Readonly<Record<string, SnapKind>> = {
  E: 'endpoint',
  M: 'midpoint',
  C: 'centre',
  Q: 'quadrant',
  I: 'intersection',
  A: 'apparent',
  V: 'divide',
  D: 'datum',
  B: 'box point',
  W: 'mass centre',
  K: 'pin',
  J: 'dock',
  O: 'origin',
  P: 'perpendicular',
  T: 'tangent',
  H: 'half-way',
  N: 'on edge',
  S: 'on face',
  G: 'grid',
};

/** The selection after a click or a region has taken parts. */
export function selectedWith(
  before: readonly string[],
  taken: readonly string[],
  how: Selecting,
): readonly string[] {
  switch (how) {
    case 'replace':
      return taken;
    case 'add':
      return [...new Set([...before, ...taken])];
    case 'take away':
      return before.filter((id) => !taken.includes(id));
    case 'toggle':
      return [...before.filter((id) => !taken.includes(id)), ...taken.filter((id) => !before.includes(id))];
  }
}

/** The keys held at a click decide, and otherwise what is set. */
export const selectingBy = (
  { shift, ctrl, alt }: { readonly shift: boolean; readonly ctrl: boolean; readonly alt: boolean },
  set: Selecting,
): Selecting => (alt ? 'take away' : ctrl ? 'toggle' : shift ? 'add' : set);
