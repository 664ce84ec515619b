/** Which items a statement may have changed: those that were fetched from its draft, or put into it. */
import type { ItemId, KadrelDocument, Part } from './schema.ts';

type Items = KadrelDocument['items'];

type Touched = Map<ItemId, Part | undefined>;

const touched = new WeakMap<Items, Touched>();

/** The same draft, which notes the items that are fetched from it. */
export function watched(draft: KadrelDocument): KadrelDocument {
  let seen: { readonly items: Items; readonly watching: Items } | undefined;
  return new Proxy(draft, {
    get(target, key) {
      const value: unknown = Reflect.get(target, key);
      if (key !== 'items') return value;
      const items = value as Items;
      // The first that is fetched begins a list; a verb may put other items in place of all.
      if (seen?.items !== items) seen = { items, watching: watchedItems(items) };
      return seen.watching;
    },
  });
}

function watchedItems(items: Items): Items {
  const seen: Touched = new Map();
  const note = (key: string | symbol, item: unknown) => {
    if (typeof key === 'string') seen.set(key, item as Part | undefined);
  };
  const watching = new Proxy(items, {
    get(target, key) {
      const item: unknown = Reflect.get(target, key);
      note(key, item);
      return item;
    },
    set(target, key, item) {
      note(key, item);
      return Reflect.set(target, key, item);
    },
    deleteProperty(target, key) {
      note(key, undefined);
      return Reflect.deleteProperty(target, key);
    },
  });
  touched.set(watching, seen);
  return watching;
}

/** All items of a watched draft that may differ from what it began with, as they stand; undefined where nobody has watched. */
export const touchedItems = (items: Items): ReadonlyMap<ItemId, Part | undefined> | undefined =>
  touched.get(items);
