/** Edges in the world as parameterised curves, and where they are nearest to something. Lengths in mm. */
import { degrees, radians } from '../space/angle.ts';
import { nearestOnLine, type Ray } from '../space/plane.ts';
import { carry, turnVector } from '../space/pose.ts';
import {
  add,
  along,
  cross,
  distance,
  dot,
  length,
  scale,
  subtract,
  unit,
  type Vec3,
} from '../space/vector.ts';
import type { SnapInstance } from './scene.ts';
import { CURVE_CIRCLE, CURVE_ELLIPSE, CURVE_LINE, CURVE_STRIDE } from './shape.ts';

/** A curve over the parameters first … last: millimetres along a line, degrees round an ellipse, points along a polyline. */
export interface Curve {
  readonly kind: 'line' | 'round' | 'polyline';
  readonly first: number;
  readonly last: number;
  /** Ends where it begins. */
  readonly isClosed: boolean;
  /** Centre and axes (each as long as its radius) of a circle or an ellipse. */
  readonly round?: { readonly centre: Vec3; readonly x: Vec3; readonly y: Vec3 };
  at(parameter: number): Vec3;
  /** The derivative by the parameter. */
  slope(parameter: number): Vec3;
}

/** The curve of an edge, in the world. */
export function worldCurve({ shape, pose }: SnapInstance, c: number): Curve {
  const data = CURVE_STRIDE * c;
  const { curves, polyline, curveKind } = shape;
  const triple = (list: Float64Array, from: number): Vec3 => [list[from]!, list[from + 1]!, list[from + 2]!];
  if (curveKind[c] === CURVE_LINE)
    return segment(carry(pose, triple(curves, data)), carry(pose, triple(curves, data + 3)));
  if (curveKind[c] === CURVE_CIRCLE || curveKind[c] === CURVE_ELLIPSE)
    return ellipse(
      carry(pose, triple(curves, data)),
      turnVector(pose.turn, triple(curves, data + 3)),
      turnVector(pose.turn, triple(curves, data + 6)),
      [curves[data + 9]!, curves[data + 10]!],
    );
  const [from, count] = [curves[data]!, curves[data + 1]!];
  return chainOf(count, (i) => carry(pose, triple(polyline, 3 * (from + i))));
}

/** The straight piece between two points. */
export function segment(from: Vec3, to: Vec3): Curve {
  const span = subtract(to, from);
  const size = length(span);
  const direction: Vec3 = size === 0 ? [0, 0, 0] : scale(span, 1 / size);
  return {
    kind: 'line',
    first: 0,
    last: size,
    isClosed: false,
    // The ends themselves, bit for bit.
    at: (s) => (s === 0 ? from : s === size ? to : along(from, direction, s)),
    slope: () => direction,
  };
}

/** A line without ends; `direction` has length 1. */
export const endless = (from: Vec3, direction: Vec3): Curve => ({
  kind: 'line',
  first: -Infinity,
  last: Infinity,
  isClosed: false,
  at: (s) => along(from, direction, s),
  slope: () => direction,
});

/** An ellipse in space by its half axes, from angle to angle in degrees. */
function ellipse(centre: Vec3, x: Vec3, y: Vec3, [first, last]: readonly [number, number]): Curve {
  return {
    kind: 'round',
    first,
    last,
    isClosed: last - first >= 360 - 1e-9,
    round: { centre, x, y },
    at(angle) {
      const [c, s] = [Math.cos(radians(angle)), Math.sin(radians(angle))];
      return add(centre, add(scale(x, c), scale(y, s)));
    },
    slope(angle) {
      const [c, s] = [Math.cos(radians(angle)), Math.sin(radians(angle))];
      return scale(add(scale(x, -s), scale(y, c)), radians(1));
    },
  };
}

