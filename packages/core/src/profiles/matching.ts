/** Outlines that a loft goes through, cut so that each has as many curves, from matched starts, all the same way round. */
import { carry, type Pose } from '../space/pose.ts';
import { cross, distance, dot, subtract, unit, type Vec3 } from '../space/vector.ts';
import type { Vec2 } from '../space/vector2.ts';
import { curveLength, partAtLength, pieceOf, startOf } from '../curves/curve.ts';
import { reversedPath } from './cutting.ts';
import { pathArea, type NamedCurve, type Path } from './outline.ts';

/** A path on a plane in space. */
export interface PlacedPath {
  readonly pose: Pose;
  readonly path: Path;
}

/** Starts that lie nearer to each other than this, as a part of the way round, are one. */
const SAME_SHARE = 1e-9;

/**
 * @param moved for each outline how far its start is moved along it from the matched one, mm
 * @param closed the last goes on to the first
 */
export function matchedOutlines(
  outlines: readonly PlacedPath[],
  { moved, closed }: { readonly moved: readonly number[]; readonly closed: boolean },
): PlacedPath[] {
  const turned = sameWay(outlines, { closed });
  const begun: PlacedPath[] = [];
  for (const [i, one] of turned.entries()) {
    const before = begun.at(-1);
    const at = (before ? matchedStart(before, one) : 0) + (moved[i] ?? 0);
    begun.push({ pose: one.pose, path: begunAt(one.path, at) });
  }
  const counts = new Set(begun.map(({ path }) => path.curves.length));
  if (counts.size === 1) return begun;
  const shares = begun.map(({ path }) => sharesOf(path));
  const all = [...shares.flat()]
    .sort((a, b) => a - b)
    .filter((share, i, sorted) => i === 0 || share - sorted[i - 1]! > SAME_SHARE);
  return begun.map(({ pose, path }) => ({ pose, path: cutAt(path, all) }));
}

/** All run round the way on which the loft goes through them; where it comes back, as the one before. */
function sameWay(outlines: readonly PlacedPath[], { closed }: { readonly closed: boolean }): PlacedPath[] {
  const centres = outlines.map(({ pose, path }) => carry(pose, centreOf(path)));
  return outlines.map((one, i) => {
    const last = outlines.length - 1;
    const [from, to] = closed
      ? [centres.at(i - 1)!, centres[(i + 1) % outlines.length]!]
      : [centres[Math.max(0, i - 1)]!, centres[Math.min(last, i + 1)]!];
    const way = subtract(to, from);
    const normal: Vec3 = [one.pose.turn[2], one.pose.turn[5], one.pose.turn[8]];
    const isForward = dot(normal, way) >= 0;
    return isForward === pathArea(one.path) > 0 ? one : { pose: one.pose, path: reversedPath(one.path) };
  });
}

/** The mean of where its curves begin, and of their middles. */
function centreOf({ curves }: Path): Vec3 {
  const points = curves.flatMap(({ curve }) =>
    [0, 0.25, 0.5, 0.75].map((part) => startOf(part === 0 ? curve : pieceOf(curve, part, 1))),
  );
  const sum = points.reduce<Vec2>(([x, y], p) => [x + p[0], y + p[1]], [0, 0]);
  return [sum[0] / points.length, sum[1] / points.length, 0];
}

/** How far along an outline the point lies that goes on best from the start of the one before, mm; a corner if it has any. */
function matchedStart(before: PlacedPath, { pose, path }: PlacedPath): number {
  const frame = parallelFrame(before.pose, pose);
  const from = outFrom(before, startOf(before.path.curves[0]!.curve), frame.before);
  const lengths = path.curves.map(({ curve }) => curveLength(curve));
  const starts = lengths.map((_, i) => lengths.slice(0, i).reduce((a, b) => a + b, 0));
  // A single curve all round has no corner: it may begin anywhere.
  const steps = path.curves.length === 1 ? 360 : 1;
  let best = { off: Infinity, at: 0 };
  path.curves.forEach(({ curve }, i) => {
    for (let k = 0; k < steps; k++) {
      const part = k / steps;
      const point = startOf(part === 0 ? curve : pieceOf(curve, part, 1));
      const off = distance(outFrom({ pose, path }, point, frame.here), from);
      if (off < best.off - 1e-9) best = { off, at: starts[i]! + lengths[i]! * part };
    }
  });
  return best.at;
}

