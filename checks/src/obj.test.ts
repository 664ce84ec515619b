/** OBJ files against an independent reader (three). */
import { loadKernel } from '@kadrel/kernel/node';
import { Mesh, Vector3 } from 'three';
import { OBJLoader } from 'three/addons/loaders/OBJLoader.js';
import { built, idOf, type Statement } from '@kadrel/testing';

const STATEMENTS: Statement[] = [
  ['box', { as: 'plate', size: [40, 30, 8], at: [5, 0, 0] }],
  ['cylinder', { as: 'drill', diameter: 10, height: 20, at: [25, 15, -5] }],
  ['subtract', { as: 'holed plate', from: 'plate', parts: ['drill'] }],
  ['turn', { parts: ['holed plate'], about: 'x', angle: 30, centre: 'point', at: [0, 0, 0] }],
  ['sphere', { as: 'ball', diameter: 12, at: [-40, 0, 0] }],
];

/** Six tetrahedra to a box: by the divergence theorem. */
function volumeOf({ geometry }: Mesh): number {
  const at = geometry.getAttribute('position');
  const corner = (i: number) => new Vector3().fromBufferAttribute(at, i);
  let sum = 0;
  for (let i = 0; i < at.count; i += 3) sum += corner(i).dot(corner(i + 1).cross(corner(i + 2)));
  return sum / 6;
}

test('objects have the names, volumes and places of the parts, and every edge has two faces', async () => {
  const kernel = await loadKernel();
  const document = built(STATEMENTS);
  const parts = ['holed plate', 'ball'].map((name) => idOf(document, name));
  const text = kernel.exported('obj', { document, parts, chordMm: 0.05, time: '' }) as string;
  const meshes = new OBJLoader().parse(text).children as Mesh[];
  expect(meshes.map(({ name }) => name)).toEqual(['holed_plate', 'ball']);
  meshes.forEach((mesh, i) => {
    const { volume, area, box } = kernel.measure(document, parts[i]!);
    // Facets are off by a chord at the most.
    expect(Math.abs(volumeOf(mesh) - volume)).toBeLessThan(0.05 * area);
    mesh.geometry.computeBoundingBox();
    const { min, max } = mesh.geometry.boundingBox!;
    expect(
      [...min.toArray(), ...max.toArray()].map((n, k) => Math.abs(n - [...box.min, ...box.max][k]!)),
    ).toEqual(Array.from({ length: 6 }, () => expect.closeTo(0, 1) as number));
  });
  const edges = new Map<string, number>();
  for (const [, a, b, c] of text.matchAll(/^f (\d+) (\d+) (\d+)$/gm))
    for (const edge of [
      [a, b],
      [b, c],
      [c, a],
    ])
      edges.set(edge.join('>'), (edges.get(edge.join('>')) ?? 0) + 1);
  const open = [...edges].filter(
    ([edge, uses]) => uses !== 1 || edges.get(edge.split('>').reverse().join('>')) !== 1,
  );
  expect(edges.size).toBeGreaterThan(100);
  expect(open).toEqual([]);
});
