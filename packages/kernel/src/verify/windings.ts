/** How facets wind round points just beside them. */
import type { Vec3 } from '@kadrel/core';
import { facetTree, type Mesh } from '../facts/mesh.ts';
import { windingNumber } from './winding.ts';

/** Points stand this part of the body's size off its facets: clear of the noise of single precision. */
const STEP = 4e-6;
interface Windings {
  /** Of a facet. */
  readonly middle: Vec3;
  /** A little inside it, and outside. */
  readonly inside: Vec3;
  readonly below: number;
  readonly above: number;
}

/** How often facets wind round points on both sides of so many of them, spread over all. */
export function windingsBeside(mesh: Mesh, max: number): Windings[] {
  const { positions, triangles } = mesh;
  const count = triangles.length / 3;
  if (count === 0) return [];
  const { tree } = facetTree(mesh);
  const points = Math.min(max, count);
  const step = STEP * sizeOf(positions);
  return Array.from({ length: points }, (_, s) => {
    const facet = facetOf(mesh, Math.floor(((s + 0.5) * count) / points));
    if (!facet || facet.height < 4 * step) return [];
    const { middle, outward } = facet;
    const at = (by: number): Vec3 => middle.map((n, i) => n + by * outward[i]!) as unknown as Vec3;
    const inside = at(-step);
    const [below, above] = [inside, at(step)].map((point) => windingNumber(mesh, tree, point));
    return [{ middle, inside, below: below!, above: above! }];
  }).flat();
}

function sizeOf(positions: Float32Array): number {
  let largest = 0;
  for (const n of positions) largest = Math.max(largest, Math.abs(n));
  return largest;
}

/** The middle of a facet, the way outward and its least height; undefined where it has no area. */
function facetOf({ positions, triangles }: Mesh, t: number) {
  const corner = (k: number): Vec3 => {
    const i = 3 * triangles[3 * t + k]!;
    return [positions[i]!, positions[i + 1]!, positions[i + 2]!];
  };
  const [a, b, c] = [corner(0), corner(1), corner(2)];
  const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  const normal: Vec3 = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const size = Math.hypot(...normal);
  if (size === 0) return undefined;
  const longest = Math.max(
    Math.hypot(ux, uy, uz),
    Math.hypot(vx, vy, vz),
    Math.hypot(ux - vx, uy - vy, uz - vz),
  );
  const middle = [0, 1, 2].map((i) => (a[i]! + b[i]! + c[i]!) / 3) as unknown as Vec3;
  return { middle, outward: normal.map((n) => n / size) as unknown as Vec3, height: size / longest };
}