/** The direction from the centre of an outline to a point of it, in a frame. */
function outFrom({ pose, path }: PlacedPath, point: Vec2, [x, y]: readonly [Vec3, Vec3]): Vec3 {
  const out = subtract(carry(pose, [point[0], point[1], 0]), carry(pose, centreOf(path)));
  const [u, v] = [dot(out, x), dot(out, y)];
  const size = Math.hypot(u, v) || 1;
  return [u / size, v / size, 0];
}

/** Axes in both planes that answer each other: the common line of the planes, and what is square to it in each. */
function parallelFrame(
  before: Pose,
  here: Pose,
): { before: readonly [Vec3, Vec3]; here: readonly [Vec3, Vec3] } {
  const normal = ({ turn }: Pose): Vec3 => [turn[2], turn[5], turn[8]];
  const [m, n] = [normal(before), normal(here)];
  const facing: Vec3 = dot(m, n) < 0 ? [-n[0], -n[1], -n[2]] : n;
  const line = cross(m, facing);
  const axis: Vec3 =
    Math.hypot(...line) < 1e-9 ? [before.turn[0], before.turn[3], before.turn[6]] : unit(line);
  return { before: [axis, cross(m, axis)], here: [axis, cross(facing, axis)] };
}

/** The same outline from another start. @param at along it from its start, mm; any turns are taken off */
export function begunAt(path: Path, at: number): Path {
  const lengths = path.curves.map(({ curve }) => curveLength(curve));
  const whole = lengths.reduce((a, b) => a + b, 0);
  let left = ((at % whole) + whole) % whole;
  if (left < SAME_SHARE * whole || whole - left < SAME_SHARE * whole) return path;
  const index = lengths.findIndex((length) => {
    if (left < length - SAME_SHARE * whole) return true;
    left = Math.max(0, left - length);
    return false;
  });
  const first = path.curves[index]!;
  const part = partAtLength(first.curve, left)!;
  const rest = [...path.curves.slice(index + 1), ...path.curves.slice(0, index)];
  if (part * lengths[index]! <= SAME_SHARE * whole) return { closed: true, curves: [first, ...rest] };
  if (rest.length === 0 && first.curve.kind === 'arc')
    // A whole circle stays one.
    return {
      closed: true,
      curves: [
        { name: first.name, curve: { ...first.curve, first: first.curve.first + first.curve.sweep * part } },
      ],
    };
  return {
    closed: true,
    curves: [
      { name: first.name, curve: pieceOf(first.curve, part, 1) },
      ...rest,
      { name: first.name, curve: pieceOf(first.curve, 0, part) },
    ],
  };
}

/** Where its curves begin, as parts of the way round. */
function sharesOf({ curves }: Path): number[] {
  const lengths = curves.map(({ curve }) => curveLength(curve));
  const whole = lengths.reduce((a, b) => a + b, 0);
  let sum = 0;
  return lengths.map((length) => {
    const share = sum / whole;
    sum += length;
    return share;
  });
}

/** Cut at parts of the way round. */
function cutAt(path: Path, all: readonly number[]): Path {
  const own = sharesOf(path);
  const lengths = path.curves.map(({ curve }) => curveLength(curve));
  const whole = lengths.reduce((a, b) => a + b, 0);
  const curves = path.curves.flatMap(({ name, curve }, i): NamedCurve[] => {
    const [from, to] = [own[i]!, own[i + 1] ?? 1];
    const inner = all.filter((share) => share > from + SAME_SHARE && share < to - SAME_SHARE);
    const parts = [0, ...inner.map((share) => partAtLength(curve, (share - from) * whole)!), 1];
    return parts.slice(1).map((end, k) => ({
      name,
      curve: inner.length === 0 ? curve : pieceOf(curve, parts[k]!, end),
    }));
  });
  return { closed: path.closed, curves };
}

/** Where the sides of a loft begin on each of its sections, in the frame of the first. */
export function loftStarts(
  sections: readonly { pose: Pose; paths: readonly Path[] }[],
  { moved, closed }: { readonly moved: readonly number[]; readonly closed: boolean },
): Vec3[] {
  const outer = sections.map(({ pose, paths }) => ({
    pose,
    path: paths
      .filter((path) => path.closed && path.curves.length > 0)
      .reduce<Path | undefined>(
        (best, path) => (!best || Math.abs(pathArea(path)) > Math.abs(pathArea(best)) ? path : best),
        undefined,
      ),
  }));
  if (outer.some(({ path }) => !path)) return [];
  const placed = outer.map(({ pose, path }) => ({ pose, path: path! }));
  return matchedOutlines(placed, { moved, closed }).map(({ pose, path }) => {
    const [x, y] = startOf(path.curves[0]!.curve);
    return carry(pose, [x, y, 0]);
  });
}
