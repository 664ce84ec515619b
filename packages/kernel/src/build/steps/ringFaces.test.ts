import { cross, dot, subtract, type Vec3 } from '@kadrel/core';
import { ringFaces } from './ringFaces.ts';

const UP: Vec3 = [0, 0, 1];
const polygon = (corners: number, radius: number, from = 0): Vec3[] =>
  Array.from({ length: corners }, (_, i): Vec3 => {
    const angle = ((from + (360 * i) / corners) * Math.PI) / 180;
    return [radius * Math.cos(angle), radius * Math.sin(angle), 4];
  });
const backwards = (loop: readonly Vec3[]): Vec3[] => [...loop].reverse();

const areaOf = (face: readonly Vec3[]): number =>
  face.reduce((sum, at, i) => {
    const next = face[(i + 1) % face.length]!;
    return sum + dot(cross(subtract(at, face[0]!), subtract(next, face[0]!)), UP) / 2;
  }, 0);
const regular = (corners: number, radius: number) =>
  (corners / 2) * radius ** 2 * Math.sin((2 * Math.PI) / corners);

test('a square round a square is four quads', () => {
  const faces = ringFaces({ border: polygon(4, 30, 45), hole: backwards(polygon(4, 10, 45)), normal: UP })!;
  expect(faces.map(({ length }) => length)).toEqual([4, 4, 4, 4]);
});

test.each([
  [4, 6],
  [6, 4],
  [12, 5],
  [3, 8],
])('%i corners round %i: triangles and quads that fill what lies between', (outer, inner) => {
  const faces = ringFaces({
    border: polygon(outer, 40),
    hole: backwards(polygon(inner, 8, 7)),
    normal: UP,
  })!;
  expect(faces).toHaveLength(Math.max(outer, inner));
  expect(Math.min(...faces.map(areaOf))).toBeGreaterThan(0);
  const area = faces.reduce((sum, face) => sum + areaOf(face), 0);
  expect(area).toBeCloseTo(regular(outer, 40) - regular(inner, 8), 9);
});

test('a border that turns back as seen from the hole is left alone', () => {
  const border: Vec3[] = [
    [-20, -20, 0],
    [60, -20, 0],
    [60, 60, 0],
    [50, 60, 0],
    [50, -10, 0],
    [-20, 20, 0],
  ];
  const hole: Vec3[] = backwards(polygon(4, 3)).map(([x, y]) => [x - 10, y, 0]);
  expect(ringFaces({ border, hole, normal: UP })).toBeUndefined();
});
