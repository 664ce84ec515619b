/**
 * What is asked of all items of a document again and again, counted once for each state of it. A statement hands what was counted on to
 * the document that it makes, so that thousands of statements one after another do not each go through all items.
 */
import { isDraft } from 'immer';
import type { ItemId, KadrelDocument, Part } from './schema.ts';

type Items = KadrelDocument['items'];

/** Of all items of one state. */
export interface ItemIndex {
  readonly count: number;
  /** How many have each name. */
  readonly names: ReadonlyMap<string, number>;
  /** The greatest rank among those that stand beside one another. */
  readonly lastOrder: number;
  /** Cuts and slices that follow what they were cut from. */
  readonly traced: ReadonlySet<ItemId>;
  /** Items with steps of a kind that goes along with another item. */
  readonly following: ReadonlySet<ItemId>;
}

class Counted implements ItemIndex {
  count = 0;
  readonly names = new Map<string, number>();
  lastOrder = 0;
  readonly traced = new Set<ItemId>();
  readonly following = new Set<ItemId>();

  add({ id, name, order, traced, recipe }: Part): void {
    this.count += 1;
    this.names.set(name, (this.names.get(name) ?? 0) + 1);
    this.lastOrder = Math.max(this.lastOrder, order);
    if (traced) this.traced.add(id);
    if (recipe.steps.some(({ kind }) => FOLLOWING.has(kind))) this.following.add(id);
  }

  remove({ id, name }: Part): void {
    this.count -= 1;
    const left = this.names.get(name)! - 1;
    if (left > 0) this.names.set(name, left);
    else this.names.delete(name);
    this.traced.delete(id);
    this.following.delete(id);
  }
}

/** Steps that go along with another item. */
export const FOLLOWING: ReadonlySet<string> = new Set(['cutAlong', 'cutBy', 'joined']);

const known = new WeakMap<Items, Counted>();

/** Of a document, or of a draft as it stands. */
export function itemIndex(document: Pick<KadrelDocument, 'items'>): ItemIndex {
  const { items } = document;
  const found = known.get(items);
  if (found) return found;
  const counted = new Counted();
  for (const item of itemsIn(document)) counted.add(item);
  // A draft goes on changing.
  if (!isDraft(items)) known.set(items, counted);
  return counted;
}

/**
 * All items, of a draft as they stand, to be read only. To read them through the draft would make a draft of each, and a plain copy of
 * it would copy each new one: a statement that makes hundreds of parts asks for them hundreds of times. The description of a property
 * holds what the draft holds, whatever that is.
 */
export const itemsIn = ({ items }: Pick<KadrelDocument, 'items'>): readonly Part[] =>
  isDraft(items)
    ? Object.keys(items).map((id) => Object.getOwnPropertyDescriptor(items, id)!.value as Part)
    : Object.values(items);

/** Hands what was counted of a document on to one that differs in a few items. The first is counted anew when it is asked about again. */
export function handIndexOn(before: Items, after: Items, changed: Iterable<ItemId>): void {
  const counted = known.get(before);
  if (!counted || before === after) return;
  known.delete(before);
  for (const id of changed) {
    const [was, is] = [before[id], after[id]];
    if (was === is) continue;
    // Who is the last in rank once the last is gone, is not known.
    if (was?.order === counted.lastOrder && !(is && is.order >= was.order)) return;
    if (was) counted.remove(was);
    if (is) counted.add(is);
  }
  known.set(after, counted);
}

type Listed = 'traced' | 'following';
/** For each state: a preview asks at every move of the pointer. */
const listed = new WeakMap<Items, Partial<Record<Listed, readonly ItemId[]>>>();

/** Ids of traced items, or of those with following steps, in the order of the items. */
export function idsListed(document: Pick<KadrelDocument, 'items'>, which: Listed): readonly ItemId[] {
  const ids = itemIndex(document)[which];
  if (ids.size === 0) return [];
  const lists = listed.get(document.items) ?? {};
  listed.set(document.items, lists);
  return (lists[which] ??= Object.keys(document.items).filter((id) => ids.has(id)));
}
