/** Planes and rays, and where they meet. Directions need not have length 1 unless said. */
import { along, cross, dot, subtract, type Vec3 } from './vector.ts';

export interface Ray {
  readonly from: Vec3;
  /** Length 1. */
  readonly direction: Vec3;
}

export interface Plane {
  readonly point: Vec3;
  /** Length 1. */
  readonly normal: Vec3;
}

/** Two directions closer to parallel than this (sine of the angle) have no usable meeting point. */
const PARALLEL_SINE = 1e-9;

/** Distance along the ray to the plane, negative behind its start; undefined when parallel. */
export function rayToPlane(ray: Ray, plane: Plane): number | undefined {
  const slant = dot(ray.direction, plane.normal);
  if (Math.abs(slant) < PARALLEL_SINE) return undefined;
  return dot(subtract(plane.point, ray.from), plane.normal) / slant;
}

/**
 * The parameter s of the point `from + s·direction` of a line that is nearest to the ray's line; undefined when parallel.
 * `direction` has length 1. Source: Ericson, Real-Time Collision Detection (2005), 5.1.8.
 */
export function nearestOnLine(from: Vec3, direction: Vec3, ray: Ray): number | undefined {
  const across = cross(direction, ray.direction);
  const sine2 = dot(across, across);
  if (sine2 < PARALLEL_SINE ** 2) return undefined;
  return dot(cross(subtract(ray.from, from), ray.direction), across) / sine2;
}

export const pointOnRay = (ray: Ray, distance: number): Vec3 => along(ray.from, ray.direction, distance);
