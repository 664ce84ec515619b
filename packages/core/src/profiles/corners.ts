/** Corners of outlines, rounded by a radius or cut off at a distance. */
import { reasonOf, type Reason } from '../language/reason.ts';
import { degrees } from '../space/angle.ts';
import { cleanDegrees } from '../space/matrix.ts';
import {
  add2,
  cross2,
  distance2,
  dot2,
  left2,
  scale2,
  subtract2,
  unit2,
  type Vec2,
} from '../space/vector2.ts';
import {
  SAME_POINT_MM,
  curveLength,
  endOf,
  line,
  partAtLength,
  pieceOf,
  pointAt,
  startOf,
  velocityAt,
  type ArcCurve,
  type Curve,
} from '../curves/curve.ts';
import { circlesCross, lineCrossesCircle, linesCross, type Circle } from '../curves/lineAndCircle.ts';
import { nearestOn } from '../curves/meetings.ts';
import type { NamedCurve, Path } from './outline.ts';

/** Why an edit of an outline cannot be made. */
export class EditFault extends Error {
  /** @param at where it cannot, in the frame of the profile, mm */
  constructor(
    readonly why: Reason,
    readonly at?: Vec2,
  ) {
    super(why.message);
  }
}

/** A place of an outline where one curve goes over into another. */
export interface Corner {
  readonly path: number;
  /** Of the curve that ends there; the next one begins there. */
  readonly curve: number;
  readonly at: Vec2;
  readonly between: readonly [string, string];
}

/** Curves that turn by less than this (degrees) go on smoothly: there is no corner. */
const SMOOTH_DEGREES = 1e-6;

/** The corners of paths, by the curves that meet there. */
export function cornersOf(paths: readonly Path[]): Corner[] {
  return paths.flatMap((path, p) =>
    path.curves.flatMap((named, c): Corner[] => {
      const next = nextOf(path, c);
      if (next === undefined || Math.abs(turnBetween(named.curve, path.curves[next]!.curve)) < SMOOTH_DEGREES)
        return [];
      const between = [named.name, path.curves[next]!.name] as const;
      return [{ path: p, curve: c, at: endOf(named.curve), between }];
    }),
  );
}

const nextOf = (path: Path, at: number): number | undefined =>
  at + 1 < path.curves.length ? at + 1 : path.closed && path.curves.length > 1 ? 0 : undefined;

function turnBetween(a: Curve, b: Curve): number {
  const [u, v] = [velocityAt(a, 1), velocityAt(b, 0)];
  return degrees(Math.atan2(cross2(u, v), dot2(u, v)));
}

/** The corner between curves of these names that is nearest to a point; else the nearest of all. */
export function nearestCorner(
  corners: readonly Corner[],
  near: Vec2,
  between?: readonly string[],
): Corner | undefined {
  const named = corners.filter((corner) => between && corner.between.every((name, i) => name === between[i]));
  return (named.length > 0 ? named : corners).reduce<Corner | undefined>(
    (best, one) => (!best || distance2(one.at, near) < distance2(best.at, near) ? one : best),
    undefined,
  );
}

/** @param size the radius, or the distance from the corner, mm. Throws EditFault. */
export function withCorner(
  path: Path,
  at: number,
  { how, size }: { readonly how: 'round' | 'bevel'; readonly size: number },
): Path {
  const next = nextOf(path, at)!;
  const [a, b] = [path.curves[at]!, path.curves[next]!];
  const made = how === 'round' ? fillet(a.curve, b.curve, size) : chamfer(a.curve, b.curve, size);
  if (!made)
    throw new EditFault(
      reasonOf(how === 'round' ? 'edit.no-room' : 'edit.short', { size, first: a.name, second: b.name }),
      endOf(a.curve),
    );
  const curves = path.curves.flatMap((named, i): NamedCurve[] => {
    if (i !== at && i !== next) return [named];
    const curve = i === at ? made.before : made.after;
    const kept: NamedCurve[] = curve ? [{ name: named.name, curve }] : [];
    return i === at ? [...kept, { name: `${a.name}-${b.name}`, curve: made.between }] : kept;
  });
  return { closed: path.closed, curves };
}

interface Made {
  /** What is left of both; undefined where nothing is. */
  readonly before: Curve | undefined;
  readonly between: Curve;
  readonly after: Curve | undefined;
}

