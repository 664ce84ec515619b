/** What a plane cuts out of facets: the second opinion on cut faces. */
import { cross, dot, length, scale, subtract, unit, type Vec3 } from '@kadrel/core';
import type { Mesh } from '../facts/mesh.ts';

export interface Slice {
  /** mm² */
  readonly area: number;
  /** How far the true cut may be from that, mm². */
  readonly error: number;
}

/** Facets that the plane meets at less than this sine are as good as in it. */
const FLAT_SINE = 0.02;
/** The true surface is within so many chords of the facets. */
const CHORDS = 4;

/** The area within the facets on the plane normal · p = offset. Source: Green’s theorem, over the pieces of the border. */
export function sliceOf(
  mesh: Mesh,
  { normal, offset }: { readonly normal: Vec3; readonly offset: number },
): Slice {
  const { positions, triangles, chordMm } = mesh;
  const [x, y, z] = normal;
  const height = new Float64Array(positions.length / 3);
  for (let i = 0; i < height.length; i++)
    height[i] = x * positions[3 * i]! + y * positions[3 * i + 1]! + z * positions[3 * i + 2]! - offset;
  const at = (i: number): Vec3 => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
  const off = CHORDS * chordMm;
  let [area, error] = [0, 0];
  for (let t = 0; t < triangles.length; t += 3) {
    const [i, j, k] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    const heights = [height[i]!, height[j]!, height[k]!] as const;
    const [least, most] = [Math.min(...heights), Math.max(...heights)];
    if (least > off || most < -off) continue;
    const corners = [at(i), at(j), at(k)] as const;
    const across = cross(subtract(corners[1], corners[0]), subtract(corners[2], corners[0]));
    const double = length(across);
    if (double === 0) continue;
    const way = cross(normal, scale(across, 1 / double));
    const sine = length(way);
    // As flat as that, the facet may be on either side of the plane.
    if (sine < FLAT_SINE || most - least < off) error += double / 2;
    // Corners in the plane count as before it, so that the pieces close.
    if (most < 0 || least >= 0) continue;
    const [from, to] = crossing(corners, heights, unit(way));
    area += dot(normal, cross(from, to)) / 2;
    error += (length(subtract(to, from)) * off) / Math.max(sine, FLAT_SINE);
  }
  return { area, error };
}

/** Both ends of the line in which a facet meets the plane, with the inside on its left. */
function crossing(corners: readonly [Vec3, Vec3, Vec3], heights: readonly number[], way: Vec3): [Vec3, Vec3] {
  const ends: Vec3[] = [];
  for (let i = 0; i < 3; i++) {
    const k = (i + 1) % 3;
    const [a, b] = [heights[i]!, heights[k]!];
    if (a < 0 === b < 0) continue;
    const share = a / (a - b);
    ends.push(
      [0, 1, 2].map((n) => corners[i]![n]! + share * (corners[k]![n]! - corners[i]![n]!)) as unknown as Vec3,
    );
  }
  const [p, q] = ends as [Vec3, Vec3];
  return dot(subtract(q, p), way) >= 0 ? [p, q] : [q, p];
}
