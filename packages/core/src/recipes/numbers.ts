/** The numbers that documents are made of. */
import { z } from 'zod';
import type { Vec3 } from '../space/vector.ts';

/** Any number but NaN and the infinite ones. */
export const finite = z.number().finite();

/** A number in mm or degrees; with a formula where it depends on variables. */
export const numberSchema = z.union([
  finite,
  z.strictObject({ formula: z.string().max(2000), value: finite }),
]);
export type Num = z.infer<typeof numberSchema>;

/** Three numbers along X, Y and Z. */
export const vectorSchema = z.tuple([numberSchema, numberSchema, numberSchema]);
export type NumVector = z.infer<typeof vectorSchema>;

/** A number as it is now. */
export const valueOf = (n: Num): number => (typeof n === 'number' ? n : n.value);
/** Three numbers as they are now. */
export const vectorOf = ([x, y, z]: NumVector): Vec3 => [valueOf(x), valueOf(y), valueOf(z)];

/** mm. */
export const pointSchema = z.tuple([finite, finite, finite]);

/** Directions are stored with length 1, as far as doubles tell. */
const UNIT_SLACK = 1e-9;
/** A direction of length 1. */
export const directionSchema = pointSchema.refine(
  (d) => Math.abs(Math.hypot(...d) - 1) < UNIT_SLACK,
  'A direction has length 1.',
);

/** More members than this are more than a page can draw. */
export const MAX_MEMBERS = 100_000;
/** A count of members. */
export const countSchema = z.number().int().min(1).max(MAX_MEMBERS);
/** A count; with a formula where it depends on variables. */
export const countNumberSchema = z.union([
  countSchema,
  z.strictObject({ formula: z.string().max(2000), value: countSchema }),
]);

/** A recipe with its numbers as they are now, without their formulas. */
export type Valued<T> = T extends Num
  ? number
  : T extends readonly unknown[] | object
    ? { readonly [K in keyof T]: Valued<T[K]> }
    : T;

/** A recipe with its numbers as they are now, and their formulas gone. */
export function valued<T>(recipe: T): Valued<T>;
export function valued(recipe: unknown): unknown {
  if (Array.isArray(recipe)) return recipe.map((one: unknown) => valued(one));
  if (typeof recipe !== 'object' || recipe === null) return recipe;
  if ('formula' in recipe && 'value' in recipe) return recipe.value;
  return Object.fromEntries(Object.entries(recipe).map(([key, value]) => [key, valued(value)]));
}
