/** What a profile is drawn as: figures that keep the numbers they were told by, in the profile's own XY plane. */
import { z } from 'zod';
import { finite, numberSchema } from '../document/numbers.ts';
import { curveSchema } from './curve.ts';

const pairOfNumbers = z.tuple([numberSchema, numberSchema]);

/** What happens at the corner where a leg ends; mm. */
const cornerSchema = z.union([
  z.strictObject({ round: numberSchema }),
  z.strictObject({ bevel: numberSchema }),
]);
/** A leg bends: by an angle from its start to its end (positive is to the left), or going on as the last one ended. */
const bendSchema = z.union([z.strictObject({ sweep: numberSchema }), z.literal('tangent')]);
const common = {
  name: z.string().min(1).max(40).optional(),
  corner: cornerSchema.optional(),
  bend: bendSchema.optional(),
};
/** One leg, told in one of four ways. Bearings run clockwise from +Y, as a surveyor books them; a turn is to the right. */
export const legSchema = z.union([
  z.strictObject({ by: pairOfNumbers, ...common }),
  z.strictObject({ length: numberSchema, bearing: numberSchema, ...common }),
  z.strictObject({ length: numberSchema, turn: numberSchema, ...common }),
  z.strictObject({ to: pairOfNumbers, ...common }),
]);
export type Leg = z.infer<typeof legSchema>;

/** How a traverse that does not end where it began is closed. */
export const CLOSINGS = ['open', 'straight', 'square', 'spread'] as const;

/** More than this are no drawing by hand. */
export const MOST_LEGS = 5000;

const traverse = z.strictObject({
  kind: z.literal('traverse'),
  start: pairOfNumbers,
  legs: z.array(legSchema).min(1).max(MOST_LEGS),
  closing: z.enum(CLOSINGS),
});
/** Its least corner, or its centre, at the own origin. */
const rectangle = z.strictObject({
  kind: z.literal('rectangle'),
  width: numberSchema,
  height: numberSchema,
  /** Radius of its corners; 0 leaves them sharp. */
  round: numberSchema,
  centred: z.boolean(),
});
/** Round figures and polygons have their centre at the own origin. */
const circle = z.strictObject({ kind: z.literal('circle'), diameter: numberSchema });
const ellipse = z.strictObject({ kind: z.literal('ellipse'), width: numberSchema, height: numberSchema });
const polygon = z.strictObject({
  kind: z.literal('polygon'),
  sides: z.number().int().min(3).max(1000),
  across: z.enum(['corners', 'flats', 'side']),
  size: numberSchema,
});
const arc = z.strictObject({
  kind: z.literal('arc'),
  radius: numberSchema,
  /** Degrees from X towards Y. */
  first: numberSchema,
  sweep: numberSchema,
});
const curve = z.strictObject({
  kind: z.literal('curve'),
  points: z
    .array(z.tuple([finite, finite]))
    .min(2)
    .max(MOST_LEGS),
  /** The curve goes through its points, or is drawn towards them. */
  how: z.enum(['through', 'control']),
  closed: z.boolean(),
});
const text = z.strictObject({
  kind: z.literal('text'),
  text: z.string().min(1).max(500),
  /** Of the capital letters. */
  height: numberSchema,
  /** Added between letters, mm. */
  spacing: numberSchema,
  align: z.enum(['left', 'centre', 'right']),
});
/** Curves as they came from a file or from an operation, end to end. */
const paths = z.strictObject({
  kind: z.literal('paths'),
  paths: z
    .array(z.strictObject({ closed: z.boolean(), curves: z.array(curveSchema).min(1) }))
    .min(1)
    .max(20_000),
});

export const figureSchema = z.discriminatedUnion('kind', [
  traverse,
  rectangle,
  circle,
  ellipse,
  polygon,
  arc,
  curve,
  text,
  paths,
]);
export type Figure = z.infer<typeof figureSchema>;
export type FigureOf<K extends Figure['kind']> = Extract<Figure, { kind: K }>;
