/** Boxes along the axes of a frame, in mm. */
import type { Pose } from './pose.ts';
import type { Vec3 } from './vector.ts';

export interface Box {
  readonly min: Vec3;
  readonly max: Vec3;
}

/** Which of the 27 points of a box: -1 least, 0 middle, 1 greatest, on X, Y and Z. */
export type BoxPoint = readonly [-1 | 0 | 1, -1 | 0 | 1, -1 | 0 | 1];

export function boxOf(points: Iterable<Vec3>): Box {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const point of points)
    for (let axis = 0; axis < 3; axis++) {
      min[axis] = Math.min(min[axis]!, point[axis]!);
      max[axis] = Math.max(max[axis]!, point[axis]!);
    }
  return { min, max };
}

export const boxSize = ({ min, max }: Box): Vec3 => [max[0] - min[0], max[1] - min[1], max[2] - min[2]];

export function boxPoint({ min, max }: Box, at: BoxPoint): Vec3 {
  const along = (axis: 0 | 1 | 2) =>
    at[axis] < 0 ? min[axis] : at[axis] > 0 ? max[axis] : (min[axis] + max[axis]) / 2;
  return [along(0), along(1), along(2)];
}

/** A box that reaches so much farther on every side, mm. */
export const grownBy = ({ min, max }: Box, mm: number): Box => ({
  min: [min[0] - mm, min[1] - mm, min[2] - mm],
  max: [max[0] + mm, max[1] + mm, max[2] + mm],
});

export function boxCorners({ min, max }: Box): Vec3[] {
  return [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [
    i & 1 ? max[0] : min[0],
    i & 2 ? max[1] : min[1],
    i & 4 ? max[2] : min[2],
  ]);
}

export function unionBoxes(boxes: Iterable<Box>): Box | undefined {
  const points = [...boxes].flatMap(({ min, max }) => [min, max]);
  return points.length === 0 ? undefined : boxOf(points);
}

/**
 * The box round the carried box: exact for quarter turns, otherwise a bound. Each side is the sum of what the turn makes
 * of each extent, in the order in which `carry` adds them, so that corners and sides agree to the last bit.
 */
export function carryBox({ turn: t, shift }: Pose, { min, max }: Box): Box {
  const minimum: [number, number, number] = [0, 0, 0];
  const maximum: [number, number, number] = [0, 0, 0];
  for (let row = 0; row < 3; row++) {
    let [low, high] = [0, 0];
    for (let axis = 0; axis < 3; axis++) {
      const n = t[3 * row + axis]!;
      const [a, b] = [n * min[axis]!, n * max[axis]!];
      low += a < b ? a : b;
      high += a < b ? b : a;
    }
    minimum[row] = low + shift[row]!;
    maximum[row] = high + shift[row]!;
  }
  return { min: minimum, max: maximum };
}

/** Whether two boxes have a point in common. */
export const boxesMeet = (a: Box, b: Box): boolean =>
  [0, 1, 2].every((i) => a.min[i]! <= b.max[i]! && a.max[i]! >= b.min[i]!);
