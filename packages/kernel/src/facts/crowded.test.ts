import {
  cross,
  distance,
  dot,
  emptyDocument,
  subtract,
  turnOfDegrees,
  type KadrelDocument,
  type Typed,
  type Vec3,
} from '@kadrel/core';
import { said } from '@kadrel/testing';
import { Evaluator, faceNamesOf } from '../evaluate.ts';
import { buildMirrored } from '../build/steps/mirror.ts';
import { sharedLibraries } from '../node.ts';
import { copied, release, scope, type TopoDS_Shape } from '../occt/occt.ts';
import { integralsOf } from './integrals.ts';
import { meshShape, outlineShape } from './mesh.ts';

let libraries: Awaited<ReturnType<typeof sharedLibraries>>;
let evaluator: Evaluator;
beforeAll(async () => {
  libraries = await sharedLibraries();
  evaluator = new Evaluator(libraries);
});

const after = (document: KadrelDocument, verb: string, typed: Typed) => said(document, verb, typed).document;

/** A plate with so many columns of eleven holes ⌀6. */
function sieve(columns: number) {
  let document = emptyDocument();
  document = after(document, 'box', { as: 'plate', size: ['300', '220', '8'] });
  document = after(document, 'cylinder', {
    as: 'drill',
    diameter: '6',
    height: '20',
    at: ['20', '15', '-5'],
  });
  const grid = { columns: String(columns), columnPitch: '20', rows: '11', rowPitch: '17' };
  document = after(document, 'grid', { as: 'drills', parts: ['drill'], ...grid });
  document = after(document, 'subtract', { as: 'sieve', from: 'plate', parts: ['drills'] });
  const { id } = Object.values(document.items).find(({ name }) => name === 'sieve')!;
  return { ...evaluator.facts(document, id), measures: evaluator.measure(document, id) };
}

/** Volume within facets, mm³, by the divergence theorem. */
function volumeWithin(positions: Float32Array, triangles: Uint32Array): number {
  let sum = 0;
  const at = (i: number) => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!] as const;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [at(triangles[t]!), at(triangles[t + 1]!), at(triangles[t + 2]!)];
    sum +=
      (a[0] * (b[1] * c[2] - b[2] * c[1]) +
        a[1] * (b[2] * c[0] - b[0] * c[2]) +
        a[2] * (b[0] * c[1] - b[1] * c[0])) /
      6;
  }
  return sum;
}

/** Edges of facets that do not lie between exactly two, once each way. */
function openEdges(positions: Float32Array, triangles: Uint32Array): number {
  const place = (i: number) => positions.subarray(3 * i, 3 * i + 3).join(' ');
  const uses = new Map<string, number>();
  for (let t = 0; t < triangles.length; t += 3)
    for (const [a, b] of [
      [0, 1],
      [1, 2],
      [2, 0],
    ] as const) {
      const key = `${place(triangles[t + a]!)} | ${place(triangles[t + b]!)}`;
      uses.set(key, (uses.get(key) ?? 0) + 1);
    }
  return [...uses].filter(
    ([key, count]) => count !== 1 || uses.get(key.split(' | ').reverse().join(' | ')) !== 1,
  ).length;
}

test('flat faces with many holes are laid out in facets that close, face outward and know their face', () => {
  const facts = sieve(13);
  const { measures } = facts;
  const { positions, triangles, faceOfTriangle } = facts.snaps;
  expect(openEdges(positions, triangles)).toBe(0);
  // Circles of at least 21 chords hold at least 0.985 of their area, so that holes are a little too small.
  const holes = 143 * Math.PI * 9 * 8;
  const volume = volumeWithin(positions, triangles);
  expect(volume).toBeGreaterThan(measures.volume);
  expect(volume).toBeLessThan(measures.volume + 0.015 * holes);
  const top = faceNamesOf(facts).indexOf('top');
  const heights = new Set<number>();
  for (let t = 0; t < faceOfTriangle.length; t++)
    if (faceOfTriangle[t] === top) heights.add(positions[3 * triangles[3 * t]! + 2]!);
  expect([...heights]).toEqual([8]);
});

