import { declareKind } from '../declare.ts';
import { length, tally } from '../fields.ts';
import { directionSchema, pointSchema } from '../numbers.ts';
import { angleSpacing, attitude } from './spacing.ts';

export const around = declareKind(
  'around',
  {
    centre: pointSchema,
    axis: directionSchema,
    count: tally('Count'),
    /** A span of whole turns without rise closes the ring, and does not double the first. */
    spacing: angleSpacing(),
    attitude,
    rise: length('Rise', 'Along the axis from member to member.'),
  },
  { words: 'a ring' },
);
