/** Curves as straight lines and cubic Bézier curves, for formats that know no others. */
import type { Vec2 } from '../space/vector2.ts';
import { add2, scale2 } from '../space/vector2.ts';
import { pointAt, startOf, endOf, velocityAt, type Curve } from './curve.ts';

/** A line by its two ends, or a cubic by its four points. */
export type CubicPiece = readonly [Vec2, Vec2] | readonly [Vec2, Vec2, Vec2, Vec2];

/** Arcs are parted so that no piece turns by more, degrees: then it is off by less than 1e-7 of the radius. */
const MAX_TURN = 22.5;
/** Pieces of Bézier curves of a degree above 3. */
const HIGH_PIECES = 16;

/** A curve as lines and cubics, in order; arcs and ellipses are approximated, all others are exact up to the third degree. */
export function cubicPieces(curve: Curve): CubicPiece[] {
  if (curve.kind === 'line') return [[curve.from, curve.to]];
  if (curve.kind === 'bezier') return bezierAsCubics(curve);
  const count = Math.max(1, Math.ceil(Math.abs(curve.sweep) / MAX_TURN));
  const angle = (curve.sweep * Math.PI) / 180 / count;
  // Source: the usual handle of a circular arc, 4/3·tan(θ/4) of the radius.
  const handle = ((4 / 3) * Math.tan(angle / 4)) / ((curve.sweep * Math.PI) / 180);
  return pieces(curve, count, handle);
}

/** Each piece with handles along the curve, a part of its velocity long. */
function pieces(curve: Curve, count: number, handle: number): CubicPiece[] {
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [i / count, (i + 1) / count];
    const [a, d] = [pointAt(curve, from), pointAt(curve, to)];
    const b = add2(a, scale2(velocityAt(curve, from), handle));
    return [a, b, add2(d, scale2(velocityAt(curve, to), -handle)), d] as const;
  });
}

function bezierAsCubics(curve: Extract<Curve, { kind: 'bezier' }>): CubicPiece[] {
  const { points } = curve;
  if (points.length === 4) return [[points[0]!, points[1]!, points[2]!, points[3]!]];
  if (points.length > 4) return pieces(curve, HIGH_PIECES, 1 / HIGH_PIECES / 3);
  const [a, m, d] = [startOf(curve), points[1]!, endOf(curve)];
  const towards = (end: Vec2): Vec2 => [
    end[0] + (2 / 3) * (m[0] - end[0]),
    end[1] + (2 / 3) * (m[1] - end[1]),
  ];
  return [[a, towards(a), towards(d), d]];
}
