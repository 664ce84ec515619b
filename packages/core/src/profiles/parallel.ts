/** Outlines beside others, leg by leg: exact beside straight legs and arcs, with mitred corners; smooth beside free curves. */
import { add2, distance2, dot2, left2, scale2, subtract2, unit2, type Vec2 } from '../space/vector2.ts';
import { cleanLength } from '../space/rounding.ts';
import { areClear } from './crossing.ts';
import { curvatureAt, endOf, line, pointAt, startOf, velocityAt, type Curve } from '../curves/curve.ts';
import { FIT_MM, curvesAlong } from '../curves/fitting.ts';
import { linesCross } from '../curves/lineAndCircle.ts';
import type { NamedCurve, Path } from './outline.ts';

/** Ends of curves that go on in one direction meet beside them too; farther apart than this (mm) they do not. */
const TANGENT_MM = 1e-7;

/**
 * The path at a distance to the left of its way, mm; undefined where that is more than moving each leg aside: corners beside
 * arcs and free curves, legs that would vanish, bends tighter than the distance. The kernel knows those.
 */
export function parallelPath(path: Path, by: number): Path | undefined {
  const { closed, curves } = path;
  const moved: NamedCurve[] = [];
  for (const { name, curve } of curves) {
    const aside = besideCurve(curve, by);
    if (!aside) return undefined;
    moved.push(...aside.map((one) => ({ name, curve: one })));
  }
  const corners = moved.map(({ curve }, i) => {
    const next = moved[(i + 1) % moved.length]!.curve;
    if (!closed && i === moved.length - 1) return endOf(curve);
    return meeting(curve, next);
  });
  const made: NamedCurve[] = [];
  for (const [i, { name, curve }] of moved.entries()) {
    const end = corners[i];
    const start = !closed && i === 0 ? startOf(curve) : corners[(i + moved.length - 1) % moved.length];
    if (!start || !end) return undefined;
    const kept = curve.kind === 'line' ? line(start, end) : curve;
    const isKept =
      curve.kind === 'line'
        ? dot2(subtract2(end, start), subtract2(curve.to, curve.from)) > 0
        : distance2(startOf(curve), start) <= TANGENT_MM && distance2(endOf(curve), end) <= TANGENT_MM;
    if (!isKept) return undefined;
    made.push({ name, curve: kept });
  }
  const found: Path = { closed, curves: made };
  // The way may come round to itself farther on, as where a neck closes.
  return !areClear([found]) && areClear([path]) ? undefined : found;
}

/** The curve at a distance to the left of its way; undefined where it bends more tightly than that. */
export function besideCurve(curve: Curve, by: number): Curve[] | undefined {
  if (curve.kind === 'line') {
    const aside = scale2(left2(unit2(subtract2(curve.to, curve.from))), by);
    return [line(clean(add2(curve.from, aside)), clean(add2(curve.to, aside)))];
  }
  if (curve.kind !== 'arc') return besideFree(curve, by);
  const radius = cleanLength(curve.radius - Math.sign(curve.sweep) * by);
  return radius > 0 ? [{ ...curve, radius }] : undefined;
}

/** The radius of a bend beside a free curve is no less than this part of its own: a cusp has none. */
const MIN_BEND = 1e-3;
const BEND_SAMPLES = 64;

/** What lies beside an ellipse or a Bézier curve is neither: Bézier curves follow it. */
function besideFree(curve: Curve, by: number): Curve[] | undefined {
  for (let i = 0; i <= BEND_SAMPLES; i++)
    if (!(1 - by * curvatureAt(curve, i / BEND_SAMPLES) > MIN_BEND)) return undefined;
  const aside = (part: number): Vec2 =>
    add2(pointAt(curve, part), scale2(left2(unit2(velocityAt(curve, part))), by));
  return curvesAlong(aside, FIT_MM);
}

const clean = ([x, y]: Vec2): Vec2 => [cleanLength(x), cleanLength(y)];

/** Where one goes over into the next. */
function meeting(a: Curve, b: Curve): Vec2 | undefined {
  if (distance2(endOf(a), startOf(b)) <= TANGENT_MM) return endOf(a);
  if (a.kind !== 'line' || b.kind !== 'line') return undefined;
  const u = subtract2(a.to, a.from);
  const parts = linesCross(a.from, u, b.from, subtract2(b.to, b.from));
  return parts && clean(add2(a.from, scale2(u, parts[0])));
}