test('a face with few holes is left to the kernel, and closes too', () => {
  const { snaps } = sieve(2);
  expect(openEdges(snaps.positions, snaps.triangles)).toBe(0);
});

/** A disc ⌀200 and 5 thick with `count` holes ⌀4 in rings, by the bare kernel. */
function disc(count: number): TopoDS_Shape {
  const { occt } = libraries;
  return scope((keep) => {
    const up = keep(new occt.gp_Dir(0, 0, 1));
    const circle = (x: number, y: number, radius: number) => {
      const axes = keep(new occt.gp_Ax2(keep(new occt.gp_Pnt(x, y, 0)), up));
      const edge = keep(keep(new occt.BRepBuilderAPI_MakeEdge(keep(new occt.gp_Circ(axes, radius)))).Edge());
      return keep(keep(new occt.BRepBuilderAPI_MakeWire(edge)).Wire());
    };
    const face = keep(new occt.BRepBuilderAPI_MakeFace(circle(0, 0, 100), true));
    for (let i = 0; i < count; i++) {
      const [angle, far] = [0.7 * i, 10 + (80 * i) / count];
      const hole = circle(far * Math.cos(angle), far * Math.sin(angle), HOLE_RADIUS);
      face.Add(keep(occt.TopoDS.Wire(keep(hole.Reversed()))));
    }
    const way = keep(new occt.gp_Vec(0, 0, 5));
    return keep(new occt.BRepPrimAPI_MakePrism(keep(face.Face()), way, false, true)).Shape();
  });
}
const HOLE_RADIUS = 1;

test.each([
  ['as it is', (shape: TopoDS_Shape) => shape],
  [
    'turned',
    (shape: TopoDS_Shape) =>
      copied(libraries.occt, shape, { turn: turnOfDegrees([20, 70, -35]), shift: [3, -4, 50] }),
  ],
  ['mirrored', (shape: TopoDS_Shape) => buildMirrored(libraries.occt, { shape, faceNames: [] }).shape],
] as const)('a disc of nothing but crowded faces and round ones, %s', (_, placed) => {
  const count = 130;
  const shape = placed(disc(count));
  const chord = 0.02;
  const { positions, normals, triangles, faceOfTriangle } = meshShape(libraries.occt, shape, chord);
  expect(openEdges(positions, triangles)).toBe(0);
  expect(new Set(faceOfTriangle).size).toBe(count + 3);
  const exact = integralsOf(libraries.occt, shape).volume;
  // Facets are a chord off at most, on as much as is round.
  const round = 5 * 2 * Math.PI * (100 + count * HOLE_RADIUS);
  expect(Math.abs(volumeWithin(positions, triangles) - exact)).toBeLessThan(round * chord);
  // Each normal looks to the side from which its facet runs counter-clockwise.
  const at = (list: Float32Array, i: number): Vec3 => [list[3 * i]!, list[3 * i + 1]!, list[3 * i + 2]!];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(positions, triangles[t + k]!)) as [Vec3, Vec3, Vec3];
    expect(dot(cross(subtract(b, a), subtract(c, a)), at(normals, triangles[t]!))).toBeGreaterThan(0);
  }
  const outline = outlineShape(libraries.occt, shape, { chordMm: chord, isDrawn: () => true });
  const length = Array.from({ length: outline.length / 6 }, (_unused, i) =>
    distance(at(outline, 2 * i), at(outline, 2 * i + 1)),
  ).reduce((sum, one) => sum + one, 0);
  // Seams are left out where they are laid out apart.
  const circles = 2 * 2 * Math.PI * (100 + count * HOLE_RADIUS);
  expect(length / circles).toBeGreaterThan(0.98);
  expect(length / circles).toBeLessThan(1.001);
  release(libraries.occt, shape);
});
