import { declareVerb, isRefusal, optional, refuse } from '../../statement/declare.ts';
import { drawFigure, footOf, namedAs, onPlane } from '../shared/drawing.ts';
import { centreBlank, pointsOn, circleThrough } from '../shared/figures.ts';

/** By centre and diameter, or through two or three points. */
export const circle = declareVerb({
  id: 'circle',
  name: 'Circle',
  group: 'draw',
  about: 'By centre and diameter, or through two or three points.',
  words: ['round', 'disc', 'hole', 'ring'],
  blanks: {
    diameter: optional('length', 'diameter', 'Across it.', { positive: true, excludes: 'through' }),
    at: centreBlank,
    through: optional('path', 'through', 'Two points across it, or three on it.', {
      excludes: 'diameter',
      rare: true,
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Circle[ of {diameter} about {at}][ through {through}] on {on}[ named {as}]',
  gesture: { steps: [[{ reads: 'place', into: 'at' }], [{ reads: 'distance', into: 'diameter', times: 2 }]] },
  apply(draft, { diameter, at, through, on, as }, context) {
    if (through) {
      const round = circleThrough(pointsOn(on, through));
      if (isRefusal(round)) return { ...round, blank: 'through' };
      return drawFigure(draft, context, {
        name: as ?? 'Circle',
        figure: { kind: 'circle', diameter: 2 * round.radius },
        plane: on,
        at: round.centre,
      });
    }
    if (diameter === undefined) return refuse('missing.diameter', {}, 'diameter');
    return drawFigure(draft, context, {
      name: as ?? 'Circle',
      figure: { kind: 'circle', diameter },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});
