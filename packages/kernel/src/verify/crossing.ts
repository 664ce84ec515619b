/** Where a body runs through itself: facets that cross one another and have no corner in common. */
import { buildBvh, searchBvh, cross, dot, subtract, type Vec3 } from '@kadrel/core';
import { facetBoxes, type Mesh } from '../facts/mesh.ts';

/** More facets than this are not looked at pair by pair. */
const MOST_FACETS = 30_000;
/** Crossings that are told. */
const MOST_FOUND = 12;
/** Facets that pass through one another by less than this part of the body's size only touch, as far as single precision tells. */
const DEEP = 2e-6;

type Corners = readonly [Vec3, Vec3, Vec3];

/** Middles of the crossings, the first few. */
export function selfCrossings(mesh: Mesh): Vec3[] {
  const { positions, triangles } = mesh;
  const count = triangles.length / 3;
  if (count > MOST_FACETS) return [];
  const cornersOf = (t: number): Corners =>
    [0, 1, 2].map((k) => {
      const i = 3 * triangles[3 * t + k]!;
      return [positions[i]!, positions[i + 1]!, positions[i + 2]!] as const;
    }) as unknown as Corners;
  const boxes = facetBoxes(mesh);
  const tree = buildBvh(boxes);
  const deep = DEEP * positions.reduce((most, n) => Math.max(most, Math.abs(n)), 0);
  const found: Vec3[] = [];
  for (let t = 0; t < count && found.length < MOST_FOUND; t++) {
    const own = cornersOf(t);
    const box = boxes.subarray(6 * t, 6 * t + 6);
    searchBvh(
      tree,
      (bounds, at) =>
        [0, 1, 2].every((i) => bounds[at + i]! <= box[3 + i]! && bounds[at + 3 + i]! >= box[i]!),
      (other) => {
        // Each pair once.
        if (other <= t || found.length >= MOST_FOUND) return;
        const place = crossingOf(own, cornersOf(other), deep);
        if (place) found.push(place);
      },
    );
  }
  return found;
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
