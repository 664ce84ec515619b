/** What a fit report tells of: in which state, where, and what mends it. */
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import type { SolidPair, StandingSolid } from '../questions/fitFacts.ts';
import { unionBoxes, type Box } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Scope } from './survey.ts';

/** Kinds of findings in words. */
export const FINDING_WORDS = {
  overlap: 'Overlap',
  inside: 'Inside',
  double: 'Double',
  floating: 'Floating',
  below: 'Below the bed',
  outside: 'Outside the site',
  doubt: 'Not certain',
  fit: 'Wanted fit',
  measure: 'Measure',
  contact: 'Contact',
  clearance: 'Clearance',
  play: 'Free play',
  open: 'Not whole',
  wall: 'Wall',
  gap: 'Gap',
  pin: 'Pin',
  bore: 'Bore',
  inner: 'Inner corner',
  overhang: 'Overhang',
  island: 'In the air',
  bed: 'Bed',
  stands: 'Stability',
  mass: 'Mass',
  sheet: 'Sheet',
} as const;
/** One of the kinds of findings. */
export type FindingKind = keyof typeof FINDING_WORDS;

/** A statement that mends a finding. */
export interface Remedy {
  readonly label: string;
  readonly verb: string;
  readonly typed: Readonly<Record<string, unknown>>;
}

/** One thing that a report tells: what, about which items, where, and what mends it. */
export interface Finding {
  readonly id: string;
  readonly kind: FindingKind;
  /** `fine` is only said. */
  readonly state: 'fault' | 'fine' | 'meant';
  /** The standing items that it is about. */
  readonly items: readonly ItemId[];
  /** Names of the solids, members of patterns among them. */
  readonly what: string;
  readonly words: string;
  /** mm of a distance, mm³ of an overlap: what the list is sorted by. */
  readonly size: number;
  /** Where to look, in the world. */
  readonly box: Box;
  readonly ends?: readonly [Vec3, Vec3];
  /** Of an overlap: what has that in common. */
  readonly pair?: SolidPair;
  /** Of what is said of one solid: its tag. */
  readonly solid?: string;
  readonly remedies: readonly Remedy[];
  /** Of what is meant: why, and the name of the mark that says so. */
  readonly why?: string;
  readonly mark?: string;
}

/** What findings are reported with. */
export interface Context {
  readonly document: KadrelDocument;
  readonly solids: ReadonlyMap<string, StandingSolid>;
  readonly scope: Scope;
}

/** The name of a solid, with its member where it is one of a pattern. */
export const nameOf = ({ document }: Pick<Context, 'document'>, { item, member }: StandingSolid): string =>
  [document.items[item]?.name ?? item, member].filter((word) => word !== '').join(' ');

/** The box round some points. */
export const boxAround = (points: readonly Vec3[]): Box =>
  unionBoxes(points.map((at) => ({ min: at, max: at })))!;
