/** Whether the facets that are drawn are those of the solid: a face that the kernel cannot lay out would be missing in silence. */
import { add, cross, dot, length, scale, subtract, type Vec3 } from '@kadrel/core';
import type { Measures } from '../facts/measure.ts';
import { facetSlack, type Mesh } from '../facts/mesh.ts';

/** Normals of a facet's corners that differ by less than this are those of a plane: single precision is good for 1e-7. */
const SAME_NORMAL = 1e-5;
/** Positions are in single precision: volumes by them are off by so much of the size of the whole, at the most. */
const SINGLE = 1e-6;

/** Whether facets enclose what the solid does, give or take what lies between them and its true surface. */
export function isFacetted(mesh: Mesh, { volume, area, box }: Measures): boolean {
  const from = scale(add(box.min, box.max), 0.5);
  const size = length(subtract(box.max, box.min));
  let [enclosed, slack] = [0, SINGLE * (area * size + volume)];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = cornersOf(mesh, t, from);
    const normal = cross(subtract(b, a), subtract(c, a));
    enclosed += dot(a, cross(b, c)) / 6;
    if (!isFlat(mesh, t)) slack += (length(normal) / 2) * facetSlack(mesh.chordMm, sizeOf([a, b, c]));
  }
  return Math.abs(enclosed - volume) <= slack;
}

type Triangle = readonly [Vec3, Vec3, Vec3];

const cornersOf = ({ positions, triangles }: Mesh, t: number, from: Vec3): Triangle =>
  [0, 1, 2].map((k) => {
    const at = 3 * triangles[t + k]!;
    return [positions[at]! - from[0], positions[at + 1]! - from[1], positions[at + 2]! - from[2]];
  }) as unknown as Triangle;

const sizeOf = ([a, b, c]: Triangle): number =>
  Math.max(length(subtract(b, a)), length(subtract(c, b)), length(subtract(a, c)));

function isFlat({ normals, triangles }: Mesh, t: number): boolean {
  const [i, ...others] = [0, 1, 2].map((k) => 3 * triangles[t + k]!);
  return others.every((j) =>
    [0, 1, 2].every((axis) => Math.abs(normals[i! + axis]! - normals[j + axis]!) < SAME_NORMAL),
  );
}
