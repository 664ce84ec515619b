import { BY_WIDTH } from '../../gestures/gesture.ts';
import { boxOf } from '../../space/box.ts';
import type { Vec3 } from '../../space/vector.ts';
import { valueOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { acrossOf, prismCorners, sidesOf } from '../regular.ts';
import { ON_ITS_BOTTOM, heightOf } from './shared.ts';

/** Own frame: the centre of the bottom at the origin, the axis along Z, a side facing −Y. */
export const prism = declareKind(
  'prism',
  {
    sides: sidesOf(),
    size: length('Width', 'Across corners, across flats, or of one side.', {
      above: 0,
      blank: 'width',
      rare: true,
    }),
    across: acrossOf(),
    height: heightOf(),
  },
  {
    words: 'a prism',
    stretched: 'a stretched prism',
    box(recipe) {
      const flat = boxOf(prismCorners(recipe).map(([x, y]): Vec3 => [x, y, 0]));
      return { min: flat.min, max: [flat.max[0], flat.max[1], valueOf(recipe.height)] };
    },
    make: {
      name: 'Prism',
      about: 'A solid with equal sides: type how many, its width across corners or flats, and its height.',
      words: ['hexagon', 'polygon', 'triangle', 'nut', 'column', 'pentagon', 'octagon', 'sides'],
      at: ON_ITS_BOTTOM,
      gesture: BY_WIDTH,
      sentence: 'Prism of {sides} sides, {width} {across}, and height {height} on {at}[ named {as}]',
    },
  },
);
