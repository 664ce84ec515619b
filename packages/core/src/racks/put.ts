/** Rack parts in a document: put there, and made anew at another size or from another version. */
import { freeName, nextOrder, placementAt } from '../document/items.ts';
import type { RackPart } from '../document/rack.ts';
import {
  childrenOf,
  type ItemId,
  type KadrelDocument,
  type Num,
  type Part,
  type Taken,
} from '../document/schema.ts';
import { isSameJson } from '../history/json.ts';
import { valueOf } from '../recipes/numbers.ts';
import { isRefusal, refuse, type Refusal } from '../refusals/refusal.ts';
import { madeItems, type MadeItems } from './made.ts';

/** What is said of a part that is taken. */
export interface Taking {
  readonly values: Readonly<Record<string, Num>>;
  readonly size?: string | undefined;
  readonly follows: boolean;
}

type NewId = () => ItemId;

const numbersOf = (values: Readonly<Record<string, Num>>) =>
  Object.fromEntries(Object.entries(values).map(([name, n]) => [name, valueOf(n)]));

/** Puts a rack part into a document at its own origin. Returns the item that stands for it, or why it cannot be made. */
export function putRackPart(
  { draft, newId }: { readonly draft: KadrelDocument; readonly newId: NewId },
  part: RackPart,
  taking: Taking,
): { readonly item: ItemId } | Refusal {
  const made = madeItems(part, numbersOf(taking.values));
  if (isRefusal(made)) return made;
  const ids = Object.fromEntries(Object.keys(made).map((id) => [id, newId()]));
  const tops = Object.values(made).filter(({ parent }) => parent === null);
  for (const item of Object.values(made).sort((a, b) => a.order - b.order)) {
    const placed = renamed(item, ids);
    draft.items[placed.id] = { ...placed, name: freeName(draft, item.name), order: nextOrder(draft) };
  }
  const top =
    tops.length === 1
      ? ids[tops[0]!.id]!
      : addGroup(
          draft,
          tops.map(({ id }) => ids[id]!),
          newId,
        );
  const item = draft.items[top]!;
  item.name = nameFor(draft, item, `${part.name}${taking.size === undefined ? '' : ` ${taking.size}`}`);
  item.taken = takenOf(keptPart(draft, part, newId), taking, ids);
  return { item: top };
}

function takenOf(
  from: ItemId,
  { values, size, follows }: Taking,
  items: Readonly<Record<ItemId, ItemId>>,
): Taken {
  return {
    from,
    values: { ...values },
    ...(size === undefined ? {} : { size }),
    ...(follows ? { follows: true } : {}),
    items: { ...items },
  };
}

/** A name that no other has. */
function nameFor(draft: KadrelDocument, item: Part, wanted: string): string {
  item.name = '';
  return freeName(draft, wanted.slice(0, 110));
}

function addGroup(draft: KadrelDocument, members: ItemId[], newId: NewId): ItemId {
  const id = newId();
  draft.items[id] = {
    id,
    kind: 'part',
    name: 'Group',
    parent: null,
    order: nextOrder(draft),
    colour: draft.items[members[0]!]!.colour,
    visible: true,
    locked: false,
    snappable: true,
    placement: placementAt([0, 0, 0]),
    datum: 'own',
    recipe: { base: { kind: 'group', members }, steps: [] },
  };
  for (const member of members) draft.items[member]!.parent = id;
  return id;
}

/** The document's own copy of a rack part: one for all that were taken of a version. */
function keptPart(draft: KadrelDocument, part: RackPart, newId: NewId): ItemId {
  const known = Object.entries(draft.rackParts).find(
    ([, one]) => one.id === part.id && one.version === part.version,
  );
  if (known) return known[0];
  const key = newId();
  draft.rackParts[key] = part;
  return key;
}

/** An item under other ids, wherever they stand: as parents, operands, profiles, and in the names of faces. */
function renamed(item: Part, ids: Readonly<Record<ItemId, ItemId>>): Part {
  const { docks, ...rest } = item;
  const text = JSON.stringify(rest).replace(/[a-z0-9]+/g, (word) =>
    Object.hasOwn(ids, word) ? ids[word]! : word,
  );
  return {
    ...(JSON.parse(text) as Part),
    name: item.name,
    ...(docks ? { docks: renamedDocks(docks, ids) } : {}),
  };
}

type Docks = NonNullable<Part['docks']>;

/** Docks keep their ids, and what people have called them; the faces that they follow are those of the new items. */
function renamedDocks(docks: Docks, ids: Readonly<Record<ItemId, ItemId>>): Docks {
  const copied = JSON.parse(JSON.stringify(docks)) as Docks;
  for (const { on } of Object.values(copied))
    if (on) on.at = on.at.replace(/[a-z0-9]+/g, (word) => (Object.hasOwn(ids, word) ? ids[word]! : word));
  return copied;
}

