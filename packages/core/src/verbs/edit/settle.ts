import { readableName } from '../../document/naming.ts';
import { below, definitionOf, isFlatPart } from '../../document/items.ts';
import { MAX_SETTLED } from '../../recipes/bodies/settled.ts';
import { makeIndependent } from '../shared/copying.ts';
import { remove } from '../shared/leaving.ts';
import { setChildren } from '../shared/tree.ts';
import { declareVerb, isRefusal, needed, refuse } from '../../statement/declare.ts';
import { solidToShape } from '../shared/shapingVerb.ts';

/** What a part was made by gives way to the solid that it is. */
export const settle = declareVerb({
  id: 'settle',
  name: 'Settle',
  group: 'edit',
  about: 'Keeps a part as the exact solid that it is, without its recipe, steps and operands.',
  words: ['fix', 'freeze', 'bake', 'flatten', 'collapse', 'history', 'simplify'],
  blanks: { part: needed('part', 'part', 'The solid.') },
  sentence: 'Settle {part}',
  apply(draft, { part: id }, context) {
    const refusal = solidToShape(draft, id);
    if (isRefusal(refusal)) return refusal;
    const { shape, faces } = context.ask<'solid'>({ ask: 'solid', part: id });
    const part = draft.items[id]!;
    if (shape.length > MAX_SETTLED) return refuse('large', { name: part.name }, 'part');
    if (definitionOf(draft, part).recipe.base.kind === 'settled' && part.recipe.steps.length === 0)
      return refuse('settled', { name: part.name }, 'part');
    const names = faces.map((face) => readableName(face, draft));
    // What others share stays as it is for them.
    makeIndependent(draft, part, context);
    const operands = below(draft, part).filter((item) => !isFlatPart(draft, item));
    setChildren(part, []);
    for (const operand of operands) remove(draft, operand, context);
    part.recipe = { base: { kind: 'settled', shape, faces: names }, steps: [] };
    delete part.made;
    return { select: [id] };
  },
});
