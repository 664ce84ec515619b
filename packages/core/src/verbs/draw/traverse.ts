import { type FigureOf } from '../../recipes/figures/index.ts';
import { vectorOf } from '../../recipes/numbers.ts';
import { declareVerb, isRefusal, needed } from '../../statement/declare.ts';
import { drawFigure, namedAs, onPlane } from '../shared/drawing.ts';
import { CLOSING_WORDS } from '../shared/legs.ts';
import { inPlane } from '../../statement/planes.ts';
import { type Closing, readLegs, legsBlank } from '../shared/traverses.ts';

/** An outline booked leg by leg. */
export const traverse = declareVerb({
  id: 'traverse',
  name: 'Traverse',
  group: 'draw',
  about:
    'An outline leg by leg: by ΔX and ΔY, length and bearing (clockwise from +Y), length and turn to the right, or to X and Y.',
  words: ['polyline', 'outline', 'legs', 'survey', 'room', 'draw', 'line', 'path', 'bearing'],
  blanks: {
    legs: needed('rows', 'legs', 'Typed, pasted from a spreadsheet, or clicked point by point.', legsBlank),
    at: needed('point', 'start', 'Where the first leg begins.', { default: ['0', '0', '0'] }),
    closing: needed('choice', 'end', 'How it comes back to its start.', {
      default: 'open',
      choices: CLOSING_WORDS,
    }),
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Traverse of {legs} from {at}[, {closing}] on {on}[ named {as}]',
  apply(draft, { legs: rows, at, closing, on, as }, context) {
    const legs = readLegs(rows, context);
    if (isRefusal(legs)) return legs;
    const start = inPlane(on, vectorOf(at));
    const figure: FigureOf<'traverse'> = {
      kind: 'traverse',
      start: [...start],
      legs,
      closing: closing as Closing,
    };
    return drawFigure(draft, context, { name: as ?? 'Traverse', figure, plane: on, at: [0, 0] });
  },
});
