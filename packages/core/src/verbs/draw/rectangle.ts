import { cleanLength } from '../../space/rounding.ts';
import { subtract2, type Vec2 } from '../../space/vector2.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { drawFigure, footOf, namedAs, onPlane } from '../shared/drawing.ts';

/** Corner to corner, by two sizes from a corner, or about a centre. */
export const rectangle = declareVerb({
  id: 'rectangle',
  name: 'Rectangle',
  group: 'draw',
  about: 'By two corners, or by width and height from a corner or a centre.',
  words: ['square', 'rect', 'room', 'plate', 'frame'],
  blanks: {
    width: optional('length', 'width', 'Along the X of the plane.', { positive: true }),
    height: optional('length', 'height', 'Along the Y of the plane.', { positive: true }),
    at: needed('point', 'at', 'A corner, or the centre.', { default: ['0', '0', '0'] }),
    to: optional('point', 'to', 'The opposite corner, instead of width and height.', { rare: true }),
    from: needed('choice', 'from', 'What stands at the point.', {
      default: 'corner',
      choices: { corner: 'its corner', centre: 'its centre' },
    }),
    round: needed('length', 'corner radius', 'Of its corners; 0 leaves them sharp.', {
      default: '0',
      rare: true,
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence:
    'Rectangle[ {width} by {height}] with {from} at {at}[ and its opposite corner at {to}][, corner radius {round}] on {on}[ named {as}]',
  gesture: {
    steps: [
      [{ reads: 'place', into: 'at' }],
      [{ reads: 'corner', into: ['width', 'height'], corner: 'at', centred: ['from', 'centre'] }],
    ],
  },
  apply(draft, { width, height, at, to, from, round, on, as }, context) {
    const corner = footOf(on, at);
    const draw = (w: typeof width, h: typeof height, place: Vec2) =>
      drawFigure(draft, context, {
        name: as ?? 'Rectangle',
        figure: { kind: 'rectangle', width: w!, height: h!, round, centred: from === 'centre' && !to },
        plane: on,
        at: place,
        exact: place === corner ? at : undefined,
      });
    if (to) {
      const opposite = footOf(on, to);
      const size = subtract2(opposite, corner);
      if (size[0] === 0 || size[1] === 0) return refuse('flat.to', {}, 'to');
      const min: Vec2 = [Math.min(corner[0], opposite[0]), Math.min(corner[1], opposite[1])];
      return draw(cleanLength(Math.abs(size[0])), cleanLength(Math.abs(size[1])), min);
    }
    if (width === undefined) return refuse('missing.width', {}, 'width');
    if (height === undefined) return refuse('missing.how-high-opposite', {}, 'height');
    return draw(width, height, corner);
  },
});
