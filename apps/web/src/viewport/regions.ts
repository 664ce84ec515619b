/** Drawing the region of a selection: its shape from the pointer's way, and what it takes when it is done. */
import {
  isGone,
  partsInRegion,
  placesInRegion,
  standingOf,
  type ItemId,
  type PlaceKind,
  type Point,
  type Region,
  type RegionRule,
} from '@kadrel/core';
import type { PickedPlace } from '../session/chosen.ts';
import { selectedWith, selectingBy, type RegionShape } from '../session/manner.ts';
import { boxOf } from './gripSet.ts';
import { isInOpenGroup, selectable, type Hand } from './hand.ts';

/** A region on its way: for a fence the corners, for the others where the pointer went. */
export interface Drawing {
  readonly shape: RegionShape;
  readonly way: readonly Point[];
}

/** Points of a lasso or a brush nearer than this (pixels) are left out. */
const MIN_STEP_PX = 2;
/** A click this near to the first corner closes a fence, pixels. */
const CLOSING_PX = 8;

const here = ({ last }: Hand): Point => [last.x, last.y];

export const beginRegion = (hand: Hand, x: number, y: number): Drawing => ({
  shape: hand.state().manner.shape,
  way: [[x, y]],
});

/** The region with the pointer where it is now. */
export function drawnTo(hand: Hand, drawing: Drawing): Drawing {
  const { shape, way } = drawing;
  const point = here(hand);
  if (shape === 'rectangle' || shape === 'circle') return { shape, way: [way[0]!, point] };
  if (shape === 'fence') return drawing;
  const last = way.at(-1)!;
  return Math.hypot(point[0] - last[0], point[1] - last[1]) < MIN_STEP_PX
    ? drawing
    : { shape, way: [...way, point] };
}

/** The corner under the pointer goes into a fence; null when that closes it. */
export function withCorner(hand: Hand, { shape, way }: Drawing): Drawing | null {
  const point = here(hand);
  const [first] = way;
  const isClosing = way.length > 2 && Math.hypot(point[0] - first![0], point[1] - first![1]) < CLOSING_PX;
  return isClosing ? null : { shape, way: [...way, point] };
}

export const withoutCorner = ({ shape, way }: Drawing): Drawing | null =>
  way.length > 1 ? { shape, way: way.slice(0, -1) } : null;

function regionOf(hand: Hand, { shape, way }: Drawing): Region {
  const [first] = way;
  const last = way.at(-1)!;
  switch (shape) {
    case 'rectangle':
      return {
        kind: 'rectangle',
        left: Math.min(first![0], last[0]),
        right: Math.max(first![0], last[0]),
        top: Math.min(first![1], last[1]),
        bottom: Math.max(first![1], last[1]),
      };
    case 'circle':
      return { kind: 'circle', centre: first!, radius: Math.hypot(last[0] - first![0], last[1] - first![1]) };
    case 'brush':
      return { kind: 'brush', path: way, radius: hand.state().manner.brushPx };
    case 'fence':
    case 'lasso':
      return { kind: 'polygon', corners: way };
  }
}

function ruleOf(hand: Hand, { way }: Drawing): RegionRule {
  const { rule } = hand.state().manner;
  if (rule !== 'by the drag') return rule;
  return way.at(-1)![0] >= way[0]![0] ? 'enclosed' : 'touching';
}

/** Shows the region; of a fence also the leg that follows the pointer. */
export function showRegion(hand: Hand, drawing: Drawing | null): void {
  if (!drawing) return hand.overlay.region.show(null, { isTouching: false });
  const shown = drawing.shape === 'fence' ? { ...drawing, way: [...drawing.way, here(hand)] } : drawing;
  hand.overlay.region.show(regionOf(hand, shown), { isTouching: ruleOf(hand, drawing) === 'touching' });
}

/** The parts that the region takes; a closed group as one, which is enclosed with all that stands in it. */
export function takenBy(hand: Hand, drawing: Drawing): string[] {
  if (drawing.shape === 'fence' && drawing.way.length < 3) return [];
  const rule = ruleOf(hand, drawing);
  const taken = partsInRegion({
    scene: hand.pane.scene,
    camera: hand.pane.camera,
    region: regionOf(hand, drawing),
    rule,
    onlySeen: hand.state().manner.onlySeen,
  });
  const { cuts = [] } = hand.pane.scene;
  const isInSight = (id: string) => {
    const box = cuts.length === 0 ? undefined : boxOf(hand.stage.session.store.getState(), id);
    return !box || !isGone(cuts, id, box);
  };
  const all = new Set(taken);
  const { document } = hand.state();
  const shown = new Set(hand.stage.model.scene.instances.map(({ part }) => part));
  const isWhole = (id: string) =>
    [...standingOf(document, [id])].every((one) => all.has(one) || !shown.has(one));
  const inside = taken
    .filter((id) => isInOpenGroup(hand, id) && isInSight(id))
    .map((id) => selectable(hand, id));
  return [...new Set(inside)].filter((id) => rule === 'touching' || isWhole(id));
}

/** The faces, edges or corners of a part that the region takes. */
export function placesTaken(
  hand: Hand,
  drawing: Drawing,
  { part, kind }: { readonly part: ItemId; readonly kind: PlaceKind },
): PickedPlace[] {
  if (drawing.shape === 'fence' && drawing.way.length < 3) return [];
  const { scene } = hand.stage.model;
  const instance = scene.instances.find((one) => one.part === part && one.leaf === undefined);
  if (!instance) return [];
  const taken = placesInRegion({
    instance,
    camera: hand.pane.camera,
    region: regionOf(hand, drawing),
    rule: ruleOf(hand, drawing),
    kind,
    ...(hand.state().manner.onlySeen ? { seenIn: scene } : {}),
  });
  return taken.map((place) => ({ on: part, ...place }));
}

/** What is selected once the region has taken its parts. */
export const selectionAfter = (hand: Hand, taken: readonly string[]): readonly string[] =>
  selectedWith(hand.state().selection, taken, selectingBy(hand.last, hand.state().manner.selecting));
