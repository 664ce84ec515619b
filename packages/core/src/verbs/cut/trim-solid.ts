import { cutStep, cuttingBlanks, trimAll } from '../shared/cutting.ts';
import { declareVerb, needed } from '../../statement/declare.ts';

/** What lies on one side of a plane is taken away. */
export const trimSolid = declareVerb({
  id: 'trim-solid',
  name: 'Trim solid',
  group: 'cut',
  about: 'Cuts off what lies on one side of a plane; where it is cut can be changed later.',
  words: ['cut off', 'saw', 'plane', 'shorten', 'remove'],
  blanks: {
    ...cuttingBlanks,
    keep: needed('choice', 'kept', 'Which side stays.', {
      default: 'front',
      choices: { front: 'what lies before it stays', behind: 'what lies behind it stays' },
    }),
  },
  sentence: 'Trim solid {parts} by {plane} at {at}, {keep}',
  apply(draft, { parts, plane, at, keep }) {
    const side = keep as 'front' | 'behind';
    const refusal = trimAll(draft, parts, (id) => cutStep(draft, id, { plane, at, keep: side }));
    return refusal ?? { select: parts };
  },
});
