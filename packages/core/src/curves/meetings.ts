/** Where curves meet, and where a point falls on one. */
import { degrees, turnWithin } from '../space/angle.ts';
import { add2, cross2, distance2, dot2, length2, scale2, subtract2, type Vec2 } from '../space/vector2.ts';
import { SAME_POINT_MM, pointAt, velocityAt, type ArcCurve, type Curve } from './curve.ts';
import { flattened } from './flattened.ts';
import { circlesCross, lineCrossesCircle, linesCross } from './lineAndCircle.ts';

type Line = Extract<Curve, { kind: 'line' }>;

/** Parts of the way along both, each in [0, 1]. */
export interface Meeting {
  readonly a: number;
  readonly b: number;
}

/** How far beyond an end (part of the way) still counts as the end: noise of the formulas. */
const BEYOND = 1e-9;

/** Where two curves meet, without those that lie on each other. */
export function meetings(a: Curve, b: Curve): Meeting[] {
  return found(a, b)
    .filter((one) => isOn(one.a) && isOn(one.b))
    .map((one) => ({ a: within(one.a), b: within(one.b) }));
}

const isOn = (part: number) => part >= -BEYOND && part <= 1 + BEYOND;
const within = (part: number) => Math.min(1, Math.max(0, part));

function found(a: Curve, b: Curve): Meeting[] {
  if (a.kind === 'line' && b.kind === 'line') return linesMeet(a, b);
  if (a.kind === 'line' && b.kind === 'arc') return lineMeetsArc(a, b);
  if (a.kind === 'arc' && b.kind === 'line') return lineMeetsArc(b, a).map((one) => ({ a: one.b, b: one.a }));
  if (a.kind === 'arc' && b.kind === 'arc') return arcsMeet(a, b);
  return freeMeetings(a, b);
}

function linesMeet(a: Line, b: Line): Meeting[] {
  const parts = linesCross(a.from, subtract2(a.to, a.from), b.from, subtract2(b.to, b.from));
  return parts ? [{ a: parts[0], b: parts[1] }] : [];
}

function lineMeetsArc(line: Line, arc: ArcCurve): Meeting[] {
  const way = subtract2(line.to, line.from);
  return lineCrossesCircle(line.from, way, arc).flatMap((part) =>
    partsOfArc(arc, add2(line.from, scale2(way, part))).map((b) => ({ a: part, b })),
  );
}

const arcsMeet = (a: ArcCurve, b: ArcCurve): Meeting[] =>
  circlesCross(a, b).flatMap((point) =>
    partsOfArc(a, point).flatMap((at) => partsOfArc(b, point).map((other) => ({ a: at, b: other }))),
  );

/** Where a point of its circle lies on an arc; none when beyond its ends. */
function partsOfArc(arc: ArcCurve, point: Vec2): number[] {
  const out = subtract2(point, arc.centre);
  const angle = degrees(Math.atan2(out[1], out[0]));
  const sign = Math.sign(arc.sweep);
  const turned = turnWithin(sign * (angle - arc.first));
  const whole = Math.abs(arc.sweep);
  // A hair before the start is the start.
  const part = (360 - turned < 1e-9 ? turned - 360 : turned) / whole;
  return isOn(part) ? [part] : [];
}

/** Curves of which one is free: between flattened pieces that cross, and then by Newton's method. */
function freeMeetings(a: Curve, b: Curve): Meeting[] {
  const [p, q] = [flattened(a), flattened(b)];
  const hits: Meeting[] = [];
  for (let i = 1; i < p.length; i++)
    for (let j = 1; j < q.length; j++) {
      const [cut] = linesMeet(
        { kind: 'line', from: p[i - 1]!, to: p[i]! },
        { kind: 'line', from: q[j - 1]!, to: q[j]! },
      );
      // Pieces that pass by their ends are tried too: the curves may bulge over to each other.
      if (!cut || Math.abs(cut.a - 0.5) > 0.75 || Math.abs(cut.b - 0.5) > 0.75) continue;
      const exact = refined(a, b, {
        a: (i - 1 + cut.a) / (p.length - 1),
        b: (j - 1 + cut.b) / (q.length - 1),
      });
      if (exact && !hits.some((one) => Math.abs(one.a - exact.a) < 1e-7 && Math.abs(one.b - exact.b) < 1e-7))
        hits.push(exact);
    }
  return hits;
}

