/** The docks of a document as they stand in the world. */
import {
  below,
  isGroup,
  isStanding,
  isWhole,
  lineage,
  standingParts,
  visibleParts,
  withAllBelow,
  worldFromPart,
} from '../document/items.ts';
import { docksInOrder, isSameEnd, type Dock, type DockEnd } from '../document/dock.ts';
import { type ItemId, type KadrelDocument, type Part } from '../document/schema.ts';
import { MEETING, nameFit, namesWithin } from '../document/naming.ts';
import { placedOf, type Variant } from '../patterns/placed.ts';
import { isRefusal, kindOfRefusal, refuse, type Refusal } from '../refusals/refusal.ts';
import type { SnapShape } from '../snapping/shape.ts';
import { carry, chain, inverse, type Pose } from '../space/pose.ts';
import { dockFrame, keptFrame, numberedFrame } from './frames.ts';

/** What is known of a built solid, or why nothing is. */
export type ShapeOf = (part: ItemId, variant?: Variant) => { readonly snaps: SnapShape } | Refusal;

/** A dock as it stands. */
export interface DockPlace {
  readonly end: DockEnd;
  /** The item that one sees and moves: a part, a pattern or a group. */
  readonly part: ItemId;
  readonly dock: Dock;
  /** In the world: Z points outward, X is where its roll begins. */
  readonly pose: Pose;
  /** Why it does not stand where its names are, if these are gone. */
  readonly lost?: string;
}

/** Docks of more members than this are not listed one by one. */
const MAX_LISTED = 2000;

/** What has docks, in one of the places where it stands. */
interface Holder {
  readonly item: Part;
  readonly pose: Pose;
  readonly mirrored: boolean;
  readonly extra?: Variant['extra'];
  readonly member?: string;
  /** What it has become a part of. */
  readonly combination?: Holder;
}

/** The docks of a standing item or a group: its own, and those of what it is made from. */
export function docksOn(document: KadrelDocument, part: ItemId, shapeOf: ShapeOf): DockPlace[] {
  const item = document.items[part];
  if (!item) return [];
  const carrier = carrierOf(document, { of: part }) ?? part;
  return holdersIn(document, item).flatMap((holder) =>
    docksInOrder(holder.item).map((dock) => placeOf(document, carrier, { holder, dock, shapeOf })),
  );
}

/** The docks of an item by their numbers alone, where nothing is built. */
export const docksByNumbers = (document: KadrelDocument, part: ItemId): DockPlace[] =>
  docksOn(document, part, () => refuse('no-kernel.nothing', {}));

function holdersIn(document: KadrelDocument, item: Part): Holder[] {
  const own: Holder = { item, pose: worldFromPart(document, item.id), mirrored: false };
  if (isGroup(item)) {
    const inside = item.taken ? below(document, item).flatMap((one) => holdersIn(document, one)) : [];
    return [...(hasDocks(item) ? [own] : []), ...inside];
  }
  if (!isWhole(document, item)) return [own, ...madeFrom(document, own)].filter((one) => hasDocks(one.item));
  const members = dockedMembers(document, item) ? placedOf(document, item.id).slice(0, MAX_LISTED) : [];
  const within = members.flatMap(({ leaf, pose, mirrored, extra, member }): Holder[] => {
    const holder: Holder = { item: document.items[leaf]!, pose, mirrored, extra, member };
    return [holder, ...madeFrom(document, holder)];
  });
  return [own, ...within].filter((one) => hasDocks(one.item));
}

const hasDocks = ({ docks }: Part) => docks !== undefined && Object.keys(docks).length > 0;

/** Whether it is worth going through the members of a pattern. */
const dockedMembers = (document: KadrelDocument, item: Part): boolean => {
  const { base } = item.recipe;
  const definition = base.kind === 'link' ? base.to : item.id;
  return withAllBelow(document, definition).slice(1).some(hasDocks);
};

/** Operands keep their docks, where they stand in what they have become part of. */
function madeFrom(document: KadrelDocument, holder: Holder): Holder[] {
  if (holder.item.recipe.base.kind !== 'combine' || holder.mirrored) return [];
  return withAllBelow(document, holder.item.id)
    .slice(1)
    .map((item) => ({
      ...holder,
      item,
      pose: chain(holder.pose, withinCombination(document, holder.item, item)),
      combination: holder,
    }));
}

const withinCombination = (document: KadrelDocument, combination: Part, operand: Part): Pose =>
  chain(inverse(worldFromPart(document, combination.id)), worldFromPart(document, operand.id));

