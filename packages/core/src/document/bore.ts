/** What a turned part leaves open round its axis. */
import type { BodyOf } from '../recipes/bodies/index.ts';
import { valueOf } from '../recipes/numbers.ts';
import type { KadrelDocument } from './schema.ts';
import { cosDegrees, sinDegrees } from '../space/angle.ts';
import { cleanLength } from '../space/rounding.ts';
import type { Affine2 } from '../space/vector2.ts';
import { carryCurve } from '../curves/curve.ts';
import { boxOfCurves } from '../curves/flattened.ts';
import { pathsOnPlane } from './drawn.ts';

/** Diameter of the bore, mm; 0 where the profiles touch or cross the axis. Undefined where regions were picked. */
export function boreOf(document: KadrelDocument, base: BodyOf<'revolve'>): number | undefined {
  if (base.regions !== 'all') return undefined;
  const [x, y] = [valueOf(base.axis.point[0]), valueOf(base.axis.point[1])];
  const [c, s] = [cosDegrees(valueOf(base.axis.angle)), sinDegrees(valueOf(base.axis.angle))];
  // The axis becomes X: what is beside it is Y.
  const map: Affine2 = { x: [c, -s], y: [s, c], shift: [-(c * x + s * y), s * x - c * y] };
  const paths = pathsOnPlane(document, base.profiles) ?? [];
  const box = boxOfCurves(
    paths
      .filter(({ closed }) => closed)
      .flatMap(({ curves }) => curves.map(({ curve }) => carryCurve(map, curve))),
  );
  if (!box) return undefined;
  return cleanLength(2 * Math.max(0, box.min[1], -box.max[1]));
}
