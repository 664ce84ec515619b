/**
 * What is asked of all items of a document again and again, counted once for each state of it. A statement hands what was counted on to
 * the document that it makes, so that thousands of statements one after another do not each go through all items.
 */
import { isDraft, original } from 'immer';
import type { ItemId, KadrelDocument, Part } from './schema.ts';
import { touchedItems } from './watching.ts';

type Items = KadrelDocument['items'];

/** Of all items of one state. */
export interface ItemIndex {
  readonly count: number;
  /** How many have a name. */
  readonly named: (name: string) => number;
  /** No name of that stem with a number below this one is free: `Box 2`, `Box 3`, … */
  readonly freeFrom: (stem: string) => number;
  /** The greatest rank among those that stand beside one another. */
  readonly lastOrder: number;
}

class Counted implements ItemIndex {
  count = 0;
  lastOrder = 0;
  /** Cuts and slices that follow what they were cut from. */
  readonly traced = new Set<ItemId>();
  /** With steps of a kind that goes along with another item. */
  readonly following = new Set<ItemId>();
  private readonly names = new Map<string, number>();

  /** By stems, how far it is known that their numbers are taken. */
  private readonly runs = new Map<string, number>();

  readonly named = (name: string): number => this.names.get(name) ?? 0;

  readonly freeFrom = (stem: string): number => {
    let number = this.runs.get(stem) ?? FIRST_NUMBER;
    while (this.names.has(`${stem} ${number}`)) number += 1;
    this.runs.set(stem, number);
    return number;
  };

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
    else {
      this.names.delete(name);
      this.runs.delete(stemOf(name));
    }
    this.traced.delete(id);
    this.following.delete(id);
  }
}

/** The second of a name: the first has no number. */
const FIRST_NUMBER = 2;

/** A name without its number. */
export const stemOf = (name: string): string => name.replace(/ \d+$/, '');

/** Steps that go along with another item. */
export const FOLLOWING: ReadonlySet<string> = new Set(['cutAlong', 'cutBy', 'joined']);

const known = new WeakMap<Items, Counted>();

/** Of a document, or of a draft as it stands. */
export const itemIndex = ({ items }: Pick<KadrelDocument, 'items'>): ItemIndex =>
  isDraft(items) || touchedItems(items) ? countedOfDraft(items) : countedOf(items);

function countedOf(items: Items): Counted {
  const found = known.get(items);
  if (found) return found;
  const counted = countedAnew(items);
  known.set(items, counted);
  return counted;
}

function countedAnew(items: Items): Counted {
  const counted = new Counted();
  for (const item of itemsIn({ items })) counted.add(item);
  return counted;
}

/** A draft goes on changing, so that nothing of it is kept: what it began with is, and what it may have changed is looked at. */
function countedOfDraft(draft: Items): ItemIndex {
  const before = isDraft(draft) ? original(draft) : undefined;
  const touched = touchedItems(draft);
  if (!before || !touched) return countedAnew(draft);
  const was = countedOf(before);
  let [count, lastOrder] = [was.count, was.lastOrder];
  for (const [id, now] of touched) {
    const old = before[id];
    if (old === now) continue;
    if (isLastLost(was, [old, now])) return countedAnew(draft);
    count += Number(now !== undefined) - Number(old !== undefined);
    if (now) lastOrder = Math.max(lastOrder, now.order);
  }
  let moved: ReadonlyMap<string, number> | undefined;
  const others = () => (moved ??= namesMoved(before, touched));
  const named = (name: string) => was.named(name) + (others().get(name) ?? 0);
  const isGivenUp = (stem: string) => [...others()].some(([name, more]) => more < 0 && stemOf(name) === stem);
  const freeFrom = (stem: string) => (isGivenUp(stem) ? FIRST_NUMBER : was.freeFrom(stem));
  return { count, lastOrder, named, freeFrom };
}

/** How many more have each name than before. */
function namesMoved(
  before: Items,
  touched: ReadonlyMap<ItemId, Part | undefined>,
): ReadonlyMap<string, number> {
  const more = new Map<string, number>();
  const add = (item: Part | undefined, by: number) => {
    if (item) more.set(item.name, (more.get(item.name) ?? 0) + by);
  };
  for (const [id, now] of touched) {
    if (before[id] === now) continue;
    add(before[id], -1);
    add(now, 1);
  }
  return more;
}

/** An item before and after. */
type Change = readonly [was: Part | undefined, is: Part | undefined];

/** Who is the last in rank once the last is gone, is not known. */
const isLastLost = ({ lastOrder }: Counted, [was, is]: Change): boolean =>
  was?.order === lastOrder && !(is && is.order >= was.order);

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
    const [was, is]: Change = [before[id], after[id]];
    if (was === is) continue;
    if (isLastLost(counted, [was, is])) return;
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
  const ids = countedOf(document.items)[which];
  if (ids.size === 0) return [];
  const lists = listed.get(document.items) ?? {};
  listed.set(document.items, lists);
  return (lists[which] ??= Object.keys(document.items).filter((id) => ids.has(id)));
}
