/** Signed distances: what they are, and those that several solids share. */
import type { Vec2, Vec3 } from '@kadrel/core';

/**
 * A point (mm, in the solid's own frame) → below 0 inside, above 0 outside; NaN where it is not known. Where a single surface is
 * near, and nothing was stretched, the size is the distance from it.
 */
export type Distance = (point: Vec3) => number;

/** A distance, and a ball that holds the whole solid. */
export interface Field {
  readonly at: Distance;
  readonly centre: Vec3;
  readonly radius: number;
}

/** The distance from what two square regions have in common. */
export const bothOf = (a: number, b: number) =>
  Math.min(Math.max(a, b), 0) + Math.hypot(Math.max(a, 0), Math.max(b, 0));

/** Signed distance from a polygon. The side is determined by how often a ray to the right crosses it. */
export function polygonDistance(corners: readonly (readonly [number, number])[], [x, y]: Vec2): number {
  let min = Infinity;
  let isInside = false;
  for (let i = 0, j = corners.length - 1; i < corners.length; j = i++) {
    const [ax, ay] = corners[j]!;
    const [bx, by] = corners[i]!;
    const [ux, uy] = [bx - ax, by - ay];
    const size = ux * ux + uy * uy;
    const part = size === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * ux + (y - ay) * uy) / size));
    min = Math.min(min, Math.hypot(x - ax - part * ux, y - ay - part * uy));
    if (ay > y !== by > y && x < ax + ((y - ay) / uy) * ux) isInside = !isInside;
  }
  return isInside ? -min : min;
}
