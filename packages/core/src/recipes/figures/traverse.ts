import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { angle, length } from '../fields.ts';

const pair = () => z.tuple([length('X'), length('Y')]);

/** What happens at the corner where a leg ends; mm. */
const cornerSchema = z.union([
  z.strictObject({ round: length('Radius') }),
  z.strictObject({ bevel: length('Bevel') }),
]);
/** A leg bends: by an angle from its start to its end (positive is to the left), or going on as the last one ended. */
const bendSchema = z.union([z.strictObject({ sweep: angle('Sweep') }), z.literal('tangent')]);
const common = {
  name: z.string().min(1).max(40).optional(),
  corner: cornerSchema.optional(),
  bend: bendSchema.optional(),
};
/** One leg, given in one of four ways. Bearings run clockwise from +Y, as a surveyor books them; a turn is to the right. */
const legSchema = z.union([
  z.strictObject({ by: pair(), ...common }),
  z.strictObject({ length: length('Length'), bearing: angle('Bearing'), ...common }),
  z.strictObject({ length: length('Length'), turn: angle('Turn'), ...common }),
  z.strictObject({ to: pair(), ...common }),
]);
export type Leg = z.infer<typeof legSchema>;

/** How a traverse that does not end where it began is closed. */
export const CLOSINGS = ['open', 'straight', 'square', 'spread'] as const;

/** More than this are no drawing by hand. */
export const MAX_LEGS = 5000;

export const traverse = declareKind(
  'traverse',
  {
    start: pair(),
    legs: z.array(legSchema).min(1).max(MAX_LEGS),
    closing: z.enum(CLOSINGS),
  },
  { words: 'a traverse', inAWord: 'traverse' },
);
