import { recipeFault } from '../declare.ts';
import { BY_WIDTH } from '../../gestures/gesture.ts';
import { valueOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { acrossOf, sidesOf } from '../regular.ts';
import { ON_ITS_BOTTOM, heightOf } from './shared.ts';

/**
 * A pyramid, or with a width at its top a frustum of one. Own frame: the centre of the bottom at the origin, the axis along Z, a side
 * facing −Y.
 */
export const frustum = declareKind(
  'frustum',
  {
    sides: sidesOf(),
    size: length('Width', 'Of the bottom: across corners, across flats, or of one side.', {
      above: 0,
      blank: 'width',
      rare: true,
    }),
    across: acrossOf(),
    top: length('Top', 'Of the top, measured alike; 0 is a point.', { least: 0, default: '0', rare: true }),
    height: heightOf(),
  },
  {
    words: 'a pyramid',
    inAWord: 'pyramid',
    fault: ({ size, top }) =>
      valueOf(size) === valueOf(top) ? recipeFault('recipe.pyramid-prism', {}, 'top') : undefined,
    make: {
      name: 'Pyramid',
      about:
        'A solid with equal leaning sides, up to a point or a flat top: type how many, its widths and height.',
      words: ['frustum', 'spire', 'roof', 'tetrahedron', 'obelisk', 'hopper', 'taper'],
      at: ON_ITS_BOTTOM,
      gesture: BY_WIDTH,
      sentence:
        'Pyramid of {sides} sides, {width} {across}, {top} at its top, and height {height} on {at}[ named {as}]',
    },
  },
);
