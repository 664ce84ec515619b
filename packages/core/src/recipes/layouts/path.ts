import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { tally } from '../fields.ts';
import { pointSchema } from '../numbers.ts';
import { attitude, lengthSpacing } from './spacing.ts';

/** The curve that members stand on. */
const wayCurveSchema = z.discriminatedUnion('kind', [
  /** At least two points. */
  z.strictObject({ kind: z.literal('points'), points: z.array(pointSchema).min(2).max(10_000) }),
  /** A circle or an ellipse: the centre, two conjugate half diameters (half axes, unless stretched), mm, and the first and last angle, degrees. */
  z.strictObject({
    kind: z.literal('round'),
    centre: pointSchema,
    x: pointSchema,
    y: pointSchema,
    first: z.number(),
    last: z.number(),
  }),
]);
export type WayCurve = z.infer<typeof wayCurveSchema>;

export const path = declareKind(
  'path',
  {
    curve: wayCurveSchema,
    count: tally('Count'),
    /** Along the curve; null spreads the members over all of it. */
    spacing: lengthSpacing().nullable(),
    attitude,
  },
  { words: 'a row on a path' },
);
