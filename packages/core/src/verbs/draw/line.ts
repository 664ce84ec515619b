import { type FigureOf } from '../../recipes/figures/index.ts';
import { vectorOf } from '../../recipes/numbers.ts';
import { declareVerb, needed } from '../../statement/declare.ts';
import { drawFigure, namedAs, onPlane } from '../shared/drawing.ts';
import { inPlane } from '../../statement/planes.ts';

/** A straight line between two points. */
export const line = declareVerb({
  id: 'line',
  name: 'Line',
  group: 'draw',
  about: 'A straight line between two points.',
  words: ['segment', 'edge', 'straight'],
  blanks: {
    from: needed('point', 'from', 'Where it begins.'),
    to: needed('point', 'to', 'Where it ends.'),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Line from {from} to {to} on {on}[ named {as}]',
  gesture: { steps: [[{ reads: 'place', into: 'from' }], [{ reads: 'place', into: 'to' }]] },
  apply(draft, { from, to, on, as }, context) {
    const [start, end] = [inPlane(on, vectorOf(from)), inPlane(on, vectorOf(to))];
    const figure: FigureOf<'traverse'> = {
      kind: 'traverse',
      start: [...start],
      legs: [{ to: [...end] }],
      closing: 'open',
    };
    return drawFigure(draft, context, { name: as ?? 'Line', figure, plane: on, at: [0, 0] });
  },
});
