import { degrees } from '../../space/angle.ts';
import { cleanDegrees } from '../../space/matrix.ts';
import { cross2, subtract2 } from '../../space/vector2.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { drawFigure, footOf, namedAs, onPlane } from '../shared/drawing.ts';
import { centreBlank, pointsOn, circleThrough } from '../shared/figures.ts';

/** By centre, radius and angles, or through three points. */
export const arc = declareVerb({
  id: 'arc',
  name: 'Arc',
  group: 'draw',
  about: 'Part of a circle: by centre, radius and angles, or through three points.',
  words: ['curve', 'bow', 'segment', 'round'],
  blanks: {
    radius: optional('length', 'radius', 'Of its circle.', { positive: true, excludes: 'through' }),
    at: centreBlank,
    first: needed('angle', 'from', 'Where it begins, from X towards Y.', { default: '0' }),
    sweep: needed('angle', 'sweep', 'How far it goes; less than zero is clockwise.', { default: '90' }),
    through: optional('path', 'through', 'Three points: its start, one on it, its end.', {
      excludes: 'radius',
      rare: true,
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence:
    'Arc[ of radius {radius} about {at} from {first} by {sweep}][ through {through}] on {on}[ named {as}]',
  gesture: {
    steps: [
      [{ reads: 'place', into: 'at' }],
      [
        { reads: 'distance', into: 'radius', times: 1 },
        { reads: 'direction', into: 'first' },
      ],
      [{ reads: 'sweep', into: 'sweep', from: 'first' }],
    ],
  },
  apply(draft, { radius, at, first, sweep, through, on, as }, context) {
    if (through) {
      const points = pointsOn(on, through);
      if (points.length !== 3) return refuse('points.through', {}, 'through');
      const round = circleThrough(points);
      if (isRefusal(round)) return { ...round, blank: 'through' };
      const [start, , end] = points.map((point) => {
        const out = subtract2(point, round.centre);
        return cleanDegrees(degrees(Math.atan2(out[1], out[0])));
      });
      // It turns to the side on which the middle point lies.
      const isClockwise = cross2(subtract2(points[1]!, points[0]!), subtract2(points[2]!, points[0]!)) < 0;
      const turn = (((end! - start!) % 360) + 360) % 360;
      return drawFigure(draft, context, {
        name: as ?? 'Arc',
        figure: { kind: 'arc', radius: round.radius, first: start!, sweep: isClockwise ? turn - 360 : turn },
        plane: on,
        at: round.centre,
      });
    }
    if (radius === undefined) return refuse('missing.radius', {}, 'radius');
    return drawFigure(draft, context, {
      name: as ?? 'Arc',
      figure: { kind: 'arc', radius, first, sweep },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});
