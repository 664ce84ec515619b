import type { ItemId } from '../../document/schema.ts';
import { cutStep, cuttingBlanks, splitInTwo } from '../shared/cutting.ts';
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
    const stepOf = (id: ItemId) => cutStep(draft, id, { plane, at, keep: 'front' });
    const halves = splitInTwo(draft, { parts, stepOf }, context);
    return isRefusal(halves) ? halves : { select: halves };
  },
});
