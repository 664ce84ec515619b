import { recipeFault } from '../declare.ts';
import { HEIGHT, byRim } from '../../gestures/gesture.ts';
import { valueOf, type Num } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { diameterOf } from './shared.ts';

/** A ball cut flat below. Own frame: the centre of the flat face at the origin, the axis along Z. */
export const cap = declareKind(
  'cap',
  {
    diameter: diameterOf('Of the whole ball.'),
    height: length('Height', 'Above the flat face; without one it is half the ball.', { above: 0 }),
  },
  {
    words: 'a cap',
    fault: ({ diameter, height }) =>
      valueOf(height) < valueOf(diameter) ? undefined : recipeFault('recipe.cap-high', {}, 'height'),
    make: {
      name: 'Cap',
      about: 'A ball cut flat below: half of it, or as much as the height says.',
      words: ['dome', 'half sphere', 'hemisphere', 'ball', 'segment', 'button'],
      at: ['centre', 'The centre of the flat face.'],
      gesture: byRim(HEIGHT),
      complete: { height: ({ diameter }: { diameter: Num }) => valueOf(diameter) / 2 },
      sentence: 'Cap of a ball of {diameter}[, {height} high,] on {at}[ named {as}]',
    },
  },
);