function chainOf(count: number, point: (i: number) => Vec3): Curve {
  const piece = (t: number) => Math.max(0, Math.min(count - 2, Math.floor(t)));
  return {
    kind: 'polyline',
    first: 0,
    last: count - 1,
    isClosed: distance(point(0), point(count - 1)) < 1e-9,
    at(t) {
      const i = piece(t);
      return add(scale(point(i), 1 - (t - i)), scale(point(i + 1), t - i));
    },
    slope(t) {
      const i = piece(t);
      return subtract(point(i + 1), point(i));
    },
  };
}

/** Starts per circle, for finding the valley that holds the nearest point; a circle seen at a slant has at most two. */
const ROUND_STARTS = 24;

/** The parameter of the point nearest to a ray's line. */
export function nearestToRay(curve: Curve, ray: Ray): number {
  const off = (t: number) => length(cross(subtract(curve.at(t), ray.from), ray.direction));
  if (curve.kind === 'line') {
    const s = nearestOnLine(curve.at(0), curve.slope(0), ray) ?? Math.max(0, curve.first);
    return Math.max(curve.first, Math.min(curve.last, s));
  }
  if (curve.kind === 'round') return nearestOfRound(curve, ray, off);
  let best = 0;
  let min = Infinity;
  for (let i = 0; i < curve.last; i++) {
    const [a, b] = [curve.at(i), curve.at(i + 1)];
    const piece = segment(a, b);
    const s = piece.last === 0 ? 0 : nearestToRay(piece, ray) / piece.last;
    if (off(i + s) < min) [best, min] = [i + s, off(i + s)];
  }
  return best;
}

/** By sampling, then by Newton's steps on the slope of the squared distance; where these do not settle, by halving. */
function nearestOfRound(curve: Curve, ray: Ray, off: (t: number) => number): number {
  const { first, last } = curve;
  let best = first;
  let min = Infinity;
  const attempt = (angle: number) => {
    const within = Math.max(first, Math.min(last, angle));
    const found = off(within);
    if (found < min) [best, min] = [within, found];
  };
  for (let i = 0; i <= ROUND_STARTS; i++) attempt(first + ((last - first) * i) / ROUND_STARTS);
  const slope = (t: number) => {
    const offset = subtract(curve.at(t), ray.from);
    const deep = dot(offset, ray.direction);
    return dot(along(offset, ray.direction, -deep), curve.slope(t));
  };
  const sampled = min;
  const settled = rootNear(curve, slope, best);
  if (settled !== undefined) attempt(settled);
  if (min < sampled) return best;
  for (let step = (last - first) / ROUND_STARTS; step > 1e-8; step /= 2) {
    attempt(best - step);
    attempt(best + step);
  }
  return best;
}

/** The parameter of the point of a straight piece that is nearest to a point. */
export function nearestToPoint(curve: Curve, point: Vec3): number {
  const s = dot(subtract(point, curve.at(0)), curve.slope(0));
  return Math.max(curve.first, Math.min(curve.last, s));
}

/** Brings a parameter into the curve's range: round a closed one, by a hair at the ends of others; undefined when it is off. */
export function within(curve: Curve, t: number): number | undefined {
  if (!Number.isFinite(t)) return undefined;
  if (curve.kind === 'round') {
    const turns = Math.floor((t - curve.first) / 360);
    const turned = t - 360 * turns;
    if (turned <= curve.last + END_SLACK_DEGREES) return Math.min(turned, curve.last);
    return turned - 360 > curve.first - END_SLACK_DEGREES ? curve.first : undefined;
  }
  if (t < curve.first - END_SLACK || t > curve.last + END_SLACK) return undefined;
  return Math.max(curve.first, Math.min(curve.last, t));
}
/** Beyond the end of a line by less than this (mm) is at its end. */
const END_SLACK = 1e-9;
const END_SLACK_DEGREES = 1e-9;

/**
 * Where a function of the parameter is zero, by Newton's steps from `start` with a numeric derivative; undefined when
 * they do not settle.
 */
