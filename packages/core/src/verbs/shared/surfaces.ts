/** Surfaces, and bodies from them. */
import { isSurface } from '../../recipes/bodies/index.ts';
import { definitionOf, isFlatPart } from '../../document/items.ts';
import type { ItemId, KadrelDocument, Part } from '../../document/schema.ts';
import { refuse, type Refusal } from '../../statement/declare.ts';

export function surfaceNamed(draft: KadrelDocument, part: ItemId): Part | Refusal {
  const item = draft.items[part]!;
  const definition = definitionOf(draft, item);
  if (item.locked) return refuse('locked', { name: item.name }, 'part');
  if (isSurface(definition)) return definition;
  return isFlatPart(draft, item)
    ? refuse('no-surface.drawing', { name: item.name }, 'part')
    : refuse('no-surface.closed', { name: item.name }, 'part');
}
