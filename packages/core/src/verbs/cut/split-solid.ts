import type { ItemId } from '../../document/schema.ts';
import { linkPart, makeIndependent } from '../shared/copying.ts';
import { cutStep, cuttingBlanks } from '../shared/cutting.ts';
import { solidToShape } from '../shared/shapingVerb.ts';
import { declareVerb, isRefusal } from '../../statement/declare.ts';

/** Two parts instead of one, with one recipe: where it is cut can still be changed, for both. */
export const splitSolid = declareVerb({
  id: 'split-solid',
  name: 'Split solid',
  group: 'cut',
  about: 'Cuts solids in two by a plane; both halves stay, and where they are cut can be changed later.',
  words: ['cut', 'halve', 'divide', 'saw', 'slice', 'part', 'plane'],
  blanks: cuttingBlanks,
  sentence: 'Split solid {parts} by {plane} at {at}',
  apply(draft, { parts, plane, at }, context) {
    const halves: ItemId[] = [];
    for (const id of parts) {
      const refusal = solidToShape(draft, id);
      if (isRefusal(refusal)) return { ...refusal, blank: 'parts' };
      const part = draft.items[id]!;
      // What others share is not cut with it.
      makeIndependent(draft, part, context);
      part.recipe.steps.push({ ...cutStep(draft, id, { plane, at, keep: 'front' }), split: true });
      const other = linkPart(draft, id, context);
      draft.items[other]!.recipe.base = { kind: 'link', to: id, half: true };
      halves.push(id, other);
    }
    return { select: halves };
  },
});
