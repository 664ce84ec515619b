import { recipeFault } from '../declare.ts';
import { HEIGHT, byRim } from '../../gestures/gesture.ts';
import { valueOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { ON_ITS_BOTTOM, diameterOf, heightOf, upright } from './shared.ts';

/** Own frame: the centre of the bottom at the origin, the axis along Z. */
export const tube = declareKind(
  'tube',
  {
    diameter: diameterOf('Across the outside.'),
    bore: length('Bore', 'Across the inside.', { above: 0, rare: true }),
    height: heightOf(),
  },
  {
    words: 'a tube',
    stretched: 'an elliptic tube',
    box: ({ diameter, height }) => upright(valueOf(diameter), height),
    fault: ({ diameter, bore }) =>
      valueOf(bore) < valueOf(diameter) ? undefined : recipeFault('recipe.tube-bore', {}, 'bore'),
    make: {
      name: 'Tube',
      about: 'A round solid with a bore through it: type its diameter, its bore and its height.',
      words: ['pipe', 'sleeve', 'bush', 'washer', 'ring', 'hollow'],
      at: ON_ITS_BOTTOM,
      gesture: byRim([{ reads: 'distance', into: 'bore', times: 2 }], HEIGHT),
      sentence: 'Tube of diameter {diameter}, bore {bore} and height {height} on {at}[ named {as}]',
    },
  },
);
