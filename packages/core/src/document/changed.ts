/** Items that differ between two documents, for whoever holds the first and is asked about the second. */
import type { ItemId, KadrelDocument, Part } from './schema.ts';

/** By id as the second has them; null where it has them no more. */
export type ChangedItems = Readonly<Record<ItemId, Part | null>>;

/** What the second document has otherwise. */
export function changedItems(before: KadrelDocument, after: KadrelDocument): ChangedItems {
  const changed: Record<ItemId, Part | null> = {};
  for (const item of Object.values(after.items)) if (before.items[item.id] !== item) changed[item.id] = item;
  for (const id of Object.keys(before.items)) if (!after.items[id]) changed[id] = null;
  return changed;
}

/** The first document with what the second has otherwise. */
export function withChangedItems(document: KadrelDocument, changed: ChangedItems): KadrelDocument {
  if (Object.keys(changed).length === 0) return document;
  const items = { ...document.items };
  for (const [id, item] of Object.entries(changed)) {
    if (item) items[id] = item;
    else delete items[id];
  }
  return { ...document, items };
}