/** Source: Newton's method for two equations. */
function refined(a: Curve, b: Curve, guess: Meeting): Meeting | undefined {
  let { a: s, b: t } = guess;
  for (let round = 0; round < 30; round++) {
    const off = subtract2(pointAt(a, s), pointAt(b, t));
    if (length2(off) < 1e-12) break;
    const [u, v] = [velocityAt(a, s), scale2(velocityAt(b, t), -1)];
    const sine = cross2(u, v);
    if (sine === 0) return undefined;
    s -= cross2(off, v) / sine;
    t -= cross2(u, off) / sine;
    if (Math.abs(s) > 2 || Math.abs(t) > 2) return undefined;
  }
  return distance2(pointAt(a, s), pointAt(b, t)) <= SAME_POINT_MM && isOn(s) && isOn(t)
    ? { a: s, b: t }
    : undefined;
}

export interface Foot {
  /** Part of the way. */
  readonly part: number;
  readonly point: Vec2;
  readonly distance: number;
}

/** The point of a curve that is nearest to another. @param points its flattened points, where they are known already */
export function nearestOn(curve: Curve, point: Vec2, points?: readonly Vec2[]): Foot {
  const at = (part: number): Foot => {
    const there = pointAt(curve, part);
    return { part, point: there, distance: distance2(there, point) };
  };
  const parts = curve.kind === 'line' || curve.kind === 'arc' ? [nearestPart(curve, point)] : [];
  const free = parts.length > 0 ? parts : nearestFreeParts(curve, point, points ?? flattened(curve));
  return [0, 1, ...free].map(at).reduce((best, one) => (one.distance < best.distance ? one : best));
}

function nearestPart(curve: Line | ArcCurve, point: Vec2): number {
  if (curve.kind === 'line') {
    const way = subtract2(curve.to, curve.from);
    return within(dot2(subtract2(point, curve.from), way) / dot2(way, way));
  }
  const out = subtract2(point, curve.centre);
  const size = length2(out);
  if (size === 0) return 0;
  const [part] = partsOfArc(curve, add2(curve.centre, scale2(out, curve.radius / size)));
  return within(part ?? 0);
}

/** The best of the flattened points, and from there to where the way to the point is square to the curve. */
function nearestFreeParts(curve: Curve, point: Vec2, points: readonly Vec2[]): number[] {
  const steps = points.length - 1;
  let [best, off] = [0, Infinity];
  points.forEach((one, i) => {
    const here = (one[0] - point[0]) ** 2 + (one[1] - point[1]) ** 2;
    if (here < off) [best, off] = [i, here];
  });
  const bracket = (i: number) =>
    squareTo(curve, point, { from: within((i - 1) / steps), to: within((i + 1) / steps) });
  // Where a curve comes back to its start, the best may lie just before its end.
  return best === 0 ? [bracket(0), bracket(steps)] : [bracket(best)];
}

/** Source: the rule of false position with the Illinois change, from memory. */
function squareTo(
  curve: Curve,
  point: Vec2,
  { from, to }: { readonly from: number; readonly to: number },
): number {
  const along = (part: number) => dot2(subtract2(pointAt(curve, part), point), velocityAt(curve, part));
  let [low, high] = [from, to];
  let [atLow, atHigh] = [along(low), along(high)];
  if (atLow >= 0) return low;
  if (atHigh <= 0) return high;
  for (let round = 0; round < 40 && high - low > 1e-15; round++) {
    const part = (low * atHigh - high * atLow) / (atHigh - atLow);
    const here = along(part);
    if (Math.abs(here) <= 1e-13 * dot2(velocityAt(curve, part), velocityAt(curve, part))) return part;
    if (here < 0) [low, atLow, atHigh] = [part, here, atHigh / 2];
    else [high, atHigh, atLow] = [part, here, atLow / 2];
  }
  return (low + high) / 2;
}
