import { referencesIn, toolsIn } from '../../recipes/bodies/index.ts';
import { withAllBelow } from '../../document/items.ts';
import { childrenOf, type ItemId, type KadrelDocument, type Part } from '../../document/schema.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { withoutNested } from '../shared/placing.ts';
import { remove } from '../shared/leaving.ts';

/** Takes parts away, with everything below them. */
export const deleteParts = declareVerb({
  id: 'delete',
  name: 'Delete',
  group: 'edit',
  key: 'Delete',
  about: 'Takes parts away, with what they are made of.',
  words: ['remove', 'erase', 'throw away'],
  blanks: { parts: needed('parts', 'parts', 'What is taken away.', { least: 1 }) },
  sentence: 'Delete {parts}',
  apply(draft, { parts }, context) {
    for (const id of withoutNested(draft, parts)) {
      const part = draft.items[id]!;
      if (part.locked) return refuse('locked', { name: part.name }, 'parts');
      const owner = neededBy(draft, part);
      if (owner) return refuse('needed.made-delete', { name: owner.name, part: part.name }, 'parts');
      const body = madeFrom(draft, part, parts);
      if (body) return refuse('needed.made-delete-hide', { name: body.name, part: part.name }, 'parts');
      remove(draft, part, context);
    }
    return { select: [] };
  },
});

/** What stays behind and is made from a profile, cut by a part or joined with a surface that would go. */
function madeFrom(document: KadrelDocument, part: Part, going: readonly ItemId[]): Part | undefined {
  const below = new Set(withAllBelow(document, part.id).map(({ id }) => id));
  const gone = new Set(going.flatMap((id) => withAllBelow(document, id).map((one) => one.id)));
  return Object.values(document.items).find(
    (item) =>
      !gone.has(item.id) &&
      [...referencesIn(item.recipe), ...toolsIn(item.recipe)].some((id) => below.has(id)),
  );
}

/** The combination or the pattern that could not be without a part. */
function neededBy(document: KadrelDocument, part: Part): Part | undefined {
  const parent = part.parent === null ? undefined : document.items[part.parent];
  const { base } = parent?.recipe ?? {};
  if (!parent || !base) return undefined;
  const isLast = childrenOf(parent).length === 1;
  // A group of which nothing is left goes too, and may be needed itself.
  if (base.kind === 'group') return isLast ? neededBy(document, parent) : undefined;
  const isCut = base.kind === 'combine' && base.how === 'subtract' && base.operands[0] === part.id;
  return isLast || isCut ? parent : undefined;
}
