/** Binary STL out: 80 bytes of header, a 32-bit count, 50 bytes a triangle, little-endian (de-facto STL description). */
import { carry, type Pose } from '@kadrel/core';
import type { Mesh } from '../facts/mesh.ts';
import type { ExportedMesh, SolidExporter } from './declare.ts';

const HEADER_BYTES = 80;
const TRIANGLE_BYTES = 50;

/** Facets as binary STL. */
export const stl: SolidExporter = {
  format: 'stl',
  name: 'STL',
  about: 'Facets for printing, binary, in millimetres.',
  extensions: ['.stl'],
  mime: 'model/stl',
  holds: 'solids',
  hasChord: true,
  write: (_, solids) => writeStl(solids.meshes()),
};

/** One file for all meshes, in world millimetres. Facets without area, which single precision can make, are left out. */
function writeStl(meshes: readonly Pick<ExportedMesh, 'mesh' | 'pose'>[]): Uint8Array {
  const facets = meshes.flatMap(({ mesh, pose }) => facetsOf(mesh, pose));
  const bytes = new Uint8Array(HEADER_BYTES + 4 + TRIANGLE_BYTES * facets.length);
  bytes.set(new TextEncoder().encode('Kadrel binary STL, millimetres'));
  const view = new DataView(bytes.buffer);
  view.setUint32(HEADER_BYTES, facets.length, true);
  facets.forEach((numbers, i) => {
    const at = HEADER_BYTES + 4 + TRIANGLE_BYTES * i;
    numbers.forEach((n, k) => view.setFloat32(at + 4 * k, n, true));
  });
  return bytes;
}

/** Twelve numbers a facet: normal, then the corners, counter-clockwise seen from outside. */
function facetsOf({ positions, triangles }: Mesh, pose: Pose): number[][] {
  const corner = (v: number) =>
    carry(pose, [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!]).map(Math.fround);
  const facets: number[][] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [corner(triangles[t]!), corner(triangles[t + 1]!), corner(triangles[t + 2]!)];
    const [u, v] = [b.map((n, i) => n - a[i]!), c.map((n, i) => n - a[i]!)];
    const normal = [
      u[1]! * v[2]! - u[2]! * v[1]!,
      u[2]! * v[0]! - u[0]! * v[2]!,
      u[0]! * v[1]! - u[1]! * v[0]!,
    ];
    const size = Math.hypot(...normal);
    if (size > 0) facets.push([...normal.map((n) => n / size), ...a, ...b, ...c]);
  }
  return facets;
}
