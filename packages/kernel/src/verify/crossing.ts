/** Where a body runs through itself: facets that cross one another and have no corner in common. */
import { buildBvh, searchBvh, cross, dot, subtract, type Vec3 } from '@kadrel/core';
import { facetBoxes, type Mesh } from '../facts/mesh.ts';

/** More facets than this are not looked at pair by pair. */
const MAX_FACETS = 30_000;
/** Crossings that are reported. */
const MAX_FOUND = 12;
/** Facets that pass through one another by less than this part of the body's size only touch, as far as single precision tells. */
const DEEP = 2e-6;

type Corners = readonly [Vec3, Vec3, Vec3];

/** Middles of the crossings, the first few. */
export function selfCrossings(mesh: Mesh): Vec3[] {
  const { positions, triangles } = mesh;
  const count = triangles.length / 3;
  if (count > MAX_FACETS) return [];
  const cornersOf = (t: number): Corners =>
    [0, 1, 2].map((k) => {
      const i = 3 * triangles[3 * t + k]!;
      return [positions[i]!, positions[i + 1]!, positions[i + 2]!] as const;
    }) as unknown as Corners;
  const boxes = facetBoxes(mesh);
  const tree = buildBvh(boxes);
  const planes = facetPlanes(mesh);
  const deep = DEEP * positions.reduce((max, n) => Math.max(max, Math.abs(n)), 0);
  const found: Vec3[] = [];
  for (let t = 0; t < count && found.length < MAX_FOUND; t++) {
    const box = boxes.subarray(6 * t, 6 * t + 6);
    searchBvh(
      tree,
      (bounds, at) => isMet(bounds, at, box),
      (other) => {
        // Each pair once. Of most pairs one lies on one side of the other, which costs least to see.
        if (other <= t || found.length >= MAX_FOUND || !isMet(boxes, 6 * other, box)) return;
        if (!isSplit(mesh, planes, [t, other, deep]) && !isSplit(mesh, planes, [other, t, deep])) return;
        const place = crossingOf(cornersOf(t), cornersOf(other), deep);
        if (place) found.push(place);
      },
    );
  }
  return found;
}

const isMet = (bounds: Float64Array, at: number, box: Float64Array): boolean =>
  bounds[at]! <= box[3]! &&
  bounds[at + 3]! >= box[0]! &&
  bounds[at + 1]! <= box[4]! &&
  bounds[at + 4]! >= box[1]! &&
  bounds[at + 2]! <= box[5]! &&
  bounds[at + 5]! >= box[2]!;

/** Four numbers a facet: its normal of length 1, and how far its plane is from the origin; zeros where it has no size. */
function facetPlanes({ positions, triangles }: Mesh): Float64Array {
  const planes = new Float64Array((4 * triangles.length) / 3);
  for (let t = 0; t < triangles.length / 3; t++) {
    const [a, b, c] = [0, 1, 2].map((k): Vec3 => {
      const i = 3 * triangles[3 * t + k]!;
      return [positions[i]!, positions[i + 1]!, positions[i + 2]!];
    }) as [Vec3, Vec3, Vec3];
    const normal = cross(subtract(b, a), subtract(c, a));
    const size = Math.hypot(...normal);
    if (size > 0) planes.set([...normal.map((n) => n / size), dot(normal, a) / size], 4 * t);
  }
  return planes;
}

/** Whether the plane of one facet has corners of another more than `deep` on either side. */
function isSplit(
  { positions, triangles }: Mesh,
  planes: Float64Array,
  [plane, other, deep]: readonly [plane: number, other: number, deep: number],
): boolean {
  const [x, y, z, d] = [
    planes[4 * plane]!,
    planes[4 * plane + 1]!,
    planes[4 * plane + 2]!,
    planes[4 * plane + 3]!,
  ];
  let [least, most] = [Infinity, -Infinity];
  for (let k = 0; k < 3; k++) {
    const i = 3 * triangles[3 * other + k]!;
    const off = x * positions[i]! + y * positions[i + 1]! + z * positions[i + 2]! - d;
    if (off < least) least = off;
    if (off > most) most = off;
  }
  return least < -deep && most > deep;
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
