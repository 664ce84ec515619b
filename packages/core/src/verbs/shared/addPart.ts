/** What the Make verbs share: putting a new part into the document. */
import { itemIndex } from '../../document/itemIndex.ts';
import { freeName, nextOrder, placementAt } from '../../document/items.ts';
import type { Base, ItemId, KadrelDocument, NumVector } from '../../document/schema.ts';
import type { VerbContext } from '../../statement/declare.ts';

/** Muted earth and ink tints that sit quietly on the paper ground; a new part takes the next one. */
const PALETTE = [
  '#d9c3a0',
  '#a9b8a4',
  '#b7c2cf',
  '#cdb48c',
  '#c7b3bd',
  '#b9afa0',
  '#9fb3b5',
  '#d8cfae',
] as const;

export function addPart(
  draft: KadrelDocument,
  context: VerbContext,
  part: { name: string; base: Base; at: NumVector },
): ItemId {
  const id = context.newId();
  const order = nextOrder(draft);
  draft.items[id] = {
    id,
    kind: 'part',
    name: freeName(draft, part.name),
    parent: null,
    order,
    colour: PALETTE[itemIndex(draft).count % PALETTE.length]!,
    visible: true,
    locked: false,
    snappable: true,
    placement: placementAt(part.at),
    datum: part.base.kind === 'combine' || part.base.kind === 'group' ? [-1, -1, -1] : 'own',
    recipe: { base: part.base, steps: [] },
  };
  return id;
}