export function rootNear(curve: Curve, value: (t: number) => number, start: number): number | undefined {
  const step = curve.kind === 'line' ? 1e-3 : curve.kind === 'round' ? 1e-3 : 1e-4;
  let t = start;
  for (let i = 0; i < 40; i++) {
    const f = value(t);
    const slope = (value(t + step) - value(t - step)) / (2 * step);
    if (slope === 0 || !Number.isFinite(slope)) return undefined;
    const next = t - f / slope;
    if (Math.abs(next - t) <= 1e-13 * Math.max(1, Math.abs(t))) return within(curve, next);
    t = next;
  }
  return undefined;
}

/**
 * Feet of the perpendiculars from a point onto a curve: where (C(t) − P)·C'(t) = 0. Polylines give none, since their
 * corners are not on the true curve.
 */
export function feetFrom(curve: Curve, point: Vec3): number[] {
  if (curve.kind === 'line') return inRange(curve, [dot(subtract(point, curve.at(0)), curve.slope(0))]);
  if (!curve.round) return [];
  const { centre, x, y } = curve.round;
  const offset = subtract(point, centre);
  const [rx, ry] = [length(x), length(y)];
  const [px, py] = [dot(offset, x) / rx, dot(offset, y) / ry];
  if (Math.abs(rx - ry) < 1e-12 * rx) {
    if (Math.hypot(px, py) < 1e-9) return [];
    const angle = degrees(Math.atan2(py, px));
    return inRange(curve, [angle, angle + 180]);
  }
  return inRange(
    curve,
    rootsOf((t) => dot(subtract(curve.at(t), point), curve.slope(t)), curve),
  );
}

/**
 * Where a straight line from a point touches a circle or an ellipse: the point's shadow on its plane decides. For a
 * circle of radius r at distance d these stand at ± acos(r/d) about the line to the centre (Euclid III.17).
 */
export function tangentsFrom(curve: Curve, point: Vec3): number[] {
  if (!curve.round) return [];
  const { centre, x, y } = curve.round;
  const offset = subtract(point, centre);
  const [rx, ry] = [length(x), length(y)];
  // In the axes of the ellipse, each given in its own radius, it is the unit circle, and tangents stay tangents.
  const [u, v] = [dot(offset, x) / (rx * rx), dot(offset, y) / (ry * ry)];
  const far = Math.hypot(u, v);
  if (!(far > 1 + 1e-12)) return [];
  const [toward, half] = [degrees(Math.atan2(v, u)), degrees(Math.acos(1 / far))];
  return inRange(curve, [toward + half, toward - half]);
}

const inRange = (curve: Curve, parameters: readonly number[]) =>
  parameters.flatMap((t) => within(curve, t) ?? []);

/** All roots of a smooth function round an ellipse. */
function rootsOf(value: (t: number) => number, curve: Curve): number[] {
  const found: number[] = [];
  const pieces = 72;
  for (let i = 0; i < pieces; i++) {
    let [low, high] = [i, i + 1].map((k) => curve.first + ((curve.last - curve.first) * k) / pieces) as [
      number,
      number,
    ];
    if (value(low) * value(high) > 0) continue;
    while (high - low > 1e-12 * 360) {
      const half = (low + high) / 2;
      if (half === low || half === high) break;
      if (value(low) * value(half) <= 0) high = half;
      else low = half;
    }
    found.push((low + high) / 2);
  }
  return found;
}

/** The length of a line or of a circular arc, mm; undefined for other curves. */
export function lengthOf(curve: Curve): number | undefined {
  if (curve.kind === 'line') return Number.isFinite(curve.last) ? curve.last : undefined;
  if (!curve.round) return undefined;
  const [rx, ry] = [length(curve.round.x), length(curve.round.y)];
  return Math.abs(rx - ry) < 1e-12 * rx ? radians(curve.last - curve.first) * rx : undefined;
}

/** The direction of a straight edge, length 1. */
export const directionAlong = (curve: Curve, t: number): Vec3 => unit(curve.slope(t));