function cutBack(
  a: Curve,
  b: Curve,
  { toA, fromB, between }: { readonly toA: number; readonly fromB: number; readonly between: Curve },
): Made {
  return {
    before: toA * curveLength(a) > SAME_POINT_MM ? ended(pieceOf(a, 0, toA), startOf(between)) : undefined,
    between,
    after:
      (1 - fromB) * curveLength(b) > SAME_POINT_MM ? begun(pieceOf(b, fromB, 1), endOf(between)) : undefined,
  };
}
/** Lines end bit for bit where the next curve begins. */
const ended = (curve: Curve, to: Vec2): Curve => (curve.kind === 'line' ? line(curve.from, to) : curve);
const begun = (curve: Curve, from: Vec2): Curve => (curve.kind === 'line' ? line(from, curve.to) : curve);

/** The arc that touches two lines or arcs on the inner side of their corner: its centre lies beside both. */
function fillet(a: Curve, b: Curve, radius: number): Made | undefined {
  if (!isRound(a) || !isRound(b)) throw new EditFault(reasonOf('edit.corner-kind', {}), endOf(a));
  const side = Math.sign(turnBetween(a, b));
  const corner = endOf(a);
  const centre = crossings(beside(a, side * radius), beside(b, side * radius)).reduce<Vec2 | undefined>(
    (best, one) => (!best || distance2(one, corner) < distance2(best, corner) ? one : best),
    undefined,
  );
  if (!centre) return undefined;
  const [p, q] = [touching(a, centre), touching(b, centre)];
  if (p === undefined || q === undefined) return undefined;
  const [from, to] = [pointAt(a, p), pointAt(b, q)];
  const [u, v] = [subtract2(from, centre), subtract2(to, centre)];
  const sweep = cleanDegrees(degrees(Math.atan2(cross2(u, v), dot2(u, v))));
  // The arc turns as the corner does.
  if (Math.sign(sweep) !== side) return undefined;
  const first = cleanDegrees(degrees(Math.atan2(u[1], u[0])));
  return cutBack(a, b, { toA: p, fromB: q, between: { kind: 'arc', centre, radius, first, sweep } });
}

type Round = Extract<Curve, { kind: 'line' }> | ArcCurve;
const isRound = (curve: Curve): curve is Round => curve.kind === 'line' || curve.kind === 'arc';

/** The unbounded line or whole circle at a distance to the left of the way. */
type Beside = { at: Vec2; way: Vec2 } | Circle;
function beside(curve: Round, by: number): Beside {
  if (curve.kind === 'line') {
    const way = unit2(subtract2(curve.to, curve.from));
    return { at: add2(curve.from, scale2(left2(way), by)), way };
  }
  return { centre: curve.centre, radius: Math.abs(curve.radius - Math.sign(curve.sweep) * by) };
}

function crossings(a: Beside, b: Beside): readonly Vec2[] {
  if ('way' in a && 'way' in b) {
    const parts = linesCross(a.at, a.way, b.at, b.way);
    return parts ? [add2(a.at, scale2(a.way, parts[0]))] : [];
  }
  if ('way' in a) return lineCrossesCircle(a.at, a.way, b as Circle).map((d) => add2(a.at, scale2(a.way, d)));
  return 'way' in b ? crossings(b, a) : circlesCross(a, b);
}

/** Where a circle about a centre touches a curve; undefined beyond its ends. */
function touching(curve: Round, centre: Vec2): number | undefined {
  if (curve.kind === 'line') {
    const way = subtract2(curve.to, curve.from);
    const part = dot2(subtract2(centre, curve.from), way) / dot2(way, way);
    return part >= -1e-9 && part <= 1 + 1e-9 ? Math.min(1, Math.max(0, part)) : undefined;
  }
  const out = subtract2(centre, curve.centre);
  const point = add2(curve.centre, scale2(unit2(out), curve.radius));
  const foot = nearestOn(curve, point);
  return foot.distance <= SAME_POINT_MM ? foot.part : undefined;
}

/** A straight line between points as far from the corner along both curves. */
function chamfer(a: Curve, b: Curve, size: number): Made | undefined {
  const [toA, fromB] = [partAtLength(a, curveLength(a) - size), partAtLength(b, size)];
  if (toA === undefined || fromB === undefined) return undefined;
  return cutBack(a, b, { toA, fromB, between: line(pointAt(a, toA), pointAt(b, fromB)) });
}
