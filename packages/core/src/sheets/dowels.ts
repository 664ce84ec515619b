/** Holes for dowels through the layers of a stacked model. */
import { circle, type DrawnPath } from '../curves/curve.ts';
import { filledDistance } from '../profiles/filled.ts';
import { namedPaths } from '../profiles/path.ts';
import type { Vec2 } from '../space/vector2.ts';

/** Where they go, and how wide they are, in the frame of the layer, mm. */
export interface Dowels {
  readonly at: readonly Vec2[];
  readonly diameter: number;
}

/** Less material than this round a hole (mm) is none. */
const MIN_RIM_MM = 1e-6;

/** Of those that lie within what is cut out, with material all round. */
export function dowelHoles(outlines: readonly DrawnPath[], { at, diameter }: Dowels): DrawnPath[] {
  if (at.length === 0) return [];
  const distanceTo = filledDistance(namedPaths(outlines));
  return at
    .filter((place) => -distanceTo(place) > diameter / 2 + MIN_RIM_MM)
    .map((place) => ({ closed: true, curves: [circle(place, diameter / 2)] }));
}
