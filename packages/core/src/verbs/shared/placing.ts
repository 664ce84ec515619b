/** What the verbs of placing share: shifting, turning and copying parts, and what they turn about. */
import { datumInWorld } from '../../document/datum.ts';
import { below, isGroup, lineage, poseOfPlacement, worldFromParent } from '../../document/items.ts';
import { placePart, shiftPart } from '../../document/placing.ts';
import type { ItemId, KadrelDocument, Part } from '../../document/schema.ts';
import { boxPoint, unionBoxes } from '../../space/box.ts';
import { multiply } from '../../space/matrix.ts';
import { chain, isIdentity, isQuarterTurn, roundPoint, turnVector, type Turn } from '../../space/pose.ts';
import { add, subtract, type Vec3 } from '../../space/vector.ts';
import { copyPart } from './copying.ts';
import { refuse, type Refusal, type VerbContext, type Drafting } from '../../statement/declare.ts';

/** Turns a part in the world about a point. A quarter turn keeps coordinates on the decimal grid. */
export function turnPart(
  draft: KadrelDocument,
  part: Part,
  { turn, about }: { readonly turn: Turn; readonly about: Vec3 },
): void {
  if (isIdentity(turn)) return;
  const parent = worldFromParent(draft, part.id);
  const pose = chain(parent, poseOfPlacement(part.placement));
  const shift = add(about, turnVector(turn, subtract(pose.shift, about)));
  placePart(draft, part, {
    turn: multiply(turn, pose.turn),
    shift: isQuarterTurn(turn) ? roundPoint(shift) : shift,
  });
}

export { placePart, shiftPart };

/** The choices of a centre for turning and resizing. */
export const CENTRES = {
  own: 'each about its own datum',
  shared: 'all about their shared centre',
  point: 'all about a point',
} as const;

/** The centre for each part: its datum, the middle of the box round all of them, or one point. */
export function centresOf(
  { document, context }: { readonly document: KadrelDocument; readonly context: VerbContext },
  parts: readonly ItemId[],
  { centre, at }: { readonly centre: string; readonly at: Vec3 | undefined },
): ((part: ItemId) => Vec3) | Refusal {
  if (centre === 'point') return at === undefined ? refuse('missing.point-type', {}, 'at') : () => at;
  if (centre === 'shared') {
    const box = unionBoxes(parts.map((id) => context.worldBox(id)))!;
    const middle = boxPoint(box, [0, 0, 0]);
    return () => middle;
  }
  const found = new Map<ItemId, Vec3>();
  for (const id of parts) {
    const datum = datumInWorld(document, document.items[id]!, (part) => context.boxOf(part));
    if (!datum) return refuse('no-box.parts', { name: document.items[id]!.name }, 'parts');
    found.set(id, datum);
  }
  return (part) => found.get(part)!;
}

/** What may stay behind when parts are moved, turned or mirrored. */
export const LEAVINGS = {
  nothing: 'nothing',
  copy: 'a copy',
  each: 'the original, again and again',
} as const;

/** Why these parts cannot be moved, or undefined. */
export function lockedRefusal(document: KadrelDocument, parts: readonly ItemId[]): Refusal | undefined {
  // What is below a locked part is locked with it, since moving it would change that part; and a group moves its members.
  const locked = parts
    .flatMap((id) => [...lineage(document, id), ...groupedIn(document, id)])
    .map((id) => document.items[id]!)
    .find((part) => part.locked);
  return locked && refuse('locked', { name: locked.name }, 'parts');
}

const groupedIn = (document: KadrelDocument, id: ItemId): ItemId[] => {
  const part = document.items[id]!;
  return isGroup(part)
    ? below(document, part).flatMap((one) => [one.id, ...groupedIn(document, one.id)])
    : [];
};

/** Leaves out parts whose ancestor is in the list too: they come along with it. */
export function withoutNested(document: KadrelDocument, parts: readonly ItemId[]): ItemId[] {
  const chosen = new Set(parts);
  const comesAlong = (id: ItemId): boolean => {
    const parent = document.items[id]?.parent;
    return parent ? chosen.has(parent) || comesAlong(parent) : false;
  };
  return [...chosen].filter((id) => !comesAlong(id));
}

/**
 * The parts that a placing verb works on: those chosen, with copies left where they stood; or new copies, with the
 * originals left untouched, so that the same statement can be given again.
 */
export function placedParts(
  { draft, context }: Drafting,
  chosen: readonly ItemId[],
  leaving: string,
): ItemId[] {
  return chosen.map((id) => {
    if (leaving === 'nothing') return id;
    const copy = copyPart(draft, id, context);
    return leaving === 'each' ? copy : id;
  });
}
