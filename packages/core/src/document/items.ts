/** Reading a document: numbers, names, who stands below whom, and where. */
import { AT_ORIGIN, chain, poseOf, type Pose } from '../space/pose.ts';
import type { Box } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import {
  DOCUMENT_VERSION,
  type Base,
  type ItemId,
  type KadrelDocument,
  type Num,
  type NumVector,
  type Part,
  type Pin,
  type Placement,
  type Scene,
} from './schema.ts';

export const DEFAULT_SCENE: Scene = {
  units: 'mm',
  decimals: 2,
  trailingZeros: false,
  fraction: 16,
  grid: 5,
  angleStep: 15,
  nudge: 1,
};

export function emptyDocument(scene: Partial<Scene> = {}): KadrelDocument {
  return {
    kadrel: DOCUMENT_VERSION,
    scene: { ...DEFAULT_SCENE, ...scene },
    variables: {},
    items: {},
    pins: {},
    views: {},
  };
}

export const valueOf = (n: Num): number => (typeof n === 'number' ? n : n.value);
export const vectorOf = ([x, y, z]: NumVector): Vec3 => [valueOf(x), valueOf(y), valueOf(z)];

export const placementAt = (origin: NumVector): Placement => ({ origin, turn: [0, 0, 0] });
export const poseOfPlacement = ({ origin, turn }: Placement): Pose =>
  poseOf(vectorOf(origin), vectorOf(turn));

/** Ids of the operands of a part, in order; none for a plain solid. */
export const operandsOf = (part: Part): readonly ItemId[] =>
  part.recipe.base.kind === 'combine' ? part.recipe.base.operands : [];

/** Parts that are not operands of another, in the order of the tree. */
export function topParts(document: KadrelDocument): Part[] {
  return Object.values(document.items)
    .filter((item) => item.parent === null)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

/** Parts that are seen and measured: at the top, and visible. */
export const visibleParts = (document: KadrelDocument): Part[] =>
  topParts(document).filter((part) => part.visible);

/** The part and everything below it, the part first. */
export function withOperands(document: KadrelDocument, id: ItemId): Part[] {
  const part = document.items[id];
  return part ? [part, ...operandsOf(part).flatMap((operand) => withOperands(document, operand))] : [];
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

/** Carries the frame that the part's placement is told in to the world. */
export function worldFromParent(document: KadrelDocument, id: ItemId): Pose {
  const parent = document.items[id]?.parent;
  return parent ? worldFromPart(document, parent) : AT_ORIGIN;
}

/** The box of a plain solid in its own frame; undefined where only the kernel knows. */
export function baseBox(base: Base): Box | undefined {
  if (base.kind === 'box') return { min: [0, 0, 0], max: vectorOf(base.size) };
  if (base.kind === 'cylinder') {
    const radius = valueOf(base.diameter) / 2;
    return { min: [-radius, -radius, 0], max: [radius, radius, valueOf(base.height)] };
  }
  if (base.kind === 'sphere') {
    const radius = valueOf(base.diameter) / 2;
    return { min: [-radius, -radius, -radius], max: [radius, radius, radius] };
  }
  return undefined;
}

export const partNamed = (document: KadrelDocument, name: string): Part | undefined =>
  document.items[name] ?? Object.values(document.items).find((item) => item.name === name);

/** Pins in the order in which they were placed. */
export const pinsOf = (document: KadrelDocument): Pin[] =>
  Object.values(document.pins).sort((a, b) => a.order - b.order);
export const pinNamed = (document: KadrelDocument, name: string): Pin | undefined =>
  document.pins[name] ?? Object.values(document.pins).find((pin) => pin.name === name);

/** `wanted`, or `wanted 2`, `wanted 3`… when a part of that name exists. */
export function freeName(document: KadrelDocument, wanted: string): string {
  const taken = new Set(Object.values(document.items).map((item) => item.name));
  if (!taken.has(wanted)) return wanted;
  const stem = wanted.replace(/ \d+$/, '');
  for (let n = 2; ; n++) if (!taken.has(`${stem} ${n}`)) return `${stem} ${n}`;
}

/** A rank after all that stand beside it. */
export function nextOrder(document: KadrelDocument): number {
  return Object.values(document.items).reduce((most, item) => Math.max(most, item.order), 0) + 1;
}
