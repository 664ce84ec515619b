import { z } from 'zod';
import { count, length } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** More points than this are no drawing. */
const MAX_POINTS = 5000;

/** The curves of a profile drawn anew through points: so many, or as few as keep within a distance. Corners stay. */
export const resample = declareStep(
  'resample',
  {
    by: z.union([
      z.strictObject({ count: count('Points', '', { least: 2, most: MAX_POINTS }) }),
      z.strictObject({ tolerance: length('Tolerance', '', { above: 0 }) }),
    ]),
    as: z.enum(['lines', 'curve']),
  },
  {
    title: ({ as }) => (as === 'lines' ? 'Resampled, straight lines' : 'Resampled, smooth curves'),
    number: (step) =>
      'count' in step.by
        ? {
            label: 'Points',
            kind: 'count',
            least: 2,
            most: MAX_POINTS,
            whole: true,
            value: step.by.count,
            with: (points) => ({ ...step, by: { count: valueOf(points) } }),
          }
        : {
            label: 'Tolerance',
            kind: 'length',
            above: 0,
            value: step.by.tolerance,
            with: (tolerance) => ({ ...step, by: { tolerance } }),
          },
  },
);
