/** Reading a document: numbers, names, who stands below whom, and where. */
import { AT_ORIGIN, chain, poseOf, type Pose } from '../space/pose.ts';
import { cleanLength } from '../space/rounding.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Box } from '../space/box.ts';
import { baseKind } from '../recipes/index.ts';
import {
  DOCUMENT_VERSION,
  childrenOf,
  type Base,
  type ItemId,
  type KadrelDocument,
  type NumVector,
  type Part,
  type Pin,
  type Placement,
  type Scene,
} from './schema.ts';
import { itemIndex, itemsIn, stemOf } from './itemIndex.ts';
import { boxOfFigure } from '../profiles/outline.ts';
import { isFlat } from '../recipes/bodies/index.ts';
import { valueOf, vectorOf } from '../recipes/numbers.ts';

export { itemsIn, valueOf, vectorOf };

/** What a new project begins with. */
export const DEFAULT_SCENE: Scene = {
  units: 'mm',
  decimals: 2,
  trailingZeros: false,
  fraction: 16,
  grid: 5,
  angleStep: 15,
  nudge: 1,
};

/** A document without anything in it. */
export function emptyDocument(scene: Partial<Scene> = {}): KadrelDocument {
  return {
    kadrel: DOCUMENT_VERSION,
    scene: { ...DEFAULT_SCENE, ...scene },
    variables: {},
    items: {},
    pins: {},
    views: {},
    sheets: {},
    measures: {},
    fits: {},
    meant: {},
    joints: {},
    rackParts: {},
  };
}

/** A placement there, not turned. */
export const placementAt = (origin: NumVector): Placement => ({ origin, turn: [0, 0, 0] });
/** A placement as a pose, without formulas. */
export const poseOfPlacement = ({ origin, turn }: Placement): Pose =>
  poseOf(vectorOf(origin), vectorOf(turn));

/** A point moved by a vector. A number that does not change keeps its formula and its bits. */
export const shiftedBy = (origin: NumVector, by: Vec3): NumVector =>
  origin.map((n, axis) =>
    by[axis] === 0 ? n : cleanLength(valueOf(n) + by[axis]!, Math.abs(valueOf(n)) + Math.abs(by[axis]!)),
  ) as NumVector;

