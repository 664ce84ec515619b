import { withAllBelow } from '../document/items.ts';
import { childrenOf } from '../document/schema.ts';
import { handOver } from './copying.ts';
import { declareVerb, needed, refuse } from './declare.ts';
import { withoutNested } from './placing.ts';
import { detach } from './tree.ts';

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
      if (part.locked) return refuse('locked', `${part.name} is locked. Unlock it in Parts first.`, 'parts');
      const parent = part.parent === null ? undefined : draft.items[part.parent];
      const left = parent ? childrenOf(parent).filter((child) => child !== id) : [];
      const base = parent?.recipe.base;
      const isNeeded =
        (base?.kind === 'combine' || base?.kind === 'pattern') &&
        (left.length === 0 ||
          (base.kind === 'combine' && base.how === 'subtract' && base.operands[0] === id));
      if (parent && isNeeded)
        return refuse(
          'needed',
          `${parent.name} is made from ${part.name}. Delete ${parent.name} instead.`,
          'parts',
        );
      detach(draft, part);
      const gone = new Set(withAllBelow(draft, id).map((below) => below.id));
      // Links to what goes are among themselves from now on; first those that stay.
      for (const link of Object.values(draft.items))
        if (gone.has(link.id) && link.recipe.base.kind === 'link') delete draft.items[link.id];
      for (const below of gone) {
        const item = draft.items[below];
        if (item) handOver(draft, item, context);
      }
      for (const below of gone) delete draft.items[below];
    }
    return { select: [] };
  },
});
