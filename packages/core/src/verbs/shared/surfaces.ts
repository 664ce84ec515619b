/** Surfaces, and bodies from them. */
import { isSurface } from '../../recipes/bodies/index.ts';
import { definitionOf, isFlatPart } from '../../document/items.ts';
import type { ItemId, KadrelDocument, Part } from '../../document/schema.ts';
import { refuse, type Refusal } from '../../statement/declare.ts';

export function surfaceNamed(draft: KadrelDocument, part: ItemId): Part | Refusal {
  const item = draft.items[part]!;
  const definition = definitionOf(draft, item);
  if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'part');
  if (isSurface(definition)) return definition;
  return refuse(
    'no-surface',
    isFlatPart(draft, item)
      ? `${item.name} is a drawing: raise it as a surface first.`
      : `${item.name} is no surface: it is closed already.`,
    'part',
  );
}
