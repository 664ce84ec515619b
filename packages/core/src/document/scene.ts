/** What a document says of its units, its named points, and its kept views. */
import { z } from 'zod';
import { LENGTH_UNITS } from '../quantity/units.ts';
import { idSchema } from '../recipes/ids.ts';
import { finite, pointSchema, vectorSchema } from '../recipes/numbers.ts';

/** Units, steps, and how numbers are shown. */
export const sceneSchema = z.strictObject({
  units: z.enum(LENGTH_UNITS),
  decimals: z.number().int().min(0).max(9),
  trailingZeros: z.boolean(),
  /** Smallest part of an inch shown in `ft-in`. */
  fraction: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16), z.literal(32), z.literal(64)]),
  /** Grid step, mm. */
  grid: finite.positive(),
  /** Angle step, degrees. */
  angleStep: finite.positive().max(360),
  /** What one press of an arrow key moves by, mm. */
  nudge: finite.positive(),
});
export type Scene = z.infer<typeof sceneSchema>;

/** A named point in the world, to snap to or turn about. */
export const pinSchema = z.strictObject({
  id: idSchema,
  name: z.string().min(1).max(120),
  order: finite,
  at: vectorSchema,
});
export type Pin = z.infer<typeof pinSchema>;

/** How a view looks at the world; core/src/space/camera.ts says what the numbers mean. */
export const viewSchema = z.strictObject({
  target: pointSchema,
  bearing: finite,
  altitude: finite.min(-90).max(90),
  height: finite.positive(),
  projection: z.enum(['perspective', 'parallel']),
});
