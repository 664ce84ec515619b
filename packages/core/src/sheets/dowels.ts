/** Holes for dowels through the layers of a stacked model. */
import { circle, line, type DrawnPath } from '../curves/curve.ts';
import { boxOfCurves } from '../curves/flattened.ts';
import { meetings, nearestOn } from '../curves/meetings.ts';
import { add2, distance2, scale2, type Vec2 } from '../space/vector2.ts';

/** Where they go, and how wide they are, in the frame of the layer, mm. */
export interface Dowels {
  readonly at: readonly Vec2[];
  readonly diameter: number;
}

/** Less material than this round a hole (mm) is none. */
const MIN_RIM_MM = 1e-6;
/** Length 1, along no edge that people draw. */
const ASIDE: Vec2 = [0.8713408, 0.4906731];

/** Of those that lie within what is cut out, with material all round. */
export const dowelHoles = (outlines: readonly DrawnPath[], { at, diameter }: Dowels): DrawnPath[] =>
  at
    .filter((place) => hasRoom(outlines, place, diameter / 2))
    .map((place) => ({ closed: true, curves: [circle(place, diameter / 2)] }));

/** By the even-odd rule, and by how far the nearest outline is. */
function hasRoom(outlines: readonly DrawnPath[], place: Vec2, radius: number): boolean {
  const curves = outlines.flatMap((path) => path.curves);
  const box = boxOfCurves(curves);
  if (!box || curves.some((curve) => nearestOn(curve, place).distance <= radius + MIN_RIM_MM)) return false;
  const beyond = distance2(box.min, box.max) + distance2(place, box.min);
  const away = line(place, add2(place, scale2(ASIDE, beyond)));
  return curves.flatMap((curve) => meetings(away, curve)).length % 2 === 1;
}
