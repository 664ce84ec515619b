import { recipeFault } from '../declare.ts';
import { BY_CORNERS } from '../../gestures/gesture.ts';
import { valueOf, vectorOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { choice, length, sizes } from '../fields.ts';

/** Own frame: the least corner at the origin; the top is narrowed along X, from the left or from both sides alike. */
export const wedge = declareKind(
  'wedge',
  {
    size: sizes('Length, width and height along X, Y and Z.'),
    top: length('Top', 'Length of the top along X; 0 is an edge.', { least: 0, default: '0', rare: true }),
    lean: choice(
      'Top at',
      { left: 'over the left end', middle: 'over the middle' },
      { about: 'Where the top lies.', default: 'left', rare: true, says: 'its top {lean}' },
    ),
  },
  {
    words: 'a wedge',
    box: ({ size }) => ({ min: [0, 0, 0], max: vectorOf(size) }),
    fault: ({ size, top }) =>
      valueOf(top) <= valueOf(size[0]) ? undefined : recipeFault('recipe.wedge-top', {}, 'top'),
    make: {
      name: 'Wedge',
      about: 'A box whose top is shorter, down to an edge: a ramp, a roof, a trapezium.',
      words: ['ramp', 'roof', 'slope', 'trapezium', 'chock', 'triangle'],
      at: ['corner', 'The least corner: left, front, bottom.'],
      gesture: BY_CORNERS,
      sentence: 'Wedge {size}, top {top}[ {lean}], with its corner at {at}[ named {as}]',
    },
  },
);
