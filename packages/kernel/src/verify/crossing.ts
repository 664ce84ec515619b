/** Where a body runs through itself: facets that cross one another and have no corner in common. */
import { searchPairs, cross, dot, subtract, type Vec3 } from '@kadrel/core';
import { facetTree, type Mesh } from '../facts/mesh.ts';

/** More facets than this are not looked at pair by pair. */
const MAX_FACETS = 30_000;
/** Crossings that are reported. */
const MAX_FOUND = 12;
/** Facets that pass through one another by less than this part of the body's size only touch, as far as single precision tells. */
const DEEP = 2e-6;

type Corners = readonly [Vec3, Vec3, Vec3];

/** Middles of the crossings, a few. */
export function selfCrossings(mesh: Mesh): Vec3[] {
  const { positions, triangles } = mesh;
  const count = triangles.length / 3;
  if (count > MAX_FACETS) return [];
  const cornersOf = (t: number): Corners =>
    [0, 1, 2].map((k) => {
      const i = 3 * triangles[3 * t + k]!;
      return [positions[i]!, positions[i + 1]!, positions[i + 2]!] as const;
    }) as unknown as Corners;
  const { boxes, tree } = facetTree(mesh);
  const deep = DEEP * positions.reduce((max, n) => Math.max(max, Math.abs(n)), 0);
  const isSplit = splitting(mesh, deep);
  const found: Vec3[] = [];
  searchPairs(tree, boxes, (one, other) => {
    // Of most pairs one lies on one side of the other, which costs least to see.
    if (!isSplit(one, other) && !isSplit(other, one)) return;
    const place = crossingOf(cornersOf(one), cornersOf(other), deep);
    return place !== undefined && found.push(place) === MAX_FOUND;
  });
  return found;
}

/** Four numbers a facet: its normal of length 1, and how far its plane is from the origin; zeros where it has no size. */
function facetPlanes({ positions, triangles }: Mesh): Float64Array {
  const planes = new Float64Array((4 * triangles.length) / 3);
  for (let t = 0; t < triangles.length / 3; t++) {
    const [a, b, c] = [3 * triangles[3 * t]!, 3 * triangles[3 * t + 1]!, 3 * triangles[3 * t + 2]!];
    const [x, y, z] = [positions[a]!, positions[a + 1]!, positions[a + 2]!];
    const [ux, uy, uz] = [positions[b]! - x, positions[b + 1]! - y, positions[b + 2]! - z];
    const [vx, vy, vz] = [positions[c]! - x, positions[c + 1]! - y, positions[c + 2]! - z];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const size = Math.hypot(nx, ny, nz);
    if (size === 0) continue;
    planes[4 * t] = nx / size;
    planes[4 * t + 1] = ny / size;
    planes[4 * t + 2] = nz / size;
    planes[4 * t + 3] = (nx * x + ny * y + nz * z) / size;
  }
  return planes;
}

/** Tells whether the plane of one facet has corners of another more than `deep` on either side. */
function splitting(mesh: Mesh, deep: number): (plane: number, other: number) => boolean {
  const { positions, triangles } = mesh;
  const planes = facetPlanes(mesh);
  return (plane, other) => {
    const x = planes[4 * plane]!;
    const y = planes[4 * plane + 1]!;
    const z = planes[4 * plane + 2]!;
    const d = planes[4 * plane + 3]!;
    let [least, most] = [Infinity, -Infinity];
    for (let k = 0; k < 3; k++) {
      const i = 3 * triangles[3 * other + k]!;
      const off = x * positions[i]! + y * positions[i + 1]! + z * positions[i + 2]! - d;
      if (off < least) least = off;
      if (off > most) most = off;
    }
    return least < -deep && most > deep;
  };
}

/** Where an edge of one goes through the other, well within both; undefined where they share a corner. */
function crossingOf(a: Corners, b: Corners, deep: number): Vec3 | undefined {
  const near = (p: Vec3, q: Vec3) => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) <= deep;
  if (a.some((p) => b.some((q) => near(p, q)))) return undefined;
  for (const [edges, facet] of [
    [a, b],
    [b, a],
  ] as const)
    for (const [i, from] of edges.entries()) {
      const place = throughFacet(from, edges[(i + 1) % 3]!, facet, deep);
      if (place) return place;
    }
  return undefined;
}

function throughFacet(from: Vec3, to: Vec3, [a, b, c]: Corners, deep: number): Vec3 | undefined {
  const normal = cross(subtract(b, a), subtract(c, a));
  const size = Math.hypot(...normal);
  if (size === 0) return undefined;
  const [p, q] = [dot(subtract(from, a), normal) / size, dot(subtract(to, a), normal) / size];
  if (!(Math.min(p, q) < -deep && Math.max(p, q) > deep)) return undefined;
  const part = p / (p - q);
  const at = from.map((n, i) => n + part * (to[i]! - n)) as unknown as Vec3;
  const isWithin = [
    [a, b],
    [b, c],
    [c, a],
  ].every(([u, v]) => {
    const edge = subtract(v!, u!);
    return dot(cross(edge, subtract(at, u!)), normal) / size > deep * Math.hypot(...edge);
  });
  return isWithin ? at : undefined;
}
