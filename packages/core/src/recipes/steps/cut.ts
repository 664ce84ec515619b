import { z } from 'zod';
import { choice, length } from '../fields.ts';
import { declareStep } from './declare.ts';
import { frameSchema } from './frame.ts';

/** What lies on one side of a plane is kept. */
export const cut = declareStep(
  'cut',
  {
    /** The plane in the part's own frame: mm, and degrees about X, then Y, then Z. Its Z looks to the front. */
    frame: frameSchema(),
    at: length('Cut at', 'How far from the plane, to its front.'),
    keep: choice(
      'Keep',
      { front: 'what lies before the plane', behind: 'what lies behind it' },
      { about: 'Which side stays.', default: 'front' },
    ),
    /** Made by Split: the other half is linked to this part, and has the other side. */
    split: z.literal(true).optional(),
  },
  {
    title: ({ split, keep }) => `${split ? 'Split' : 'Trimmed'}, ${keep === 'front' ? 'front' : 'back'} kept`,
    number: (step) => ({
      label: 'Cut at',
      kind: 'length',
      value: step.at,
      with: (at) => ({ ...step, at }),
    }),
  },
);
