/** What an item is made from. */
import { referencesIn, toolsIn } from '../recipes/bodies/index.ts';
import { withAllBelow } from './items.ts';
import type { ItemId, KadrelDocument, Part } from './schema.ts';

/** The item, what is below it, and all that these refer to. */
export function withAllNeeded(document: KadrelDocument, id: ItemId): Part[] {
  const found = new Map<ItemId, Part>();
  const add = (one: ItemId): void => {
    for (const item of withAllBelow(document, one)) {
      if (found.has(item.id)) continue;
      found.set(item.id, item);
      const { base } = item.recipe;
      for (const other of [...referencesIn(item.recipe), ...toolsIn(item.recipe)]) add(other);
      if (base.kind === 'link') add(base.to);
    }
  };
  add(id);
  return [...found.values()];
}
