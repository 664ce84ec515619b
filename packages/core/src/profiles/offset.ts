/**
 * Outlines beside closed outlines, as a whole: every curve is moved aside, gaps at corners are filled, and what comes nearer to the
 * outlines than the distance is cut away. So necks close and open as they must. Source: the usual trimming of offset curves, e.g.
 * T. Maekawa, *An overview of offset curves and surfaces*, Computer-Aided Design 31, 1999.
 */
import { add2, cross2, left2, scale2, subtract2, unit2, type Vec2 } from '../space/vector2.ts';
import { degrees } from '../space/angle.ts';
import { cutAtMeetings } from '../curves/cutAtMeetings.ts';
import { endOf, line, pointAt, reversed, startOf, velocityAt, type Curve } from '../curves/curve.ts';
import { linesCross } from '../curves/lineAndCircle.ts';
import { nearestOn } from '../curves/meetings.ts';
import { depthAt, pathArea, type Path } from './outline.ts';
import { besideCurve } from './parallel.ts';
import { joined } from '../curves/joined.ts';
import type { DrawnPath } from '../curves/curve.ts';

/** How parallels go round outer corners. */
export type Corners = 'round' | 'square';

/** What comes nearer than the distance by more than this (mm) is cut away: above what curves beside curves are off by. */
const NEARER_MM = 1e-6;
/** Curves that meet at less than this (sine) go on into each other. */
const SMOOTH_SINE = 1e-9;
/** A square corner sharper than this would run far out: it is cut off round. Source: common practice, no source. */
const SHARPEST_COSINE = Math.cos((175 * Math.PI) / 180);

/**
 * The outlines at a distance outward of what closed paths enclose by the even-odd rule, mm; less than zero is inward. An empty list
 * where there is no room; undefined where formulas do not tell, as beside bends tighter than the distance.
 */
export function offsetOutlines(
  paths: readonly Path[],
  by: number,
  corners: Corners,
): DrawnPath[] | undefined {
  const loops = paths.map((path) => turnedOutward(paths, path));
  const raw: Curve[] = [];
  for (const loop of loops) {
    const aside = asideOf(loop, by, corners);
    if (!aside) return undefined;
    raw.push(...aside);
  }
  const pieces = cutAtMeetings(raw);
  if (!pieces) return undefined;
  const source = loops.flat();
  const clear = pieces.filter((piece) => isClear(source, piece, Math.abs(by)));
  // Where a neck just closes, curves from both its sides lie on each other.
  const kept = clear.filter((piece, i) => !clear.slice(0, i).some((other) => areSame(piece, other)));
  const found = joined(kept);
  return found.every(({ closed }) => closed) ? found : undefined;
}

/** The curves of a loop with what it encloses to their left. */
function turnedOutward(paths: readonly Path[], path: Path): Curve[] {
  const curves = path.curves.map(({ curve }) => curve);
  const others = paths.filter((other) => other !== path);
  const isHole = depthAt(others, startOf(curves[0]!)) % 2 === 1;
  return pathArea(path) > 0 !== isHole ? curves : curves.toReversed().map(reversed);
}

/** The curves moved to the right, and what fills the gaps between them; undefined where one bends too tightly. */
function asideOf(curves: readonly Curve[], by: number, corners: Corners): Curve[] | undefined {
  const found: Curve[] = [];
  for (const [i, curve] of curves.entries()) {
    const aside = besideCurve(curve, -by);
    // An arc tighter than the distance vanishes.
    if (!aside && curve.kind !== 'arc') return undefined;
    found.push(...(aside ?? []));
    found.push(...cornerOf(curve, curves[(i + 1) % curves.length]!, { by, corners }));
  }
  return found;
}

/** What fills the gap where the way turns away from the side that it is moved to. */
function cornerOf(
  a: Curve,
  b: Curve,
  { by, corners }: { readonly by: number; readonly corners: Corners },
): Curve[] {
  const [u, v] = [unit2(velocityAt(a, 1)), unit2(velocityAt(b, 0))];
  const turn = cross2(u, v);
  if (Math.abs(turn) < SMOOTH_SINE && u[0] * v[0] + u[1] * v[1] > 0) return [];
  const at = endOf(a);
  const [from, to] = [add2(at, scale2(left2(u), -by)), add2(at, scale2(left2(v), -by))];
  // Where it turns towards that side the curves beside it cross, and what is left over is cut away.
  if (turn > 0 !== by > 0) return [line(from, to)];
  if (corners === 'square' && u[0] * v[0] + u[1] * v[1] > SHARPEST_COSINE) {
    const parts = linesCross(from, u, to, v);
    if (!parts) return [line(from, to)];
    const tip = add2(from, scale2(u, parts[0]));
    return [line(from, tip), line(tip, to)];
  }
  const angle = ([x, y]: Vec2) => degrees(Math.atan2(y, x));
  const first = angle(subtract2(from, at));
  let sweep = angle(subtract2(to, at)) - first;
  while (sweep > 180) sweep -= 360;
  while (sweep < -180) sweep += 360;
  return [{ kind: 'arc', centre: at, radius: Math.abs(by), first, sweep }];
}

function areSame(a: Curve, b: Curve): boolean {
  const near = (p: Vec2, q: Vec2) => Math.hypot(p[0] - q[0], p[1] - q[1]) <= 10 * NEARER_MM;
  const [s, e, t, f] = [startOf(a), endOf(a), startOf(b), endOf(b)];
  return near(pointAt(a, 0.5), pointAt(b, 0.5)) && ((near(s, t) && near(e, f)) || (near(s, f) && near(e, t)));
}

const isClear = (source: readonly Curve[], piece: Curve, distance: number): boolean =>
  [0.25, 0.5, 0.75].every((part) => {
    const at = pointAt(piece, part);
    return source.every((curve) => nearestOn(curve, at).distance >= distance - NEARER_MM);
  });
