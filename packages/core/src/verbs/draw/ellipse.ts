import { declareVerb, needed } from '../../statement/declare.ts';
import { drawFigure, footOf, namedAs, onPlane } from '../shared/drawing.ts';
import { centreBlank } from '../shared/figures.ts';

export const ellipse = declareVerb({
  id: 'ellipse',
  name: 'Ellipse',
  group: 'draw',
  about: 'By its two widths along the axes of the plane.',
  words: ['oval', 'round'],
  blanks: {
    width: needed('length', 'width', 'Along the X of the plane.', { positive: true }),
    height: needed('length', 'height', 'Along the Y of the plane.', { positive: true }),
    at: centreBlank,
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Ellipse {width} by {height} about {at} on {on}[ named {as}]',
  gesture: {
    steps: [
      [{ reads: 'place', into: 'at' }],
      [{ reads: 'corner', into: ['width', 'height'], corner: 'at', centred: true }],
    ],
  },
  apply: (draft, { width, height, at, on, as }, context) =>
    drawFigure(draft, context, {
      name: as ?? 'Ellipse',
      figure: { kind: 'ellipse', width, height },
      plane: on,
      at: footOf(on, at),
      exact: at,
    }),
});
