import { z } from 'zod';
import { choice, length } from '../fields.ts';
import { idSchema } from '../ids.ts';
import { declareStep } from './declare.ts';
import { frameSchema } from './frame.ts';

/** What lies within another part is kept, or what lies outside it. The other part stays as it is. */
export const cutBy = declareStep(
  'cutBy',
  {
    tool: idSchema,
    /** Where the other part stands in this part’s own frame: mm, and degrees about X, then Y, then Z. */
    frame: frameSchema(),
    keep: choice(
      'Keep',
      { front: 'what lies within', behind: 'what lies outside' },
      { about: 'Which side stays.', default: 'front' },
    ),
    clearance: length('Clearance', 'How far the other part is taken as larger than it is, all round.', {
      above: 0,
      rare: true,
    }).optional(),
    /** Both sides were kept: the other half is linked to this part, and has the other side. */
    split: z.literal(true).optional(),
  },
  {
    title: ({ split, keep, clearance }, names) =>
      `${split ? 'Split' : 'Trimmed'} by ${names}${clearance === undefined ? '' : ' and a clearance'}, ${keep === 'front' ? 'within' : 'outside'} kept`,
    number: ({ clearance, ...step }) =>
      clearance === undefined
        ? undefined
        : {
            label: 'Clearance',
            kind: 'length',
            value: clearance,
            above: 0,
            with: (to) => ({ ...step, clearance: to }),
          },
  },
);
