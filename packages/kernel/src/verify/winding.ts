/** How often facets wind round a point: once inside a solid, never outside, twice where it overlaps itself. */
import { searchBvh, type Bvh, type Vec3 } from '@kadrel/core';

interface Facetted {
  /** 3·V, mm. */
  readonly positions: Float32Array;
  /** 3·T, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
}

/** Ways to look along, none of which lies in a plane that is drawn. Length 1. */
const WAYS: readonly Vec3[] = [
  [0.4571, 0.6389, 0.6188],
  [-0.7313, 0.2861, 0.6192],
  [0.1723, -0.8847, 0.4332],
];

/**
 * Two of three rays must agree, since one may run along an edge. Source: signed crossings of a ray, as in any textbook.
 * @param tree of the boxes of the facets
 */
export function windingNumber(facets: Facetted, tree: Bvh, point: Vec3): number {
  const along = (way: Vec3) => crossings(facets, tree, { point, way });
  const [first, second] = [along(WAYS[0]!), along(WAYS[1]!)];
  return first === second ? first : along(WAYS[2]!);
}

interface Ray {
  readonly point: Vec3;
  /** Length 1, no number 0. */
  readonly way: Vec3;
}

/** Facets that the ray leaves through count 1, those that it enters through −1. */
function crossings(facets: Facetted, tree: Bvh, ray: Ray): number {
  let winding = 0;
  searchBvh(
    tree,
    (bounds, at) => isMet(bounds, at, ray),
    (t) => {
      winding += crossing(facets, t, ray);
    },
  );
  return winding;
}

/** Source: the slabs of T. Kay, J. Kajiya, *Ray tracing complex scenes*, 1986. Boxes are a little larger than they say. */
function isMet(bounds: Float64Array, at: number, { point, way }: Ray): boolean {
  let [near, far] = [0, Infinity];
  for (let axis = 0; axis < 3; axis++) {
    const [low, high] = [bounds[at + axis]!, bounds[at + 3 + axis]!];
    const slack = SLACK * (Math.abs(low) + Math.abs(high));
    const [a, b] = [(low - slack - point[axis]!) / way[axis]!, (high + slack - point[axis]!) / way[axis]!];
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  return near <= far;
}
/** Far above the rounding of doubles, and next to nothing. */
const SLACK = 1e-12;

/**
 * 1 where the ray leaves through a facet, −1 where it enters. Written out number by number, since it runs some hundred thousand
 * times a body. Source: T. Möller, B. Trumbore, *Fast, minimum storage ray/triangle intersection*, 1997.
 */
function crossing({ positions, triangles }: Facetted, t: number, { point, way }: Ray): number {
  const i = 3 * triangles[3 * t]!;
  const j = 3 * triangles[3 * t + 1]!;
  const k = 3 * triangles[3 * t + 2]!;
  const [ax, ay, az] = [positions[i]!, positions[i + 1]!, positions[i + 2]!];
  const ux = positions[j]! - ax;
  const uy = positions[j + 1]! - ay;
  const uz = positions[j + 2]! - az;
  const vx = positions[k]! - ax;
  const vy = positions[k + 1]! - ay;
  const vz = positions[k + 2]! - az;
  const [dx, dy, dz] = way;
  const hx = dy * vz - dz * vy;
  const hy = dz * vx - dx * vz;
  const hz = dx * vy - dy * vx;
  const size = ux * hx + uy * hy + uz * hz;
  if (size === 0) return 0;
  const [sx, sy, sz] = [point[0] - ax, point[1] - ay, point[2] - az];
  const u = (sx * hx + sy * hy + sz * hz) / size;
  if (u < 0 || u > 1) return 0;
  const qx = sy * uz - sz * uy;
  const qy = sz * ux - sx * uz;
  const qz = sx * uy - sy * ux;
  const v = (dx * qx + dy * qy + dz * qz) / size;
  if (v < 0 || u + v > 1) return 0;
  if ((vx * qx + vy * qy + vz * qz) / size <= 0) return 0;
  return size < 0 ? 1 : -1;
}
