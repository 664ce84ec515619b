/** Copies of items with all that is below them, and recipes that several items share. */
import { definitionOf, freeName, nextOrder } from '../../document/items.ts';
import { childrenOf, type ItemId, type KadrelDocument, type Part } from '../../document/schema.ts';
import type { VerbContext, Drafting } from '../../statement/declare.ts';
import { builtRecipe, isHalf } from '../../document/halves.ts';
import { freeJoint } from '../../docks/names.ts';
import { linkedWith, setChildren } from './tree.ts';

type NewId = Pick<VerbContext, 'newId'>;

/** A copy of the part and of everything below it, under new ids and free names, beside the original. */
export function copyPart(draft: KadrelDocument, id: ItemId, context: NewId): ItemId {
  const source = draft.items[id]!;
  const parent = source.parent === null ? undefined : draft.items[source.parent];
  const copied = new Map<ItemId, ItemId>();
  const copy = copyBelow({ draft, context }, { id, parent: source.parent }, copied);
  linkWithin(draft, copied);
  copyJoints(draft, copied, context);
  if (parent) setChildren(parent, [...childrenOf(parent), copy]);
  return copy;
}

function copyBelow(
  { draft, context }: Drafting<NewId>,
  { id, parent }: { readonly id: ItemId; readonly parent: ItemId | null },
  copied: Map<ItemId, ItemId>,
): ItemId {
  const source = draft.items[id]!;
  const newId = context.newId();
  copied.set(id, newId);
  draft.items[newId] = {
    ...plain(source),
    id: newId,
    parent,
    name: freeName(draft, source.name),
    order: nextOrder(draft),
  };
  const below = childrenOf(source).map((child) =>
    copyBelow({ draft, context }, { id: child, parent: newId }, copied),
  );
  setChildren(draft.items[newId], below);
  return newId;
}

/** A link among what was copied goes with the copy of what it is linked to. */
function linkWithin(draft: KadrelDocument, copied: ReadonlyMap<ItemId, ItemId>): void {
  for (const copy of copied.values()) {
    const { recipe, taken, traced } = draft.items[copy]!;
    const { base, steps } = recipe;
    if (traced) retarget(traced, copied);
    // What was taken from a rack is made anew within its copy alone.
    if (taken)
      taken.items = Object.fromEntries(
        Object.entries(taken.items).map(([own, id]) => [own, copied.get(id) ?? id]),
      );
    for (const step of steps) {
      if ('profiles' in step) step.profiles = step.profiles.map((id) => copied.get(id) ?? id);
      if ('tool' in step) step.tool = copied.get(step.tool) ?? step.tool;
    }
    if (base.kind === 'link') base.to = copied.get(base.to) ?? base.to;
    if ('profiles' in base) base.profiles = base.profiles.map((id) => copied.get(id) ?? id);
  }
}

/** A cut of what was copied too follows the copy. */
function retarget(traced: NonNullable<Part['traced']>, copied: ReadonlyMap<ItemId, ItemId>): void {
  const now = (id: ItemId) => copied.get(id) ?? id;
  if (traced.by === 'section') {
    traced.section = now(traced.section);
    traced.through = now(traced.through);
    return;
  }
  traced.parts = traced.parts.map(now);
  traced.layers = traced.layers.map(({ height, item }) => ({ height, item: item && now(item) }));
}

/** What is joined within what was copied is joined within the copy. */
function copyJoints(draft: KadrelDocument, copied: ReadonlyMap<ItemId, ItemId>, context: NewId): void {
  for (const joint of Object.values(draft.joints)) {
    const [moved, onto] = [copied.get(joint.moved.of), copied.get(joint.onto.of)];
    if (moved === undefined || onto === undefined) continue;
    const id = context.newId();
    draft.joints[id] = {
      ...plain(joint),
      ...freeJoint(draft),
      id,
      moved: { ...joint.moved, of: moved },
      onto: { ...joint.onto, of: onto },
    };
  }
}

/** Drafts of Immer's cannot be cloned by structuredClone; documents are plain JSON. */
export const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** A new part with the recipe of another, whatever that becomes; at the top of the tree or beside the other in its group. */
export function linkPart(draft: KadrelDocument, id: ItemId, context: NewId): ItemId {
  const source = draft.items[id]!;
  const parent = source.parent === null ? undefined : draft.items[source.parent];
  const newId = context.newId();
  // A link follows what it is linked to, whatever that was taken from.
  const { made: _, taken: __, traced: ___, ...look } = plain(source);
  draft.items[newId] = {
    ...look,
    id: newId,
    name: freeName(draft, source.name),
    order: nextOrder(draft),
    recipe: linkedRecipe(draft, source),
  };
  if (parent) setChildren(parent, [...childrenOf(parent), newId]);
  return newId;
}

/** What is linked to a half is another half: it goes its own way from the split on. */
function linkedRecipe(draft: KadrelDocument, source: Part): Part['recipe'] {
  const base = { kind: 'link' as const, to: definitionOf(draft, source).id };
  return isHalf(source)
    ? { base: { ...base, half: true }, steps: plain(source.recipe.steps) }
    : { base, steps: [] };
}

/** Gives a part a recipe of its own; whether it had shared one. What was linked to it goes on sharing among itself. */
export function makeIndependent(draft: KadrelDocument, part: Part, context: NewId): boolean {
  const { base } = part.recipe;
  if (base.kind !== 'link') return handOver(draft, part, context);
  takeRecipe({ draft, context }, part, draft.items[base.to]!);
  return true;
}

/** Gives the recipe of a part to those that are linked to it; whether there were any. */
export function handOver(draft: KadrelDocument, part: Part, context: NewId): boolean {
  const links = linkedWith(draft, part).filter(({ id }) => id !== part.id);
  if (links.length === 0 || part.recipe.base.kind === 'link') return false;
  const [heir, ...others] = links.filter((one) => !isHalf(one));
  const halves = links.filter(isHalf);
  if (heir) {
    takeRecipe({ draft, context }, heir, part);
    for (const other of others) other.recipe.base = { kind: 'link', to: heir.id };
    for (const half of halves) half.recipe.base = { kind: 'link', to: heir.id, half: true };
  } else for (const half of halves) takeRecipe({ draft, context }, half, part);
  return true;
}

/** A copy of another's recipe, with copies of what that is made from. */
function takeRecipe({ draft, context }: Drafting<NewId>, part: Part, from: Part): void {
  const copied = new Map<ItemId, ItemId>();
  part.recipe = plain(isHalf(part) ? builtRecipe(draft, part) : from.recipe);
  const below = childrenOf(from).map((child) =>
    copyBelow({ draft, context }, { id: child, parent: part.id }, copied),
  );
  setChildren(part, below);
  linkWithin(draft, copied);
}
