/** Which docks are open, which joints have drifted apart, and which do not match. */
import { inOrderMade } from '../document/fit.ts';
import { isSameEnd, type Dock, type DockEnd, type Joint } from '../document/dock.ts';
import { valueOf } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { apart, isNearEnough, numbersOf, wantedPose } from './joining.ts';
import { docksIn, placeOfEnd, type DockPlace, type ShapeOf } from './places.ts';

/** Sizes this near to each other are one. */
const SAME_SIZE_MM = 1e-9;

/** A joint held against where its docks are. */
export interface JointReport {
  readonly joint: Joint;
  readonly moved?: DockPlace | undefined;
  readonly onto?: DockPlace | undefined;
  /** How far it is from what it says: mm and degrees. */
  readonly gap: number;
  readonly angle: number;
  readonly isClosed: boolean;
  /** Why that is not known: a place is gone, or what is hidden is not built. */
  readonly unknown?: string | undefined;
  /** What does not match, as a sentence. */
  readonly misfit?: string | undefined;
}

/** What is open, what is joined and how well, and what is lost. */
export interface DockReport {
  readonly open: readonly DockPlace[];
  readonly joints: readonly JointReport[];
  /** Docks whose names are gone. */
  readonly lost: readonly DockPlace[];
}

/** Holds every joint against where its docks are, and lists the docks that nothing is joined to. */
export function docksReport(document: KadrelDocument, shapeOf: ShapeOf): DockReport {
  const all = docksIn(document, shapeOf);
  const known = new Map(all.map((place) => [keyOf(place.end), place]));
  const standing = (end: DockEnd) => known.get(keyOf(end)) ?? placeOfEnd(document, end, shapeOf);
  const taken = takenDocks(document);
  return {
    open: all.filter(({ end }) => !taken(end)),
    joints: inOrderMade(document.joints).map((joint) => reportOf(document, joint, standing)),
    lost: all.filter(({ lost }) => lost !== undefined),
  };
}

/** Whether a dock is in a joint. */
export function takenDocks({ joints }: KadrelDocument): (end: DockEnd) => boolean {
  const taken = new Set(Object.values(joints).flatMap(({ moved, onto }) => [keyOf(moved), keyOf(onto)]));
  return (end) => taken.has(keyOf(end));
}

const keyOf = ({ of, dock, member = '' }: DockEnd) => `${of}/${dock}/${member}`;

function unknownOf(
  { items }: KadrelDocument,
  places: readonly (DockPlace | undefined)[],
): string | undefined {
  const lost = places.find((place) => place?.lost !== undefined);
  if (places.includes(undefined)) return 'One of its docks is not there.';
  const part = lost && items[lost.part];
  // What is hidden is not built.
  return part && !part.visible ? `Not known while ${part.name} is hidden.` : lost?.lost;
}

function reportOf(
  document: KadrelDocument,
  joint: Joint,
  standing: (end: DockEnd) => DockPlace | undefined,
): JointReport {
  const [moved, onto] = [standing(joint.moved), standing(joint.onto)];
  const misfit = moved && onto && misfitOf(moved.dock, onto.dock);
  const unknown = unknownOf(document, [moved, onto]);
  if (!moved || !onto || unknown !== undefined)
    return { joint, moved, onto, gap: 0, angle: 0, isClosed: false, unknown, misfit };
  const { gap, angle } = apart(moved.pose, wantedPose(onto.pose, numbersOf(joint)));
  return {
    joint,
    moved,
    onto,
    gap,
    angle,
    isClosed: isNearEnough({ gap, angle }),
    misfit,
  };
}

/** Why two docks do not go together, or undefined. */
export function misfitOf(a: Dock, b: Dock): string | undefined {
  if (a.kind !== '' && b.kind !== '' && a.kind !== b.kind) return `${a.kind} on ${b.kind}`;
  if (a.role !== undefined && a.role === b.role) return `${a.role} on ${b.role}`;
  if (a.size === undefined || b.size === undefined) return undefined;
  const [x, y] = [valueOf(a.size), valueOf(b.size)];
  return Math.abs(x - y) > SAME_SIZE_MM ? `size ${x} on ${y}` : undefined;
}

/** Whether a dock is of a kind that the other is also of, and nothing else is against it. */
export const matches = (a: Dock, b: Dock): boolean => a.kind === b.kind && misfitOf(a, b) === undefined;

/** The free docks that match one, the nearest first. */
export function matchingDocks(place: DockPlace, among: readonly DockPlace[]): DockPlace[] {
  const off = ({ pose: { shift } }: DockPlace) =>
    Math.hypot(...shift.map((n, i) => n - place.pose.shift[i]!));
  return among
    .filter(
      (one) => one.part !== place.part && !isSameEnd(one.end, place.end) && matches(one.dock, place.dock),
    )
    .sort((a, b) => off(a) - off(b));
}
