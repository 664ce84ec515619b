/** Polygons in the plane. */
import type { Vec2 } from './vector2.ts';

/**
 * Whether a point lies in a polygon, by the even-odd rule: how often a line from it to the right crosses the outline.
 * Source: Shimrat, Algorithm 112, Communications of the ACM 5 (1962).
 */
export function isInPolygon(point: Vec2, corners: readonly Vec2[]): boolean {
  // By index: it is asked for every point of a lasso, and to take an array apart costs more than the test.
  const x = point[0];
  const y = point[1];
  let inside = false;
  let a = corners[corners.length - 1]!;
  for (const b of corners) {
    if (a[1] > y !== b[1] > y && x < a[0] + ((y - a[1]) / (b[1] - a[1])) * (b[0] - a[0])) inside = !inside;
    a = b;
  }
  return inside;
}