interface Placing {
  readonly holder: Holder;
  readonly dock: Dock;
  readonly shapeOf: ShapeOf;
}

function placeOf(document: KadrelDocument, part: ItemId, { holder, dock, shapeOf }: Placing): DockPlace {
  const { item, pose, mirrored, member } = holder;
  const found = standingPose(document, holder, { dock, shapeOf });
  return {
    end: { of: item.id, dock: dock.id, ...(member === undefined ? {} : { member }) },
    part,
    dock,
    pose: isRefusal(found) ? chain(pose, numberedFrame(dock, mirrored)) : found,
    ...(isRefusal(found) ? { lost: found.message } : {}),
  };
}

/** Where a dock stands in the world, or why it does not know. */
function standingPose(
  document: KadrelDocument,
  holder: Holder,
  { dock, shapeOf }: Pick<Placing, 'dock' | 'shapeOf'>,
): Pose | Refusal {
  const { item, pose, mirrored, extra, combination } = holder;
  const numbered = chain(pose, numberedFrame(dock, mirrored));
  if (!dock.on || isGroup(item) || isWhole(document, item)) return numbered;
  const solid = combination ?? holder;
  const shape = shapeOf(solid.item.id, { mirrored, extra });
  // Where there is no kernel nothing is built.
  if (isRefusal(shape)) return kindOfRefusal(shape) === 'no-kernel' ? numbered : shape;
  if (shape.snaps.names.length === 0) return numbered;
  const named = { document, name: item.name, shape: shape.snaps, mirrored };
  if (!combination) {
    const found = dockFrame(dock, named);
    return isRefusal(found) ? found : chain(pose, found);
  }
  const within = dockWithin(document, combination.item, { item, dock });
  const found = hasFaces(shape.snaps, within.on!.at, document) ? dockFrame(within, named) : undefined;
  // What its name means may have been cut away by the others: it then stands where it was put.
  return !found || isRefusal(found) ? numbered : chain(combination.pose, found);
}

/** Whether all faces that are named are there by their whole names: another operand’s `right` is not meant. */
const hasFaces = ({ names, faceName }: SnapShape, at: string, document: KadrelDocument): boolean =>
  at
    .split(MEETING)
    .every((wanted) => faceName.some((index) => nameFit(wanted, names[index]!, document) === 2));

/** The dock of an operand, as a dock of the combination: in its frame, and by the names that faces have there. */
function dockWithin(
  document: KadrelDocument,
  combination: Part,
  { item, dock }: { readonly item: Part; readonly dock: Dock },
): Dock {
  const own = withinCombination(document, combination, item);
  const { at, near, snap } = dock.on!;
  return {
    ...dock,
    ...keptFrame(chain(own, numberedFrame(dock))),
    on: {
      at: namesWithin(document, { combination: combination.id, operand: item.id }, at),
      ...(snap ? { snap } : {}),
      ...(near ? { near: [...carry(own, near)] } : {}),
    },
  };
}

/** All docks that stand for themselves or belong to a group, in the order of the tree. */
export function docksIn(
  document: KadrelDocument,
  shapeOf: ShapeOf,
  which: 'all' | 'visible' = 'all',
): DockPlace[] {
  const parts = which === 'all' ? standingParts(document) : visibleParts(document);
  const groups = Object.values(document.items).filter(
    (item) =>
      isGroup(item) &&
      isStanding(document, item.id) &&
      (hasDocks(item) || item.taken !== undefined) &&
      (which === 'all' || item.visible),
  );
  const own = parts.filter(({ id }) => carrierOf(document, { of: id }) === id);
  return [...groups, ...own].flatMap(({ id }) => docksOn(document, id, shapeOf));
}

/** Whose dock it is among what one moves: the item itself, or the part, the pattern or the group from a rack that it is part of. */
export function carrierOf(document: KadrelDocument, { of }: Pick<DockEnd, 'of'>): ItemId | undefined {
  const item = document.items[of];
  if (!item) return undefined;
  const above = lineage(document, of).map((id) => document.items[id]!);
  return (above.find((one) => !isGroup(one) || one.taken) ?? item).id;
}

/** Where an end stands; undefined where it is gone. */
export function placeOfEnd(document: KadrelDocument, end: DockEnd, shapeOf: ShapeOf): DockPlace | undefined {
  const carrier = carrierOf(document, end);
  if (carrier === undefined) return undefined;
  return docksOn(document, carrier, shapeOf).find((place) => isSameEnd(place.end, end));
}
