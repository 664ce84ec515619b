import { valueOf } from '../../document/items.ts';
import {
  cross,
  distance as between,
  dot,
  length,
  scale,
  subtract,
  unit,
  type Vec3,
} from '../../space/vector.ts';
import { degrees } from '../../space/angle.ts';
import { formatAngle } from '../../quantity/format.ts';
import { directionOf, type Feature } from '../../snapping/feature.ts';
import { declareVerb, needed, refuse, type Refusal } from '../../statement/declare.ts';
import { lockedRefusal, shiftPart } from '../shared/placing.ts';

/** Sines below this are of parallel directions: a thousand times finer than an angle that is drawn. */
const PARALLEL_SINE = 1e-9;
const AXIS: Readonly<Record<string, Vec3>> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** The distance between two features, and the direction in which it is taken, from the first to the second. */
export interface Measured {
  /** mm, not negative. */
  readonly distance: number;
  /** Length 1. */
  readonly direction: Vec3;
  /** A point on either side, for showing the distance. */
  readonly from: Vec3;
  readonly to: Vec3;
}

/** Sets the distance between two picked things by moving one of their parts. */
export const distance = declareVerb({
  id: 'distance',
  handling: 'measures',
  name: 'Set distance',
  group: 'place',
  key: 'D',
  about: 'Between two points, edges, faces or axes: read the exact distance, and type the one that you want.',
  words: ['gap', 'clearance', 'measure', 'apart', 'between', 'space', 'dimension'],
  blanks: {
    from: needed('feature', 'from', 'A point, an edge, a face or an axis.', {
      catches: 'features',
      next: 'to',
    }),
    to: needed('feature', 'to', 'The other point, edge, face or axis.', {
      catches: 'features',
      next: 'distance',
    }),
    distance: needed('length', 'distance', 'What it becomes; less than zero goes to the other side.'),
    along: needed('choice', 'along', 'The direction in which it is taken, and in which the part moves.', {
      default: 'own',
      choices: { own: 'their own direction', x: 'X', y: 'Y', z: 'Z' },
    }),
    moving: needed('choice', 'moving', 'Which of the two goes.', {
      default: 'second',
      choices: { second: 'the second', first: 'the first' },
    }),
  },
  sentence: 'Set distance from {from} to {to} to {distance}[ along {along}][, moving {moving}]',
  apply(draft, { from, to, distance: wanted, along, moving }) {
    const now = measured(from, to, along);
    if ('refused' in now) return now;
    const blank = moving === 'first' ? 'from' : 'to';
    const part = moving === 'first' ? from.part : to.part;
    if (part === undefined) return refuse('fixed', {}, 'moving');
    if (from.part === to.part) return refuse('same-part.to', {}, 'to');
    const locked = lockedRefusal(draft, [part]);
    if (locked) return { ...locked, blank };
    const change = valueOf(wanted) - now.distance;
    const shift = scale(now.direction, moving === 'first' ? -change : change).map(
      (n) => n + 0,
    ) as unknown as Vec3;
    shiftPart(draft, draft.items[part]!, shift);
    return { select: [part] };
  },
});

/** The exact distance of two features: square to what is flat or straight, or along an axis. */
export function measured(from: Feature, to: Feature, along: string): Measured | Refusal {
  const offset = subtract(to.at, from.at);
  const axis = AXIS[along];
  if (axis) return alongAxis({ from, to }, axis, along);
  const square = squareDirection(from, to);
  if ('refused' in square) return square;
  if (square.lines) {
    // Beside a line or an axis only what is square to it counts.
    const off = subtract(offset, scale(square.lines, dot(offset, square.lines)));
    const size = length(off);
    if (size < SAME_PLACE_MM) return refuse('zero.along', {}, 'along');
    return { distance: size, direction: scale(off, 1 / size), from: from.at, to: sum(from.at, off) };
  }
  if (square.normal) {
    const deep = dot(offset, square.normal);
    const direction = deep < 0 ? scale(square.normal, -1) : square.normal;
    const start =
      from.kind === 'plane' && to.kind !== 'plane' ? subtract(to.at, scale(square.normal, deep)) : from.at;
    return { distance: Math.abs(deep), direction, from: start, to: sum(start, scale(square.normal, deep)) };
  }
  const size = between(from.at, to.at);
  if (size < SAME_PLACE_MM) return refuse('zero.along', {}, 'along');
  return { distance: size, direction: unit(offset), from: from.at, to: to.at };
}

/** Points nearer than this give no direction. */
const SAME_PLACE_MM = 1e-9;
const sum = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** A normal that the distance is taken along, or a line that it is taken square to; neither for two points. */
function squareDirection(from: Feature, to: Feature): { normal?: Vec3; lines?: Vec3 } | Refusal {
  const flat = from.kind === 'plane' ? from : to.kind === 'plane' ? to : undefined;
  if (flat) {
    const other = flat === from ? to : from;
    const direction = directionOf(other);
    // Outward of the first face, so that faces that touch still have a way to go.
    const normal = flat === from ? flat.normal : scale(flat.normal, -1);
    if (!direction) return { normal };
    const sine =
      other.kind === 'plane' ? length(cross(flat.normal, direction)) : Math.abs(dot(flat.normal, direction));
    if (sine < PARALLEL_SINE) return { normal };
    return refuse('not-parallel', { sine: formatAngle(degrees(Math.asin(Math.min(1, sine)))) }, 'to');
  }
  const [a, b] = [directionOf(from), directionOf(to)];
  if (a && b) {
    const across = cross(a, b);
    return length(across) < PARALLEL_SINE ? { lines: a } : { normal: unit(across) };
  }
  const line = a ?? b;
  return line ? { lines: line } : {};
}

/** From the first to the second along an axis; faces that are not square to it are met where the axis goes through. */
function alongAxis(
  { from, to }: { readonly from: Feature; readonly to: Feature },
  axis: Vec3,
  along: string,
): Measured | Refusal {
  const offset = subtract(to.at, from.at);
  const flat = from.kind === 'plane' ? from : to.kind === 'plane' ? to : undefined;
  let size = dot(offset, axis);
  if (flat) {
    const slant = dot(flat.normal, axis);
    if (Math.abs(slant) < PARALLEL_SINE) return refuse('parallel', { value: along.toUpperCase() }, 'along');
    size = dot(offset, flat.normal) / slant;
  }
  const sign = size < 0 ? -1 : 1;
  return {
    distance: Math.abs(size),
    direction: scale(axis, sign),
    from: from.at,
    to: sum(from.at, scale(axis, size)),
  };
}
