import { HEIGHT, byRim } from '../../gestures/gesture.ts';
import { valueOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { ON_ITS_BOTTOM, diameterOf, heightOf, upright } from './shared.ts';

/** Own frame: the centre of the bottom at the origin, the axis along Z. */
export const cylinder = declareKind(
  'cylinder',
  { diameter: diameterOf('Across the circle.'), height: heightOf() },
  {
    words: 'a cylinder',
    stretched: 'an elliptic cylinder',
    box: ({ diameter, height }) => upright(valueOf(diameter), height),
    make: {
      name: 'Cylinder',
      key: 'C',
      about:
        'A round solid: drag from the centre to the rim and pull up the height, or type diameter and height.',
      words: ['round', 'rod', 'disc', 'drill', 'peg', 'post', 'hole', 'tube'],
      at: ON_ITS_BOTTOM,
      gesture: byRim(HEIGHT),
      isByRadius: true,
      sentence:
        'Cylinder[ of diameter {diameter}][ of radius {radius}] and height {height} on {at}[ named {as}]',
    },
  },
);
