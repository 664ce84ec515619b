/** How the members of a pattern stand: data only. core/src/patterns says where that puts them. */
import { z } from 'zod';
import { countNumberSchema, directionSchema, numberSchema, pointSchema } from './numbers.ts';

/** From one member to the next, or from the first to the last. Lengths in mm, turns in degrees. */
const spacingSchema = z.union([
  z.strictObject({ pitch: numberSchema }),
  z.strictObject({ span: numberSchema }),
]);
export type Spacing = z.infer<typeof spacingSchema>;

/** What grows from member to member: the gap (mm), a turn about the direction (degrees), or the sizes of the solid (mm). */
const growthSchema = z.union([
  z.strictObject({ gap: numberSchema }),
  z.strictObject({ turn: numberSchema }),
  z.strictObject({ size: z.tuple([numberSchema, numberSchema, numberSchema]) }),
]);
export type Growth = z.infer<typeof growthSchema>;

/** As many members as fit with gaps of at least, or at most, so much: `size` is what one takes up along the direction, mm. */
const fitSchema = z.strictObject({
  rule: z.enum(['least', 'most']),
  gap: numberSchema,
  size: z.number().nonnegative(),
});

const alongSchema = z.strictObject({
  kind: z.literal('along'),
  direction: directionSchema,
  count: countNumberSchema,
  spacing: spacingSchema,
  /** The source stands in the middle of the row instead of at its beginning. */
  centred: z.boolean(),
  growth: growthSchema.optional(),
  fit: fitSchema.optional(),
});

const aroundSchema = z.strictObject({
  kind: z.literal('around'),
  centre: pointSchema,
  axis: directionSchema,
  count: countNumberSchema,
  /** Degrees; a span of whole turns without rise closes the ring, and does not double the first. */
  spacing: spacingSchema,
  /** Members turn with the ring, or keep the attitude of the source. */
  attitude: z.enum(['turning', 'keeping']),
  /** Along the axis from member to member, mm. */
  rise: numberSchema,
});

const rowSchema = z.strictObject({
  direction: directionSchema,
  count: countNumberSchema,
  spacing: spacingSchema,
});

const gridSchema = z.strictObject({
  kind: z.literal('grid'),
  /** Columns, rows, levels. */
  rows: z.tuple([rowSchema, rowSchema, rowSchema]),
  /** Every other row is shifted by this part of the columns' pitch. */
  stagger: z.number().min(0).max(1),
});

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

const pathSchema = z.strictObject({
  kind: z.literal('path'),
  curve: wayCurveSchema,
  count: countNumberSchema,
  /** Lengths along the curve, mm; null spreads the members over all of it. */
  spacing: spacingSchema.nullable(),
  /** Members turn with the curve, or keep the attitude of the source. */
  attitude: z.enum(['turning', 'keeping']),
});

/** The source and its mirror image. */
const reflectionSchema = z.strictObject({
  kind: z.literal('reflection'),
  point: pointSchema,
  normal: directionSchema,
});

export const layoutSchema = z.discriminatedUnion('kind', [
  alongSchema,
  aroundSchema,
  gridSchema,
  pathSchema,
  reflectionSchema,
]);
export type Layout = z.infer<typeof layoutSchema>;
export type LayoutOf<K extends Layout['kind']> = Extract<Layout, { kind: K }>;

/** Which member: its place in the row, or column, row and level of a grid; counted from 0. */
export const memberKeySchema = z.tuple([countFromZero(), countFromZero(), countFromZero()]);
export type MemberKey = z.infer<typeof memberKeySchema>;

function countFromZero() {
  return z.number().int().nonnegative();
}
