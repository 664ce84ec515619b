/** Linear maps of directions: nine numbers row by row. Turns are the rigid ones among them. */
import { cosDegrees, degrees, sinDegrees } from './angle.ts';
import { NO_TURN, turnOfDegrees, turnVector, type Turn } from './pose.ts';
import { cross, dot, length, scale, unit, type Vec3 } from './vector.ts';

export type Matrix = Turn;

const at = (m: Matrix, row: number, column: number): number => m[row * 3 + column]!;
const build = (entry: (row: number, column: number) => number): Matrix =>
  [0, 1, 2, 3, 4, 5, 6, 7, 8].map((i) => entry(Math.floor(i / 3), i % 3) + 0) as unknown as Matrix;

export const multiply = (a: Matrix, b: Matrix): Matrix =>
  build((r, c) => at(a, r, 0) * at(b, 0, c) + at(a, r, 1) * at(b, 1, c) + at(a, r, 2) * at(b, 2, c));

export const transposed = (m: Matrix): Matrix => build((r, c) => at(m, c, r));

export const column = (m: Matrix, i: number): Vec3 => [at(m, 0, i), at(m, 1, i), at(m, 2, i)];
export const fromColumns = (x: Vec3, y: Vec3, z: Vec3): Matrix => build((r, c) => [x, y, z][c]![r]!);

export const determinant = (m: Matrix): number => dot(column(m, 0), cross(column(m, 1), column(m, 2)));

/** Stretches by `factors` along the axes of `frame`. Exact where the frame's axes are the world's. */
export function stretchAlong(frame: Turn, [fx, fy, fz]: Vec3): Matrix {
  const diagonal: Matrix = [fx, 0, 0, 0, fy, 0, 0, 0, fz];
  if (fx === fy && fy === fz) return diagonal;
  return multiply(frame, multiply(diagonal, transposed(frame)));
}

/**
 * The turn by degrees about a direction of length 1, right-handed. Exact for multiples of 90° about an axis.
 * Source: Rodrigues' rotation formula.
 */
export function turnAbout(direction: Vec3, angle: number): Turn {
  const axis = direction.findIndex((n) => Math.abs(n) === 1);
  if (axis >= 0)
    return turnOfDegrees([0, 1, 2].map((i) => (i === axis ? angle * direction[i]! : 0)) as unknown as Vec3);
  const [x, y, z] = direction;
  const [c, s] = [cosDegrees(angle), sinDegrees(angle)];
  const k = 1 - c;
  return [
    c + x * x * k,
    x * y * k - z * s,
    x * z * k + y * s,
    y * x * k + z * s,
    c + y * y * k,
    y * z * k - x * s,
    z * x * k - y * s,
    z * y * k + x * s,
    c + z * z * k,
  ];
}

/** Directions whose sine is below this are parallel: what is left is the noise of their own rounding. */
const PARALLEL_SINE = 1e-12;

/** The smallest turn that carries one direction of length 1 to another. */
export function turnBetween(from: Vec3, to: Vec3): Turn {
  const across = cross(from, to);
  const sine = length(across);
  if (sine < PARALLEL_SINE) return dot(from, to) > 0 ? NO_TURN : turnAbout(acrossTo(from), 180);
  const angle = cleanDegrees(degrees(Math.atan2(sine, dot(from, to))));
  return turnAbout(cleanDirection(scale(across, 1 / sine)), angle);
}

/** Degrees from one direction to another, seen against the axis; both are taken square to it. −180 < result ≤ 180. */
export function angleAbout(axis: Vec3, from: Vec3, to: Vec3): number {
  const flat = (v: Vec3): Vec3 => {
    const deep = dot(v, axis);
    return [v[0] - deep * axis[0], v[1] - deep * axis[1], v[2] - deep * axis[2]];
  };
  const [a, b] = [flat(from), flat(to)];
  return cleanDegrees(degrees(Math.atan2(dot(axis, cross(a, b)), dot(a, b))));
}

/** A direction of length 1 square to this one: along the world axis that it leans to least, as nearly as can be. */
export function acrossTo(direction: Vec3): Vec3 {
  const axis = [0, 1, 2].reduce((a, b) => (Math.abs(direction[b]!) < Math.abs(direction[a]!) ? b : a));
  const helper: Vec3 = axis === 0 ? [1, 0, 0] : axis === 1 ? [0, 1, 0] : [0, 0, 1];
  const deep = dot(helper, direction);
  return unit([0, 1, 2].map((i) => helper[i]! - deep * direction[i]!) as unknown as Vec3);
}

/** Axes whose X is this direction of length 1. */
export function frameAlong(x: Vec3): Turn {
  const y = acrossTo(x);
  return fromColumns(x, y, cross(x, y));
}

/** Angles within 1e-10° of a multiple of 1/1000° are that multiple: atan2's noise must not reach the document. */
export function cleanDegrees(angle: number): number {
  const near = Math.round(angle * 1000) / 1000;
  return Math.abs(angle - near) < 1e-10 ? near + 0 : angle;
}

/** Components that are an axis but for noise are an axis. */
export function cleanDirection(direction: Vec3): Vec3 {
  const axis = direction.findIndex((n) => Math.abs(n) > 1 - 1e-14);
  if (axis >= 0 && direction.every((n, i) => i === axis || Math.abs(n) < PARALLEL_SINE))
    return direction.map((n, i) => (i === axis ? Math.sign(n) : 0)) as unknown as Vec3;
  return direction;
}

export const applyMatrix: (m: Matrix, v: Vec3) => Vec3 = turnVector;

/** The map that takes another back. Source: Cramer's rule. */
export function inverseMatrix(m: Matrix): Matrix {
  const [x, y, z] = [column(m, 0), column(m, 1), column(m, 2)];
  const size = determinant(m);
  return transposed(
    fromColumns(scale(cross(y, z), 1 / size), scale(cross(z, x), 1 / size), scale(cross(x, y), 1 / size)),
  );
}
