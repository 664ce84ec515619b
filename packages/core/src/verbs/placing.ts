/** What Move, Duplicate and Change share: shifting a part in the world, and copying it with what is below it. */
import { freeName, nextOrder, operandsOf, valueOf, worldFromParent } from '../document/items.ts';
import type { ItemId, KadrelDocument, Num, NumVector, Part } from '../document/schema.ts';
import { isIdentity, turnBack } from '../space/pose.ts';
import { roundLength } from '../space/rounding.ts';
import type { Vec3 } from '../space/vector.ts';
import { refuse, type Refusal, type VerbContext } from './declare.ts';

/** Shifts a part by a world vector. An axis along which nothing moves keeps its formula and its bits. */
export function shiftPart(draft: KadrelDocument, part: Part, by: Vec3): void {
  const { turn } = worldFromParent(draft, part.id);
  const local = isIdentity(turn) ? by : turnBack(turn, by);
  part.placement.origin = part.placement.origin.map((n: Num, axis) =>
    local[axis] === 0 ? n : roundLength(valueOf(n) + local[axis]!),
  ) as NumVector;
}

/** Why these parts cannot be moved, or undefined. */
export function lockedRefusal(document: KadrelDocument, parts: readonly ItemId[]): Refusal | undefined {
  const locked = parts.map((id) => document.items[id]!).find((part) => part.locked);
  return locked && refuse('locked', `${locked.name} is locked. Unlock it in Parts first.`, 'parts');
}

/** Leaves out parts whose ancestor is in the list too: they come along with it. */
export function withoutNested(document: KadrelDocument, parts: readonly ItemId[]): ItemId[] {
  const chosen = new Set(parts);
  const comesAlong = (id: ItemId): boolean => {
    const parent = document.items[id]?.parent;
    return parent ? chosen.has(parent) || comesAlong(parent) : false;
  };
  return [...chosen].filter((id) => !comesAlong(id));
}

/** A copy of the part and of everything below it, under new ids and free names, beside the original. */
export function copyPart(draft: KadrelDocument, id: ItemId, context: VerbContext): ItemId {
  const source = draft.items[id]!;
  const parent = source.parent === null ? undefined : draft.items[source.parent];
  const copy = copyBelow(draft, id, source.parent, context);
  if (parent?.recipe.base.kind === 'combine') parent.recipe.base.operands.push(copy);
  return copy;
}

function copyBelow(draft: KadrelDocument, id: ItemId, parent: ItemId | null, context: VerbContext): ItemId {
  const source = draft.items[id]!;
  const newId = context.newId();
  const copy = structuredCloneOf(source);
  draft.items[newId] = {
    ...copy,
    id: newId,
    parent,
    name: freeName(draft, source.name),
    order: nextOrder(draft),
  };
  const operands = operandsOf(source).map((operand) => copyBelow(draft, operand, newId, context));
  const { base } = draft.items[newId].recipe;
  if (base.kind === 'combine') base.operands = operands;
  return newId;
}

/** Parts are plain JSON, and a draft of Immer's cannot be cloned by structuredClone. */
const structuredCloneOf = (part: Part): Part => JSON.parse(JSON.stringify(part)) as Part;
