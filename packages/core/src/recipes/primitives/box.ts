import { BY_CORNERS } from '../../gestures/gesture.ts';
import { vectorOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { sizes } from '../fields.ts';

/** Own frame: the minimum corner at the origin. */
export const box = declareKind(
  'box',
  { size: sizes('Length, width and height along X, Y and Z.') },
  {
    words: 'a box',
    stretched: 'a box, stretched aslant',
    box: ({ size }) => ({ min: [0, 0, 0], max: vectorOf(size) }),
    make: {
      name: 'Box',
      key: 'B',
      about: 'A rectangular solid: drag two corners and pull up the height, or type the sizes.',
      words: ['block', 'cuboid', 'plate', 'board', 'slab', 'cube'],
      at: ['corner', 'The least corner: left, front, bottom.'],
      gesture: BY_CORNERS,
      sentence: 'Box {size} with its corner at {at}[ named {as}]',
    },
  },
);