/** Items that are not below another, in the order of the tree. */
export function topParts(document: KadrelDocument): Part[] {
  return Object.values(document.items)
    .filter((item) => item.parent === null)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

/** What is right below a part, in order. */
export const below = (document: KadrelDocument, part: Part): Part[] =>
  childrenOf(part).flatMap((id) => document.items[id] ?? []);

/** Whether an item is a group of others. */
export const isGroup = (part: Part): boolean => part.recipe.base.kind === 'group';

/** Consists of solids that are built by themselves: a pattern, a group, or a link to one. */
export function isWhole(document: KadrelDocument, part: Part): boolean {
  const { kind } = definitionOf(document, part).recipe.base;
  return kind === 'pattern' || kind === 'group';
}

/** The part whose recipe this one has: itself, or what it is linked to. */
export function definitionOf(document: KadrelDocument, part: Part): Part {
  const { base } = part.recipe;
  return base.kind === 'link' ? (document.items[base.to] ?? part) : part;
}

/**
 * Items that stand for themselves, in the order of the tree: parts and patterns, at the top and in groups. Operands of a
 * combination and sources of a pattern do not.
 */
export const standingParts = (document: KadrelDocument): Part[] =>
  topParts(document).flatMap((part) => standingWithin(document, part, () => true));

/** Standing items that are seen and measured: neither they nor a group above them is hidden. */
export const visibleParts = (document: KadrelDocument): Part[] =>
  topParts(document).flatMap((part) => standingWithin(document, part, ({ visible }) => visible));

/** Groups of which something can be seen, the outer ones first. */
export function visibleGroups(document: KadrelDocument): Part[] {
  const within = (part: Part): Part[] =>
    isGroup(part) && part.visible ? [part, ...below(document, part).flatMap(within)] : [];
  return topParts(document).flatMap(within);
}

/** The part itself, or for a group what stands in it. */
export function standingWithin(
  document: KadrelDocument,
  part: Part,
  may: (part: Part) => boolean = () => true,
): Part[] {
  if (!may(part)) return [];
  if (!isGroup(part)) return [part];
  return below(document, part).flatMap((member) => standingWithin(document, member, may));
}

/** The standing items that parts come to: a group its members. */
export const standingOf = (document: KadrelDocument, parts: readonly ItemId[]): Set<ItemId> =>
  new Set(
    parts.flatMap((id) => {
      const part = document.items[id];
      return part ? standingWithin(document, part).map((one) => one.id) : [];
    }),
  );

/** What a click on a standing item means: the outermost group above it that is not open, or the item itself. */
export function selectableOf(document: KadrelDocument, id: ItemId, open: ItemId | null): ItemId {
  const inside = new Set(open === null ? [] : lineage(document, open));
  return lineage(document, id).find((above) => !inside.has(above)) ?? id;
}

/** Whether an item stands for itself: nothing but groups is above it. */
export function isStanding(document: KadrelDocument, id: ItemId): boolean {
  const above = lineage(document, id).slice(0, -1);
  return above.every((one) => isGroup(document.items[one]!));
}

/** The part and everything below it, the part first. */
export function withAllBelow(document: KadrelDocument, id: ItemId): Part[] {
  const part = document.items[id];
  return part ? [part, ...childrenOf(part).flatMap((child) => withAllBelow(document, child))] : [];
}

/** Ids from the top down to `id`, `id` last. */
export function lineage(document: KadrelDocument, id: ItemId): ItemId[] {
  const part = document.items[id];
  return part?.parent ? [...lineage(document, part.parent), id] : [id];
}

/** The part at the top of the tree that `id` belongs to. */
export const topOf = (document: KadrelDocument, id: ItemId): ItemId => lineage(document, id)[0]!;

/** Carries the part's own frame to the world. */
export function worldFromPart(document: KadrelDocument, id: ItemId): Pose {
  const part = document.items[id];
  if (!part) return AT_ORIGIN;
  const own = poseOfPlacement(part.placement);
  return part.parent ? chain(worldFromPart(document, part.parent), own) : own;
}

/** Carries the frame that the part's placement is given in to the world. */
export function worldFromParent(document: KadrelDocument, id: ItemId): Pose {
  const parent = document.items[id]?.parent;
  return parent ? worldFromPart(document, parent) : AT_ORIGIN;
}

/** The box of a plain solid in its own frame; undefined where only the kernel knows. */
export function baseBox(base: Base): Box | undefined {
  if (base.kind === 'profile') {
    const flat = boxOfFigure(base.figure);
    return flat && { min: [...flat.min, 0], max: [...flat.max, 0] };
  }
  return baseKind(base)?.box?.(base);
}

/** Drawn things that are no solids: profiles and planes. */
export const isFlatPart = (document: KadrelDocument, part: Part): boolean =>
  isFlat(definitionOf(document, part).recipe.base);

const ownOf = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;

/** By name; failing that by id, so that a name that looks like an id is a name. */
export const partNamed = (document: KadrelDocument, name: string): Part | undefined =>
  Object.values(document.items).find((item) => item.name === name) ?? ownOf(document.items, name);

/** Pins in the order in which they were placed. */
export const pinsOf = (document: KadrelDocument): Pin[] =>
  Object.values(document.pins).sort((a, b) => a.order - b.order);
/** A pin by its name, failing that by its id. */
export const pinNamed = (document: KadrelDocument, name: string): Pin | undefined =>
  Object.values(document.pins).find((pin) => pin.name === name) ?? ownOf(document.pins, name);

/** `wanted`, or `wanted 2`, `wanted 3`… when a part of that name exists. */
export function freeName(document: Pick<KadrelDocument, 'items'>, wanted: string): string {
  const index = itemIndex(document);
  if (index.named(wanted) === 0) return wanted;
  const stem = stemOf(wanted);
  for (let n = index.freeFrom(stem); ; n++) if (index.named(`${stem} ${n}`) === 0) return `${stem} ${n}`;
}

/** A rank after all that stand beside it. */
export const nextOrder = (document: KadrelDocument): number => itemIndex(document).lastOrder + 1;
