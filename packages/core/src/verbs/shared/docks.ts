/** What the verbs of docks share: names, frames, where docks stand while a statement moves them, and joints. */
import { freeJoint } from '../../docks/names.ts';
import { docksInOrder, isSameEnd, type Dock, type DockEnd, type Joint } from '../../document/dock.ts';
import { worldFromPart } from '../../document/items.ts';
import { childrenOf, type ItemId, type KadrelDocument, type Num, type Part } from '../../document/schema.ts';
import { carrierOf, type DockPlace } from '../../docks/places.ts';
import { takenDocks } from '../../docks/report.ts';
import { chain, inverse, type Pose } from '../../space/pose.ts';
import { refuse, type Refusal, type VerbContext } from '../../statement/declare.ts';
import type { DockSaid } from '../../statement/docks.ts';

/** The name that was said, if no dock of the part has it; else the next one free. */
function freeDockName(part: Part, wanted: string): string {
  const taken = new Set(docksInOrder(part).map(({ name }) => name));
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!taken.has(`${wanted} ${n}`)) return `${wanted} ${n}`;
}

const nextDockOrder = (part: Part): number => (docksInOrder(part).at(-1)?.order ?? 0) + 1;

/** What is said of a new dock besides its id and its rank. */
type NewDock = Omit<Dock, 'id' | 'order'>;

/** Adds a dock to a part, under the name that was said or the next one free. */
export function addDock(part: Part, said: NewDock, context: Pick<VerbContext, 'newId'>): void {
  const id = context.newId();
  part.docks ??= {};
  part.docks[id] = { ...said, id, name: freeDockName(part, said.name), order: nextDockOrder(part) };
}

/** Where a dock stands in the frame of the item that carries it; as that is moved, it goes along. */
export interface CarriedDock {
  readonly place: DockPlace;
  readonly own: Pose;
}

/** Take it before anything is moved. */
export const carriedDock = (draft: KadrelDocument, place: DockPlace): CarriedDock => ({
  place,
  own: chain(inverse(worldFromPart(draft, place.part)), place.pose),
});

/** Where it stands now: on what carries it, or on a copy of that. */
export const poseNow = (
  draft: KadrelDocument,
  { place, own }: CarriedDock,
  carrier: ItemId = place.part,
): Pose => chain(worldFromPart(draft, carrier), own);

/** The same dock of a copy of what carries it. */
export function endOnCopy(draft: KadrelDocument, { end, part }: DockPlace, copy: ItemId): DockEnd {
  const path = pathBelow(draft, part, end.of);
  const of = path.reduce((at, index) => childrenOf(draft.items[at]!)[index] ?? at, copy);
  return { ...end, of };
}

/** Which child of which child: the way down from one item to another. */
function pathBelow(draft: KadrelDocument, from: ItemId, to: ItemId): number[] {
  if (from === to) return [];
  const parent = draft.items[to]?.parent;
  if (!parent) return [];
  return [...pathBelow(draft, from, parent), childrenOf(draft.items[parent]!).indexOf(to)];
}

export const jointNamed = (document: KadrelDocument, name: string): Joint | Refusal =>
  Object.values(document.joints).find((joint) => joint.name === name) ??
  document.joints[name] ??
  refuse('unknown-joint', { name }, 'joint');

interface JointSaid {
  readonly moved: DockEnd;
  readonly onto: DockEnd;
  readonly turn: Num;
  readonly tilt: readonly [Num, Num];
  readonly offset: Num;
  readonly isHeld: boolean;
}

/** Keeps that two docks are joined; what the moved one was joined to before is let go. */
export function addJoint(draft: KadrelDocument, said: JointSaid, context: VerbContext): void {
  const { moved, onto, turn, tilt, offset, isHeld } = said;
  for (const joint of Object.values(draft.joints))
    if (isSameEnd(joint.moved, moved) || isSameEnd(joint.onto, moved)) delete draft.joints[joint.id];
  const id = context.newId();
  draft.joints[id] = {
    id,
    ...freeJoint(draft),
    moved: { ...moved },
    onto: { ...onto },
    turn,
    tilt: [...tilt],
    offset,
    ...(isHeld ? { held: true } : {}),
  };
}

/** The docks that a said dock may be: itself, or the free ones of the part. */
export function docksMeant(
  draft: KadrelDocument,
  said: DockSaid,
  context: VerbContext,
): readonly DockPlace[] {
  if (said.place) return [said.place];
  const taken = takenDocks(draft);
  return context.docksOn(said.part).filter(({ end, lost }) => lost === undefined && !taken(end));
}

/** A dock that one must be warned of: it is not free any more. */
export function takenRefusal(draft: KadrelDocument, place: DockPlace, but: ItemId): Refusal | undefined {
  const joint = Object.values(draft.joints).find(
    ({ moved, onto }) =>
      (isSameEnd(onto, place.end) && carrierOf(draft, moved) !== but) ||
      (isSameEnd(moved, place.end) && carrierOf(draft, onto) !== but),
  );
  if (!joint) return undefined;
  const other = isSameEnd(joint.onto, place.end) ? joint.moved : joint.onto;
  const { name } = draft.items[other.of]!;
  return refuse(
    'dock-taken',
    { name: place.dock.name, place: draft.items[place.end.of]!.name, name2: name, joint: joint.name },
    'onto',
  );
}
