/** The numbers that documents are made of. */
import { z } from 'zod';
import type { Vec3 } from '../space/vector.ts';

export const finite = z.number().finite();

/** A number in mm or degrees; with a formula where it depends on variables. */
export const numberSchema = z.union([
  finite,
  z.strictObject({ formula: z.string().max(2000), value: finite }),
]);
export type Num = z.infer<typeof numberSchema>;

export const vectorSchema = z.tuple([numberSchema, numberSchema, numberSchema]);
export type NumVector = z.infer<typeof vectorSchema>;

export const valueOf = (n: Num): number => (typeof n === 'number' ? n : n.value);
export const vectorOf = ([x, y, z]: NumVector): Vec3 => [valueOf(x), valueOf(y), valueOf(z)];

/** mm. */
export const pointSchema = z.tuple([finite, finite, finite]);

/** Directions are stored with length 1, as far as doubles tell. */
const UNIT_SLACK = 1e-9;
export const directionSchema = pointSchema.refine(
  (d) => Math.abs(Math.hypot(...d) - 1) < UNIT_SLACK,
  'A direction has length 1.',
);

/** More members than this are more than a page can draw. */
export const MOST_MEMBERS = 100_000;
export const countSchema = z.number().int().min(1).max(MOST_MEMBERS);
/** A count; with a formula where it depends on variables. */
export const countNumberSchema = z.union([
  countSchema,
  z.strictObject({ formula: z.string().max(2000), value: countSchema }),
]);