/** What is made anew of something taken. */
export interface Remaking {
  readonly part: RackPart;
  readonly taking: Taking;
}

/**
 * Makes what was taken anew, at other values or from another version: it stays where it is, and keeps its name, colour, joints and
 * what was docked on to it. Returns why not, or undefined; the draft is then to be thrown away.
 */
export function remake(
  { draft, newId }: { readonly draft: KadrelDocument; readonly newId: NewId },
  top: ItemId,
  { part, taking }: Remaking,
): Refusal | undefined {
  const item = draft.items[top]!;
  const before = item.taken!;
  const changed = changedSince(draft, top, before);
  if (changed !== undefined) return refuse('rack-part.changed', { name: changed });
  const made = madeItems(part, numbersOf(taking.values));
  if (isRefusal(made)) return made;
  const isGrouped = !Object.values(before.items).includes(top);
  const tops = Object.values(made).filter(({ parent }) => parent === null);
  if (tops.length > 1 !== isGrouped) return refuse('rack-part.rebuilt', { name: part.name });
  const ids = Object.fromEntries(Object.keys(made).map((id) => [id, before.items[id] ?? newId()]));
  if (!isGrouped && ids[tops[0]!.id] !== top) ids[tops[0]!.id] = top;
  putAnew(draft, made, { ids, top, isGrouped });
  for (const [old, id] of Object.entries(before.items)) if (!made[old] && id !== top) delete draft.items[id];
  const now = draft.items[top]!;
  if (isGrouped) {
    const members = [...tops.map(({ id }) => ids[id]!), ...addedMembers(item, before)];
    now.recipe = { base: { kind: 'group', members }, steps: [] };
  }
  now.taken = takenOf(keptPart(draft, part, newId), taking, ids);
  dropUnused(draft);
  return undefined;
}

/** The name of an item whose recipe is not as the rack part made it: resized, mirrored, filleted or cut since. */
function changedSince(
  draft: KadrelDocument,
  top: ItemId,
  { from, values, items }: Taken,
): string | undefined {
  const kept = draft.rackParts[from];
  const made = kept && madeItems(kept, numbersOf(values));
  if (!made || isRefusal(made)) return undefined;
  return Object.entries(items)
    .map(([own, id]) => ({ wanted: made[own], item: draft.items[id] }))
    .find(({ wanted, item }) => wanted && item && !isAsMade(item, renamed(wanted, items), top))?.item?.name;
}

/** With the recipe that the rack part has, and not taken out of what it was made below. */
const isAsMade = ({ id, recipe, parent }: Part, wanted: Part, top: ItemId): boolean =>
  isSameJson(recipe, wanted.recipe) && (id === top || parent === (wanted.parent ?? top));

/** What was put into a group since it was taken. */
const addedMembers = (group: Part, { items }: Taken): ItemId[] =>
  childrenOf(group).filter((id) => !Object.values(items).includes(id));

interface Anew {
  readonly ids: Readonly<Record<ItemId, ItemId>>;
  readonly top: ItemId;
  readonly isGrouped: boolean;
}

function putAnew(draft: KadrelDocument, made: MadeItems, { ids, top, isGrouped }: Anew): void {
  for (const one of Object.values(made)) {
    const fresh = renamed(one, ids);
    const old = draft.items[fresh.id];
    const isTop = fresh.id === top;
    draft.items[fresh.id] = {
      ...fresh,
      name: old?.name ?? freeName(draft, one.name),
      order: old?.order ?? nextOrder(draft),
      ...(old
        ? { colour: old.colour, visible: old.visible, locked: old.locked, snappable: old.snappable }
        : {}),
      parent: isTop ? (old?.parent ?? null) : (fresh.parent ?? (isGrouped ? top : null)),
      ...(isTop && old ? { placement: old.placement, datum: old.datum } : {}),
      ...docksOf(fresh, old),
    };
  }
}

/** Docks that were made since stay; those of the rack part are as it says. */
function docksOf(fresh: Part, old: Part | undefined): Pick<Part, 'docks'> {
  const docks = { ...old?.docks, ...fresh.docks };
  return Object.keys(docks).length === 0 ? {} : { docks };
}

/** Copies of rack parts that nothing is made of any more. */
function dropUnused(draft: KadrelDocument): void {
  const used = new Set(Object.values(draft.items).flatMap(({ taken }) => (taken ? [taken.from] : [])));
  for (const key of Object.keys(draft.rackParts)) if (!used.has(key)) delete draft.rackParts[key];
}
