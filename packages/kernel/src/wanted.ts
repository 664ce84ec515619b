/** What has to be built so that the items of a document can be shown. */
import {
  buildName,
  placedOf,
  variantsOf,
  visibleParts,
  type ItemId,
  type KadrelDocument,
  type Placed,
} from '@kadrel/core';

export interface Wanted {
  /** What is seen, and what was asked for besides. */
  readonly items: readonly ItemId[];
  /** The solids that each comes to, and where. */
  readonly placed: ReadonlyMap<ItemId, readonly Placed[]>;
  /** What they are built from, each once, by names. */
  readonly variants: ReadonlyMap<string, Placed>;
}

/** @param also items besides those that are seen */
export function wantedOf(document: KadrelDocument, also: readonly ItemId[] = []): Wanted {
  const seen = visibleParts(document).map((part) => part.id);
  const items = [...new Set([...seen, ...also])].filter((id) => document.items[id]);
  const placed = new Map(items.map((id) => [id, placedOf(document, id)]));
  return { items, placed, variants: variantsOf([...placed.values()].flat()) };
}

/** Whether all that an item comes to is among what was built. */
export const isAllBuilt = (placed: readonly Placed[], parts: Readonly<Record<string, unknown>>): boolean =>
  placed.every((one) => parts[buildName(one)] !== undefined);
