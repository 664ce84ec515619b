/** Circles and ellipses given by a centre and two half axes. */
import { cosDegrees, sinDegrees } from './angle.ts';
import type { Vec3 } from './vector.ts';

/** The point at an angle, degrees, of a circle, or of an ellipse in its own axes. Exact at quarter turns. */
export function circlePointOf(
  { centre, x, y }: { readonly centre: Vec3; readonly x: Vec3; readonly y: Vec3 },
  angle: number,
): Vec3 {
  const [c, s] = [cosDegrees(angle), sinDegrees(angle)];
  return [0, 1, 2].map((i) => centre[i]! + c * x[i]! + s * y[i]!) as unknown as Vec3;
}
