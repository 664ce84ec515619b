import { valueOf, vectorOf } from '../../document/items.ts';
import { NO_TURN } from '../../space/pose.ts';
import { directionOf } from '../../snapping/feature.ts';
import { length, subtract, unit, type Vec3 } from '../../space/vector.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
} from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { makePattern, readCount, readSpacing } from '../shared/repeating.ts';

/** A ring, an arc or a spiral: parts again and again around an axis. */
export const around = declareVerb({
  id: 'around',
  name: 'Repeat around',
  group: 'repeat',
  key: 'Shift+R',
  about: 'A ring or a spiral around an axis: so many in all, every so many degrees or across so many.',
  words: ['ring', 'polar', 'circular', 'radial', 'array', 'circle', 'spiral', 'stair', 'seats', 'bolts'],
  blanks: {
    parts: needed('parts', 'parts', 'What is repeated.', { least: 1 }),
    count: needed('tally', 'in all', 'How many there are, the first one included.'),
    axis: needed('direction', 'axis', 'X, Y or Z, or a picked edge or face.', { default: 'z' }),
    at: optional('point', 'centre', 'A point that the axis goes through.', { neededUnless: 'about' }),
    to: optional('point', 'to', 'A second point of the axis, instead of its direction.', { rare: true }),
    about: optional('feature', 'axis picked', 'An edge, or a round face, whose axis it is.', { rare: true }),
    pitch: optional('angle', 'every', 'From one to the next.', { excludes: 'span' }),
    span: optional('angle', 'across', 'From the first to the last; 360° is a full ring.', {
      excludes: 'pitch',
    }),
    attitude: needed('choice', 'attitude', 'Whether they turn with the ring.', {
      default: 'turning',
      choices: { turning: 'turning with it', keeping: 'all facing as the first' },
      rare: true,
    }),
    rise: optional('length', 'rising by', 'How much each stands higher along the axis.', { rare: true }),
    as: optional('name', 'name', 'What the ring is called.', { rare: true }),
  },
  sentence:
    'Repeat around {axis}[ at {at}][ to {to}][, axis of {about}] with {parts}, {count} in all[, every {pitch}]' +
    '[, across {span}][, {attitude}][, rising by {rise}][ named {as}]',
  apply(draft, values, context) {
    const { parts, as, attitude, rise = 0, pitch } = values;
    const axis = axisOf(values);
    if ('refused' in axis) return axis;
    const count = readCount(values.count, 'count');
    if (isRefusal(count)) return count;
    // A ring of which nothing more is said is a full one.
    const span = pitch === undefined && values.span === undefined ? 360 : values.span;
    const spacing = readSpacing(pitch, span, { count: valueOf(count) });
    if ('refused' in spacing) return spacing;
    return makePattern(
      draft,
      {
        parts,
        as,
        word: 'ring',
        datum: axis.at,
        layout: (inFrame) => ({
          kind: 'around',
          centre: inFrame.point(axis.at),
          axis: inFrame.direction(axis.direction),
          count,
          spacing,
          attitude: attitude === 'keeping' ? 'keeping' : 'turning',
          rise,
        }),
      },
      context,
    );
  },
});

interface Axis {
  readonly at: Vec3;
  readonly direction: Vec3;
}

/** A picked axis, two points, or a direction through a point. */
function axisOf({ axis, at, to, about }: Values<(typeof around)['blanks']>): Axis | Refusal {
  if (about) {
    const direction = directionOf(about);
    return direction
      ? { at: at ? vectorOf(at) : about.at, direction }
      : refuse('direction.about', {}, 'about');
  }
  if (!at) return refuse('missing.point-axis', {}, 'at');
  if (!to) return { at: vectorOf(at), direction: worldDirection(axis, NO_TURN) };
  const way = subtract(vectorOf(to), vectorOf(at));
  return length(way) > 0 ? { at: vectorOf(at), direction: unit(way) } : refuse('same-point', {}, 'to');
}
