/** A flat face with holes as triangles, joined to quads where these are well formed: what a cage is made of. Pure arithmetic. */
import { acrossTo, cross, dot, type Vec3 } from '@kadrel/core';
import { facetsWithin, type Flat } from '../../facts/flatFacets.ts';

/** Quads with a corner sharper than this, or blunter than what it leaves of half a turn, stay two triangles; degrees. */
const MIN_CORNER = 25;
const HALF_TURN = 180;

/**
 * Faces without holes, counter-clockwise seen against the normal, between the corners that are there. Undefined where loops touch.
 * @param loops an outer one, and holes
 */
export function holedFaces(loops: readonly (readonly Vec3[])[], normal: Vec3): Vec3[][] | undefined {
  const points = loops.flat();
  const x = acrossTo(normal);
  const y = cross(normal, x);
  const flat = points.map((at): Flat => [dot(at, x), dot(at, y)]);
  let first = 0;
  const corners = facetsWithin(loops.map(({ length }) => flat.slice(first, (first += length))));
  if (!corners) return undefined;
  const triangles = Array.from({ length: corners.length / 3 }, (_, t) => {
    const [a, b, c] = corners.slice(3 * t, 3 * t + 3) as [number, number, number];
    return turnAt(flat, [a, b, c]) > 0 ? [a, b, c] : [a, c, b];
  });
  return joinedToQuads(flat, triangles).map((face) => face.map((i) => points[i]!));
}

/** The best pairs first; each triangle goes into one quad at most. */
function joinedToQuads(points: readonly Flat[], triangles: readonly (readonly number[])[]) {
  const quads = pairsOf(triangles).flatMap(({ pair, corners }) => {
    const form = Math.min(...corners.map((_, i) => cornerForm(points, corners, i)));
    return form >= MIN_CORNER ? [{ pair, corners, form }] : [];
  });
  const isJoined = new Set<number>();
  const faces: (readonly number[])[] = [];
  for (const { pair, corners } of quads.toSorted((a, b) => b.form - a.form)) {
    if (pair.some((t) => isJoined.has(t))) continue;
    pair.forEach((t) => isJoined.add(t));
    faces.push(corners);
  }
  return [...faces, ...triangles.filter((_, t) => !isJoined.has(t))];
}

interface Pair {
  readonly pair: readonly [number, number];
  readonly corners: readonly number[];
}

/** Triangles that share an edge, as quads. */
function pairsOf(triangles: readonly (readonly number[])[]): Pair[] {
  const byEdge = new Map<string, { readonly triangle: number; readonly far: number }>();
  return triangles.flatMap((corners, t) =>
    corners.flatMap((from, k): Pair[] => {
      const [to, far] = [corners[(k + 1) % 3]!, corners[(k + 2) % 3]!];
      byEdge.set(`${from} ${to}`, { triangle: t, far });
      const other = byEdge.get(`${to} ${from}`);
      return other ? [{ pair: [other.triangle, t], corners: [from, other.far, to, far] }] : [];
    }),
  );
}

/** How far the angle of a corner is from none and from half a turn, degrees; less than 0 where it turns back. */
function cornerForm(points: readonly Flat[], corners: readonly number[], i: number): number {
  const count = corners.length;
  const [before, at, after] = [corners[(i + count - 1) % count]!, corners[i]!, corners[(i + 1) % count]!];
  const [p, q, r] = [points[before]!, points[at]!, points[after]!];
  const turn = turnAt(points, [before, at, after]);
  const across = (p[0] - q[0]) * (r[0] - q[0]) + (p[1] - q[1]) * (r[1] - q[1]);
  const angle = (Math.atan2(turn, across) * HALF_TURN) / Math.PI;
  return Math.min(angle, HALF_TURN - angle);
}

/** More than 0 where the way through three points turns to the left. */
function turnAt(points: readonly Flat[], [a, b, c]: readonly [number, number, number]): number {
  const [p, q, r] = [points[a]!, points[b]!, points[c]!];
  return (q[0] - p[0]) * (r[1] - q[1]) - (q[1] - p[1]) * (r[0] - q[0]);
}
