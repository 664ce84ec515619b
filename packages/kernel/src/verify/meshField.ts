/** Where a solid is, by its facets, where no formula is known. Near its surface, within the facets' chord, it is not known. */
import { searchBvh, type Bvh, type Vec3 } from '@kadrel/core';
import { facetTree, type Mesh } from '../facts/mesh.ts';
import type { Field } from './distance.ts';
import { windingNumber } from './winding.ts';

/** Solids with more facets than this are not asked: their tree takes seconds. */
const MAX_FACETS = 500_000;

export function meshField(mesh: Mesh): Field | undefined {
  const { positions, triangles, chordMm } = mesh;
  if (triangles.length / 3 > MAX_FACETS) return undefined;
  const { centre, radius } = ballOf(positions);
  const doubt = 2 * chordMm + 1e-6 * radius;
  const { tree } = facetTree(mesh);
  const minSquare = nearestFacet(mesh, tree);
  return {
    centre,
    radius: radius + doubt,
    at: (point) => {
      const gap = Math.sqrt(minSquare(point));
      if (gap < doubt) return NaN;
      return windingNumber(mesh, tree, point) > 0 ? -gap : gap;
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

/** The square of the distance from the nearest facet. Source: C. Ericson, *Real-Time Collision Detection*, 2005, 5.1.5 and 6.2. */
function nearestFacet({ positions, triangles }: Mesh, tree: Bvh): (point: Vec3) => number {
  const squareOf = (t: number, point: Vec3) =>
    squareTo(positions, [3 * triangles[3 * t]!, 3 * triangles[3 * t + 1]!, 3 * triangles[3 * t + 2]!], point);
  // Points are asked for in order, so that what was nearest to the last one is near to the next.
  let nearest = 0;
  return (point) => {
    let min = squareOf(nearest, point);
    searchBvh(
      tree,
      (bounds, at) => squareToBox(bounds, at, point) < min,
      (t) => {
        const square = squareOf(t, point);
        if (square < min) [min, nearest] = [square, t];
      },
    );
    return min;
  };
}

function squareToBox(bounds: Float64Array, at: number, point: Vec3): number {
  let sum = 0;
  for (let axis = 0; axis < 3; axis++) {
    const beyond = Math.max(bounds[at + axis]! - point[axis]!, point[axis]! - bounds[at + 3 + axis]!, 0);
    sum += beyond * beyond;
  }
  return sum;
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
