/** Changes of a drawn outline, one after another: they are kept beside the figure, and follow it. */
import { z } from 'zod';
import { finite, numberSchema } from '../document/numbers.ts';

const pair = z.tuple([finite, finite]);
const ids = z.array(z.string().regex(/^[a-z0-9]{1,40}$/));

/** A corner, or every one, is rounded by a radius or cut off at a distance. */
const corner = z.strictObject({
  kind: z.literal('corner'),
  /** The one nearest to a point between the curves so named, or all. */
  where: z.union([
    z.literal('all'),
    z.strictObject({ near: pair, between: z.tuple([z.string(), z.string()]) }),
  ]),
  how: z.enum(['round', 'bevel']),
  /** The radius, or how far from the corner it is cut off. */
  size: numberSchema,
});
/** The piece of a curve at a point is taken out, as far as the next crossings with its own curves and those of others. */
const trim = z.strictObject({ kind: z.literal('trim'), near: pair, profiles: ids });
/** The free end nearest to a point goes on, straight or round as it ends, to where it first meets a curve. */
const extend = z.strictObject({ kind: z.literal('extend'), near: pair, profiles: ids });
/** Cut at the point of its curves that is nearest: a closed path opens there. */
const split = z.strictObject({ kind: z.literal('split'), near: pair });
const reverse = z.strictObject({ kind: z.literal('reverse') });
/** Drawn anew through points: so many, or as few as keep within a distance. Corners stay. */
const resample = z.strictObject({
  kind: z.literal('resample'),
  by: z.union([
    z.strictObject({ count: z.number().int().min(2).max(5000) }),
    z.strictObject({ tolerance: numberSchema }),
  ]),
  as: z.enum(['lines', 'curve']),
});

export const editSteps = [corner, trim, extend, split, reverse, resample] as const;
export type Edit = z.infer<(typeof editSteps)[number]>;
export type EditOf<K extends Edit['kind']> = Extract<Edit, { kind: K }>;
const KINDS: ReadonlySet<string> = new Set(editSteps.map((edit) => edit.shape.kind.value));
export const isEdit = (step: { readonly kind: string }): step is Edit => KINDS.has(step.kind);
