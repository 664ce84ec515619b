/** Whether the facets that are drawn are those of the solid: a face that the kernel cannot lay out would be missing in silence. */
import { add, length, scale, subtract } from '@kadrel/core';
import type { Measures } from '../facts/measure.ts';
import { facetSlack, type Mesh } from '../facts/mesh.ts';

/** Normals of a facet's corners that differ by less than this are those of a plane: single precision is good for 1e-7. */
const SAME_NORMAL = 1e-5;
/** Positions are in single precision: volumes by them are off by so much of the size of the whole, at the most. */
const SINGLE = 1e-6;

/** Whether facets enclose what the solid does, give or take what lies between them and its true surface. */
export function isFacetted(mesh: Mesh, { volume, area, box }: Measures): boolean {
  const { positions, triangles } = mesh;
  const [fromX, fromY, fromZ] = scale(add(box.min, box.max), 0.5);
  const noise = SINGLE * (area * length(subtract(box.max, box.min)) + volume);
  let [enclosed, slack] = [0, noise];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const [x, y, z] = [positions[a]!, positions[a + 1]!, positions[a + 2]!];
    const [ux, uy, uz] = [positions[b]! - x, positions[b + 1]! - y, positions[b + 2]! - z];
    const [vx, vy, vz] = [positions[c]! - x, positions[c + 1]! - y, positions[c + 2]! - z];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    // A cone from the middle over the facet. Source: the divergence theorem.
    enclosed += (nx * (x - fromX) + ny * (y - fromY) + nz * (z - fromZ)) / 6;
    if (isFlat(mesh, a, b) && isFlat(mesh, a, c)) continue;
    const longest = Math.sqrt(
      Math.max(
        ux * ux + uy * uy + uz * uz,
        vx * vx + vy * vy + vz * vz,
        (ux - vx) ** 2 + (uy - vy) ** 2 + (uz - vz) ** 2,
      ),
    );
    slack += (Math.sqrt(nx * nx + ny * ny + nz * nz) / 2) * facetSlack(mesh.chordMm, longest);
  }
  return Math.abs(enclosed - volume) <= slack;
}

/** Whether two corners have one normal; where each begins in the numbers. */
const isFlat = ({ normals }: Mesh, one: number, other: number): boolean =>
  Math.abs(normals[one]! - normals[other]!) < SAME_NORMAL &&
  Math.abs(normals[one + 1]! - normals[other + 1]!) < SAME_NORMAL &&
  Math.abs(normals[one + 2]! - normals[other + 2]!) < SAME_NORMAL;
