import { withOperands } from '../document/items.ts';
import { declareVerb, needed, refuse } from './declare.ts';
import { withoutNested } from './placing.ts';

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
  apply(draft, { parts }) {
    for (const id of withoutNested(draft, parts)) {
      const part = draft.items[id]!;
      if (part.locked) return refuse('locked', `${part.name} is locked. Unlock it in Parts first.`, 'parts');
      const parent = part.parent === null ? undefined : draft.items[part.parent];
      if (parent?.recipe.base.kind === 'combine') {
        const { how, operands } = parent.recipe.base;
        if (operands.length === 1 || (how === 'subtract' && operands[0] === id))
          return refuse(
            'needed',
            `${parent.name} is made from ${part.name}. Delete ${parent.name} instead.`,
            'parts',
          );
        parent.recipe.base.operands = operands.filter((operand) => operand !== id);
      }
      for (const below of withOperands(draft, id)) delete draft.items[below.id];
    }
    return { select: [] };
  },
});
