import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { angle, length, tally } from '../fields.ts';
import { directionSchema } from '../numbers.ts';
import { lengthSpacing } from './spacing.ts';

/** What grows from member to member: the gap, a turn about the direction, or the sizes of the solid. */
const growthSchema = z.union([
  z.strictObject({ gap: length('Widening') }),
  z.strictObject({ turn: angle('Twist') }),
  z.strictObject({ size: z.tuple([length('Growth X'), length('Growth Y'), length('Growth Z')]) }),
]);
export type Growth = z.infer<typeof growthSchema>;

/** As many members as fit with gaps of at least, or at most, so much: `size` is what one takes up along the direction, mm. */
const fitSchema = z.strictObject({
  rule: z.enum(['least', 'most']),
  gap: length('Gap'),
  size: z.number().nonnegative(),
});

export const along = declareKind(
  'along',
  {
    direction: directionSchema,
    count: tally('Count'),
    spacing: lengthSpacing(),
    /** The source stands in the middle of the row instead of at its beginning. */
    centred: z.boolean(),
    growth: growthSchema.optional(),
    fit: fitSchema.optional(),
  },
  { words: 'a row' },
);
