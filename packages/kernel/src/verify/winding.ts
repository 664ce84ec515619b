/** How often facets wind round a point: once inside a solid, never outside, twice where it overlaps itself. */
import type { Vec3 } from '@kadrel/core';

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

/** Two of three rays must agree, since one may run along an edge. Source: signed crossings of a ray, as in any textbook. */
export function windingNumber(facets: Facetted, point: Vec3): number {
  const [first, second] = [crossings(facets, point, WAYS[0]!), crossings(facets, point, WAYS[1]!)];
  return first === second ? first : crossings(facets, point, WAYS[2]!);
}

/**
 * Facets that the ray leaves through count 1, those that it enters through −1. Written out number by number, since it runs some
 * hundred thousand times a body. Source: T. Möller, B. Trumbore, *Fast, minimum storage ray/triangle intersection*, 1997.
 */
function crossings({ positions, triangles }: Facetted, point: Vec3, way: Vec3): number {
  const px = point[0];
  const py = point[1];
  const pz = point[2];
  const dx = way[0];
  const dy = way[1];
  const dz = way[2];
  let winding = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const i = 3 * triangles[t]!;
    const j = 3 * triangles[t + 1]!;
    const k = 3 * triangles[t + 2]!;
    const ax = positions[i]!;
    const ay = positions[i + 1]!;
    const az = positions[i + 2]!;
    const ux = positions[j]! - ax;
    const uy = positions[j + 1]! - ay;
    const uz = positions[j + 2]! - az;
    const vx = positions[k]! - ax;
    const vy = positions[k + 1]! - ay;
    const vz = positions[k + 2]! - az;
    const hx = dy * vz - dz * vy;
    const hy = dz * vx - dx * vz;
    const hz = dx * vy - dy * vx;
    const size = ux * hx + uy * hy + uz * hz;
    if (size === 0) continue;
    const sx = px - ax;
    const sy = py - ay;
    const sz = pz - az;
    const u = (sx * hx + sy * hy + sz * hz) / size;
    if (u < 0 || u > 1) continue;
    const qx = sy * uz - sz * uy;
    const qy = sz * ux - sx * uz;
    const qz = sx * uy - sy * ux;
    const v = (dx * qx + dy * qy + dz * qz) / size;
    if (v < 0 || u + v > 1) continue;
    if ((vx * qx + vy * qy + vz * qz) / size > 0) winding += size < 0 ? 1 : -1;
  }
  return winding;
}
