import { HEIGHT, byRim } from '../../gestures/gesture.ts';
import { valueOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { ON_ITS_BOTTOM, diameterOf, heightOf, upright } from './shared.ts';

/** Own frame: the centre of the bottom at the origin, the axis along Z. A top of 0 is a point. */
export const cone = declareKind(
  'cone',
  {
    diameter: diameterOf('Across the bottom.'),
    top: length('Top', 'Across the top; 0 is a point.', { least: 0, default: '0', rare: true }),
    height: heightOf(),
  },
  {
    words: 'a cone',
    stretched: 'an elliptic cone',
    box: ({ diameter, top, height }) => upright(Math.max(valueOf(diameter), valueOf(top)), height),
    make: {
      name: 'Cone',
      about: 'A cone, or with a width at its top a frustum: type its widths and its height.',
      words: ['frustum', 'taper', 'funnel', 'point', 'countersink', 'spike'],
      at: ON_ITS_BOTTOM,
      gesture: byRim(HEIGHT),
      sentence: 'Cone of diameter {diameter}, {top} at its top, and height {height} on {at}[ named {as}]',
    },
  },
);
