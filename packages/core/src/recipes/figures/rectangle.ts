import { recipeFault } from '../declare.ts';
import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { valueOf } from '../numbers.ts';

/** Half of what corners may be rounder than the sides are long, mm: noise of converted units. */
const SLACK_MM = 1e-9;

/** Its least corner, or its centre, at the own origin. */
export const rectangle = declareKind(
  'rectangle',
  {
    width: length('Width', 'Along the X of the plane.', { above: 0 }),
    height: length('Height', 'Along the Y of the plane.', { above: 0 }),
    round: length('Corner radius', 'Of its corners; 0 leaves them sharp.', {
      least: 0,
      rare: true,
    }),
    centred: z.boolean(),
  },
  {
    words: 'a rectangle',
    inAWord: 'rectangle',
    fault: ({ width, height, round }) =>
      2 * valueOf(round) <= Math.min(valueOf(width), valueOf(height)) + SLACK_MM
        ? undefined
        : recipeFault('figure.rectangle-round', {}, 'round'),
  },
);
