/**
 * OBJ out: facets as text, one object for each solid. Corners are shared, so that what is watertight stays so. Source: the published
 * description of the format, “Advanced Visualizer Manual”, appendix B1 (1995), from memory: `v`, `o`, `f`, corners counted from 1 over the
 * whole file.
 */
import { carry } from '@kadrel/core';
import type { ExportedMesh, SolidExporter } from './declare.ts';

/** Facets as OBJ. */
export const obj: SolidExporter = {
  format: 'obj',
  name: 'OBJ',
  about: 'Facets as text, an object for each solid, in millimetres, Z upward.',
  extensions: ['.obj'],
  mime: 'model/obj',
  holds: 'solids',
  hasChord: true,
  write: (_, solids) => writeObj(solids.meshes()),
};

/** Digits of a coordinate: as many as single precision holds. */
const DIGITS = 9;

/** The text of an OBJ file, mm. */
export function writeObj(meshes: readonly ExportedMesh[]): string {
  const lines = ['# Kadrel, millimetres, Z upward'];
  let before = 0;
  for (const { name, pose, mesh } of meshes) {
    const { corners, faces } = joined(mesh.positions, mesh.triangles);
    lines.push(`o ${name.replaceAll(/\s+/g, '_')}`);
    for (const corner of corners)
      lines.push(
        `v ${carry(pose, corner)
          .map((n) => Number(n.toPrecision(DIGITS)))
          .join(' ')}`,
      );
    for (const face of faces) lines.push(`f ${face.map((corner) => corner + before + 1).join(' ')}`);
    before += corners.length;
  }
  return `${lines.join('\n')}\n`;
}

type Corner = readonly [number, number, number];

/** Corners that several faces have, once; facets that come to nothing are left out. */
function joined(positions: Float32Array, triangles: Uint32Array) {
  const places = new Map<string, number>();
  const corners: Corner[] = [];
  const indexOf = (vertex: number): number => {
    const corner: Corner = [positions[3 * vertex]!, positions[3 * vertex + 1]!, positions[3 * vertex + 2]!];
    const place = corner.join(' ');
    const known = places.get(place);
    if (known !== undefined) return known;
    places.set(place, corners.length);
    return corners.push(corner) - 1;
  };
  const faces = Array.from({ length: triangles.length / 3 }, (_, t) =>
    [0, 1, 2].map((k) => indexOf(triangles[3 * t + k]!)),
  );
  return { corners, faces: faces.filter((face) => new Set(face).size === 3) };
}
