import { recipeFault } from '../declare.ts';
import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { finite } from '../numbers.ts';
import { MAX_LEGS } from './traverse.ts';

export const curve = declareKind(
  'curve',
  {
    points: z
      .array(z.tuple([finite, finite]))
      .min(2)
      .max(MAX_LEGS),
    /** The curve goes through its points, or is drawn towards them. */
    how: z.enum(['through', 'control']),
    closed: z.boolean(),
  },
  {
    words: 'a curve',
    fault: ({ points }) =>
      points.some(([x, y], i) => i > 0 && x === points[i - 1]![0] && y === points[i - 1]![1])
        ? recipeFault('figure.curve-doubled', {}, 'points')
        : undefined,
  },
);
