/** Where a solid is, told by its facets, where no formula is known. Near its surface, within the facets' chord, it is not known. */
import type { Vec3 } from '@kadrel/core';
import type { Mesh } from '../facts/mesh.ts';
import type { Field } from './distance.ts';
import { windingNumber } from './winding.ts';

/** Facets beyond this many are not asked: it would take too long for every point. */
const MOST_FACETS = 20_000;

export function meshField(mesh: Mesh): Field | undefined {
  const { positions, triangles, chordMm } = mesh;
  if (triangles.length / 3 > MOST_FACETS) return undefined;
  const { centre, radius } = ballOf(positions);
  const doubt = 2 * chordMm + 1e-6 * radius;
  return {
    centre,
    radius: radius + doubt,
    at: (point) => {
      const gap = Math.sqrt(leastSquare(mesh, point));
      if (gap < doubt) return NaN;
      return windingNumber(mesh, point) > 0 ? -gap : gap;
    },
  };
}

function ballOf(positions: Float32Array): { centre: Vec3; radius: number } {
  const [min, max] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (let i = 0; i < positions.length; i++) {
    const axis = i % 3;
    min[axis] = Math.min(min[axis]!, positions[i]!);
    max[axis] = Math.max(max[axis]!, positions[i]!);
  }
  const centre = [0, 1, 2].map((axis) => (min[axis]! + max[axis]!) / 2) as unknown as Vec3;
  return { centre, radius: Math.hypot(...max.map((n, axis) => (n - min[axis]!) / 2)) };
}

/** The square of the distance from the nearest facet. Source: C. Ericson, *Real-Time Collision Detection*, 2005, 5.1.5. */
function leastSquare({ positions, triangles }: Mesh, [px, py, pz]: Vec3): number {
  let least = Infinity;
  for (let t = 0; t < triangles.length; t += 3) {
    const i = 3 * triangles[t]!;
    const j = 3 * triangles[t + 1]!;
    const k = 3 * triangles[t + 2]!;
    least = Math.min(least, squareTo(positions, [i, j, k], [px, py, pz]));
  }
  return least;
}

function squareTo(positions: Float32Array, corners: readonly [number, number, number], point: Vec3): number {
  const at = (i: number): Vec3 => [
    positions[i]! - point[0],
    positions[i + 1]! - point[1],
    positions[i + 2]! - point[2],
  ];
  const [a, b, c] = [at(corners[0]), at(corners[1]), at(corners[2])];
  const ab: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const ac: Vec3 = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  const [d1, d2] = [-dot(ab, a), -dot(ac, a)];
  const [e, f, g] = [dot(ab, ab), dot(ab, ac), dot(ac, ac)];
  const size = e * g - f * f;
  if (size > 0) {
    const [v, w] = [(g * d1 - f * d2) / size, (e * d2 - f * d1) / size];
    if (v >= 0 && w >= 0 && v + w <= 1)
      return square([
        a[0] + v * ab[0] + w * ac[0],
        a[1] + v * ab[1] + w * ac[1],
        a[2] + v * ab[2] + w * ac[2],
      ]);
  }
  return Math.min(squareToPiece(a, b), squareToPiece(b, c), squareToPiece(c, a));
}

function squareToPiece(a: Vec3, b: Vec3): number {
  const ab: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const size = dot(ab, ab);
  const part = size === 0 ? 0 : Math.max(0, Math.min(1, -dot(ab, a) / size));
  return square([a[0] + part * ab[0], a[1] + part * ab[1], a[2] + part * ab[2]]);
}

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const square = (a: Vec3) => dot(a, a);
