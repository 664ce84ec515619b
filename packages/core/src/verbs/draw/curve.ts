import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { drawFigure, namedAs, onPlane } from '../shared/drawing.ts';
import { pointsOn } from '../shared/figures.ts';

export const curve = declareVerb({
  id: 'curve',
  name: 'Curve',
  group: 'draw',
  about: 'A smooth curve through points, or drawn towards them.',
  words: ['spline', 'smooth', 'freeform', 'bezier', 'wave'],
  blanks: {
    points: needed('path', 'points', 'One after another.'),
    how: needed('choice', 'how', 'Whether it goes through the points.', {
      default: 'through',
      choices: { through: 'through the points', control: 'drawn towards the points' },
    }),
    closed: needed('choice', 'end', 'Whether it comes back to its start.', {
      default: 'no',
      choices: { no: 'open', yes: 'closed' },
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Curve {how} {points}[, {closed}] on {on}[ named {as}]',
  apply(draft, { points, how, closed, on, as }, context) {
    const on2 = pointsOn(on, points);
    const min = closed === 'yes' ? 3 : 2;
    if (on2.length < min) return refuse('too-few.points', { least: min }, 'points');
    return drawFigure(draft, context, {
      name: as ?? 'Curve',
      figure: {
        kind: 'curve',
        points: on2.map(([x, y]) => [x, y]),
        how: how === 'control' ? 'control' : 'through',
        closed: closed === 'yes',
      },
      plane: on,
      at: [0, 0],
    });
  },
});
