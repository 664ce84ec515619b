import { z } from 'zod';
import { length } from '../fields.ts';
import { finite } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** A corner of a profile, or every one, is rounded by a radius or cut off at a distance. */
export const corner = declareStep(
  'corner',
  {
    /** The one nearest to a point between the curves so named, or all. */
    where: z.union([
      z.literal('all'),
      z.strictObject({ near: z.tuple([finite, finite]), between: z.tuple([z.string(), z.string()]) }),
    ]),
    how: z.enum(['round', 'bevel']),
    size: length('Size', 'The radius, or how far from the corner it is cut off.', { above: 0 }),
  },
  {
    title({ where, how }) {
      const which = where === 'all' ? 'All corners' : `Corner ${where.between.join(' and ')}`;
      return `${which}, ${how === 'round' ? 'fillet' : 'chamfer'}`;
    },
    number: (step) => ({
      label: step.how === 'round' ? 'Radius' : 'Size',
      kind: 'length',
      above: 0,
      value: step.size,
      with: (size) => ({ ...step, size }),
    }),
  },
);
