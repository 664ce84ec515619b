/** Edges of what a view shows as points, and how far beside them rays must agree. */
import type { SnapInstance } from '../snapping/scene.ts';
import type { Curve } from '../curves/curve.ts';
import { nearestOn } from '../curves/meetings.ts';
import {
  CURVE_CIRCLE,
  CURVE_ELLIPSE,
  CURVE_LINE,
  CURVE_STRIDE,
  FACE_PLANE,
  type SnapShape,
} from '../snapping/shape.ts';
import { cosDegrees, sinDegrees } from '../space/angle.ts';
import { carry } from '../space/pose.ts';
import { add, scale, subtract, type Vec3 } from '../space/vector.ts';
import { distance2 } from '../space/vector2.ts';

/** An edge as points, by a parameter from 0 to 1. */
export type Way = (t: number) => Vec3;

/** The place itself, and what is beside it on the picture: in directions that faces seldom run along. */
export const BESIDE: readonly Vec3[] = [
  [0, 0, 0],
  [0.92, 0.39, 0],
  [-0.92, -0.39, 0],
  [-0.39, 0.92, 0],
  [0.39, -0.92, 0],
];

/** Of the size of what is shown: facets are in single precision. */
const PRECISION = 1e-5;

/** Beyond what facets may be off, mm. */
export function asideOf(instances: readonly SnapInstance[]): number {
  return 2 * instances.reduce((max, { shape }) => Math.max(max, chordOf(shape)), 0) + roundingOf(instances);
}

/** Beyond what flat facets may be off, mm. */
export function roundingOf(instances: readonly SnapInstance[]): number {
  const reach = instances.reduce(
    (max, { pose, shape }) =>
      Math.max(
        max,
        Math.hypot(...pose.shift) + Math.hypot(...(shape.positions.subarray(0, 3) as unknown as number[])),
      ),
    0,
  );
  return PRECISION * (1 + reach);
}

/** Flat faces are their facets. */
const chordOf = ({ faceKind, chordMm }: SnapShape): number =>
  faceKind.every((kind) => kind === FACE_PLANE) ? 0 : chordMm;

/** Straight, round and elliptic edges in the frame of the view. */
export function waysOf({ shape, pose }: SnapInstance): Way[] {
  return [...shape.curveKind].flatMap((kind, c): Way[] => {
    const triple = (from: number): Vec3 => {
      const at = CURVE_STRIDE * c + from;
      return [shape.curves[at]!, shape.curves[at + 1]!, shape.curves[at + 2]!];
    };
    if (kind === CURVE_LINE) {
      const [from, to] = [carry(pose, triple(0)), carry(pose, triple(3))];
      return [(t) => add(from, scale(subtract(to, from), t))];
    }
    if (kind !== CURVE_CIRCLE && kind !== CURVE_ELLIPSE) return [];
    const [centre, x, y] = [triple(0), triple(3), triple(6)];
    const [first, last] = [shape.curves[CURVE_STRIDE * c + 9]!, shape.curves[CURVE_STRIDE * c + 10]!];
    return [
      (t) => {
        const angle = first + (last - first) * t;
        return carry(pose, add(centre, add(scale(x, cosDegrees(angle)), scale(y, sinDegrees(angle)))));
      },
    ];
  });
}

/** Points at which an edge is looked at. */
const SAMPLES = 11;
/** Halvings that find where a piece begins or ends: to a ten-millionth of the way from one of these points to the next. */
const HALVINGS = 20;
/** Pieces this straight are one line, mm. */
const STRAIGHT_MM = 1e-5;

/**
 * Pieces of an edge where something holds, as straight lines on the picture; of pieces shorter than a sample some are missed.
 * @param until as far as this holds too they go on, where it is decided nearer to the border
 */
export function piecesWhere(
  way: Way,
  holds: (t: number) => boolean,
  until: (t: number) => boolean = holds,
): Curve[] {
  const at = (i: number) => (i + 0.5) / SAMPLES;
  const found = Array.from({ length: SAMPLES }, (_, i) => holds(at(i)));
  return found.flatMap((isHere, i): Curve[] => {
    if (!isHere || found[i - 1]) return [];
    let last = i;
    while (found[last + 1]) last += 1;
    const from = i === 0 ? ending(until, at(0), 0) : ending(until, at(i), at(i - 1));
    const to = last === SAMPLES - 1 ? ending(until, at(last), 1) : ending(until, at(last), at(last + 1));
    return polyline(way, from, to);
  });
}

/** The last parameter from one at which it holds towards another. */
function ending(holds: (t: number) => boolean, inside: number, outside: number): number {
  if (holds(outside)) return outside;
  let [low, high] = [inside, outside];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** Chords of a piece; one where it is straight on the picture. */
const CHORDS = 24;
function polyline(way: Way, from: number, to: number): Curve[] {
  const points = Array.from({ length: CHORDS + 1 }, (_, i) => way(from + ((to - from) * i) / CHORDS));
  const flat = points.map(([x, y]): readonly [number, number] => [x, y]);
  const [first, last] = [flat[0]!, flat.at(-1)!];
  const whole: Curve = { kind: 'line', from: first, to: last };
  // What is seen as a point is nothing to draw.
  if (flat.every((point) => distance2(point, first) < STRAIGHT_MM)) return [];
  const isStraight = flat.every((point) => nearestOn(whole, point).distance < STRAIGHT_MM);
  if (isStraight) return [whole];
  return flat.slice(1).map((point, i) => ({ kind: 'line', from: flat[i]!, to: point }));
}
