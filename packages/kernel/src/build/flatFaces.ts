/** Flat faces with straight edges, by their corners. Pure arithmetic. */
import { add, cross, dot, scale, subtract, unit, type Vec3 } from '@kadrel/core';

/** Corners nearer than this (mm) are one, and a corner that is farther from a plane is off it: the kernel’s own tolerance. */
export const SAME_CORNER_MM = 1e-7;

export interface FlatFace {
  readonly name: string;
  /** Its outer border first, counter-clockwise seen from outside; holes run the other way round. */
  readonly loops: readonly (readonly Vec3[])[];
}

/** Twice the area within a loop, positive when it runs counter-clockwise seen against the normal. */
export const areaWithin = (loop: readonly Vec3[], normal: Vec3): number => dot(normal, doubleArea(loop));

/** Of a loop, length 1: counter-clockwise seen against it. Source: M. Newell, as in any textbook of computer graphics. */
export const newellNormal = (loop: readonly Vec3[]): Vec3 => unit(doubleArea(loop));

/** As a vector along the normal. By what lies between the first corner and the others, so that far from the origin no digits are lost. */
function doubleArea([first, ...others]: readonly Vec3[]): Vec3 {
  const arms = others.map((at) => subtract(at, first!));
  return arms.slice(1).reduce<Vec3>((sum, arm, i) => add(sum, cross(arms[i]!, arm)), [0, 0, 0]);
}

/** No corner is off the plane by more than the kernel allows. */
export function isFlat({ loops }: Pick<FlatFace, 'loops'>): boolean {
  const [loop] = loops;
  const normal = newellNormal(loop!);
  const middle = middleOf(loop!);
  return loops.flat().every((at) => Math.abs(dot(normal, subtract(at, middle))) < SAME_CORNER_MM);
}

export const middleOf = (points: readonly Vec3[]): Vec3 =>
  scale(
    points.reduce<Vec3>((sum, at) => add(sum, at), [0, 0, 0]),
    1 / points.length,
  );
