import { valueOf } from '../../document/items.ts';
import type { WayCurve } from '../../recipes/layouts/index.ts';
import { isClosed, wayLength } from '../../patterns/way.ts';

import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { makePattern, readCount, readSpacing, type InFrame } from '../shared/repeating.ts';

/** Lengths on a curve are given to this, mm. */
const END_SLACK_MM = 1e-6;

/** Parts again and again along an edge or through points. */
export const path = declareVerb({
  id: 'path',
  name: 'Repeat on a path',
  group: 'repeat',
  about: 'Along a picked edge or through points, by count or by pitch; square to it where wanted.',
  words: ['array', 'curve', 'edge', 'follow', 'fence', 'lamps', 'along'],
  blanks: {
    parts: needed('parts', 'parts', 'What is repeated.', { least: 1 }),
    path: needed('path', 'path', 'An edge, picked; or points, one after another.', { catches: 'edges' }),
    count: optional('tally', 'in all', 'How many there are; without a pitch they share out the whole path.'),
    pitch: optional('length', 'every', 'From one to the next along the path.', { excludes: 'span' }),
    span: optional('length', 'across', 'From the first to the last along the path.', {
      excludes: 'pitch',
      rare: true,
    }),
    attitude: needed('choice', 'attitude', 'Whether they turn with the path.', {
      default: 'turning',
      choices: { turning: 'square to the path', keeping: 'all facing as the first' },
    }),
    as: optional('name', 'name', 'What the row is called.', { rare: true }),
  },
  sentence:
    'Repeat on a path {parts} along {path}[, {count} in all][, every {pitch}][, across {span}][, {attitude}][ named {as}]',
  apply(draft, { parts, path: way, count, pitch, span, attitude, as }, context) {
    const length = wayLength(way);
    const closed = isClosed(way);
    if (count === undefined && pitch === undefined) return refuse('missing.how-many-how', {}, 'count');
    const step = pitch === undefined ? 0 : valueOf(pitch);
    if (count === undefined && !(step > 0)) return refuse('not-positive.pitch', {}, 'pitch');
    // Without a count, as many as there is room for; a closed path does not double its first.
    const room = Math.floor((length + END_SLACK_MM) / step) + 1;
    const filled = closed && (room - 1) * step > length - END_SLACK_MM ? room - 1 : room;
    const all = readCount(count ?? filled, 'count');
    if (isRefusal(all)) return all;
    const spacing =
      pitch === undefined && span === undefined ? null : readSpacing(pitch, span, { count: valueOf(all) });
    if (spacing && 'refused' in spacing) return spacing;
    const reach = spacing && ('span' in spacing ? valueOf(spacing.span) : step * (valueOf(all) - 1));
    if (reach !== null && !closed && reach > length + END_SLACK_MM)
      return refuse('too-long.count', { length, reach }, 'count');
    return makePattern(
      draft,
      {
        parts,
        as,
        word: 'path',
        layout: (inFrame) => ({
          kind: 'path',
          curve: curveIn(inFrame, way),
          count: all,
          spacing,
          attitude: attitude === 'keeping' ? 'keeping' : 'turning',
        }),
      },
      context,
    );
  },
});

/** The curve in the frame of the pattern. */
function curveIn(inFrame: InFrame, way: WayCurve): WayCurve {
  if (way.kind === 'points')
    return { kind: 'points', points: way.points.map((point) => inFrame.point(point)) };
  const centre = inFrame.point(way.centre);
  const arm = (v: Extract<WayCurve, { kind: 'round' }>, key: 'x' | 'y') => {
    const tip = inFrame.point([
      way.centre[0] + v[key][0],
      way.centre[1] + v[key][1],
      way.centre[2] + v[key][2],
    ]);
    return [tip[0] - centre[0], tip[1] - centre[1], tip[2] - centre[2]] as [number, number, number];
  };
  return { ...way, centre, x: arm(way, 'x'), y: arm(way, 'y') };
}
