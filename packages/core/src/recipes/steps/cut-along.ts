import { z } from 'zod';
import { profilesSchema } from '../bodies/regions.ts';
import { choice } from '../fields.ts';
import { finite } from '../numbers.ts';
import { declareStep } from './declare.ts';
import { frameSchema } from './frame.ts';

/** What lies on one side of an outline is kept: within a closed one, or to the left of an open one, or what is left. */
export const cutAlong = declareStep(
  'cutAlong',
  {
    profiles: profilesSchema,
    /** Where the plane of the profiles stands in the part's own frame: mm, and degrees about X, then Y, then Z. */
    frame: frameSchema(),
    /** The way on which it is cut, in that frame, Z being 1; 0, 0 is square to their plane. */
    slant: z.tuple([finite, finite]),
    keep: choice(
      'Keep',
      { front: 'what lies within, or to the left', behind: 'what lies without, or to the right' },
      { about: 'Which side stays.', default: 'front' },
    ),
    /** Both sides were kept: the other half is linked to this part, and has the other side. */
    split: z.literal(true).optional(),
  },
  {
    title: ({ split, keep }, names) =>
      `${split ? 'Split' : 'Trimmed'} along ${names}, ${keep === 'front' ? 'within or left' : 'without or right'} kept`,
  },
);
