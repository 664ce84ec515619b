import type { Vec3 } from '../space/vector.ts';
import { bedTurn, fitsBed } from './bed.ts';
import { massOf } from '../document/materials.ts';
import { facetCorners, type Corners } from '../snapping/facetCorners.ts';
import { areaOf, piecesOf, spreadFacets } from './pieces.ts';
import { footingOf, hullOf, islandsOf, overhangOf } from './standing.ts';

/** Facets of a box, against the clock seen from outside. */
function boxFacets([x, y, z]: Vec3, [w, d, h]: Vec3): Corners[] {
  const at = (i: number): Vec3 => [x + (i & 1) * w, y + ((i >> 1) & 1) * d, z + ((i >> 2) & 1) * h];
  const sides = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ];
  return sides.flatMap(([a, b, c, e]): Corners[] => [
    [at(a!), at(b!), at(c!)],
    [at(a!), at(c!), at(e!)],
  ]);
}

/** Packed as shapes are; a face each two facets. */
const packed = (facets: readonly Corners[]) => ({
  positions: Float32Array.from(facets.flat(2)),
  triangles: Uint32Array.from(facets.flat().keys()),
  faceOfTriangle: Uint32Array.from(facets, (_, t) => Math.floor(t / 2)),
});

test('pieces fill their facets, and are of about one size', () => {
  const shape = packed(boxFacets([0, 0, 0], [40, 30, 2]));
  const pieces = piecesOf(shape);
  const area = pieces.reduce((sum, { corners }) => sum + areaOf(corners), 0);
  expect(area).toBeCloseTo(2 * (40 * 30 + 40 * 2 + 30 * 2), 6);
  expect(pieces.length).toBeGreaterThan(3000);
  expect(pieces.length).toBeLessThan(20_000);
  const below = pieces.filter(({ normal }) => normal[2] < -0.5);
  expect(below.every(({ middle: [x, y, z] }) => z === 0 && x > 0 && x < 40 && y > 0 && y < 30)).toBe(true);
});

test('of many facets some of every face are looked at', () => {
  const many = Array.from({ length: 5000 }, (_, i) => boxFacets([3 * i, 0, 0], [2, 2, 2])).flat();
  const shape = packed(many);
  const features = {
    ...shape,
    faceOfTriangle: shape.faceOfTriangle.map((face) => (face < 30_000 ? face % 3 : 9)),
  };
  const chosen = spreadFacets(features as never);
  expect(new Set(chosen.map((t) => features.faceOfTriangle[t])).size).toBe(3);
  expect(chosen.length).toBeGreaterThan(3900);
  expect(chosen.length).toBeLessThan(4100);
  expect(facetCorners(shape, chosen[0]!)).toHaveLength(3);
});

test('a block hangs over nothing, and stands by what its corners leave', () => {
  const facets = boxFacets([5, 5, 0], [10, 20, 30]);
  expect(overhangOf(facets, 45)).toBeUndefined();
  const { hull, margin } = footingOf(facets, [10, 15, 15]);
  expect(hull).toHaveLength(4);
  expect(margin).toBeCloseTo(5, 9);
  expect(footingOf(facets, [4, 15, 15]).margin).toBeCloseTo(-1, 9);
});

test('what begins in the air is found wherever it hangs, and once', () => {
  const table = [...boxFacets([0, 0, 20], [40, 40, 5]), ...boxFacets([15, 15, 0], [10, 10, 20])];
  const pin = boxFacets([2, 2, 12], [3, 3, 8]);
  // Blocks that only lie against one another share no corners: the top is a block in the air too.
  expect(islandsOf([...table, ...pin]).map(([, , z]) => z)).toEqual([20, 12]);
  expect(islandsOf(boxFacets([0, 0, 7], [1, 1, 1]))).toEqual([]);
});

test('hulls leave out what is within, or on an edge, and tell lines and points', () => {
  expect(
    hullOf([
      [0, 0],
      [4, 0],
      [4, 4],
      [0, 4],
      [2, 2],
      [2, 0],
      [0, 0],
    ]),
  ).toEqual([
    [0, 0],
    [4, 0],
    [4, 4],
    [0, 4],
  ]);
  expect(
    hullOf([
      [1, 1],
      [1, 1],
    ]),
  ).toEqual([[1, 1]]);
  expect(
    footingOf(
      [
        [
          [0, 0, 0],
          [10, 0, 0],
          [5, 3, 9],
        ],
      ],
      [5, 2, 4],
    ).margin,
  ).toBeCloseTo(-2, 9);
  expect(
    footingOf(
      [
        [
          [0, 0, 0],
          [9, 9, 9],
          [5, 3, 9],
        ],
      ],
      [3, 4, 4],
    ).margin,
  ).toBeCloseTo(-5, 9);
});

test('a bed takes what fits lengthwise or across, and a turn is told where one helps', () => {
  expect(fitsBed([200, 100, 50], [120, 220, 60])).toBe(true);
  expect(fitsBed([200, 100, 61], [120, 220, 60])).toBe(false);
  expect(bedTurn([50, 60, 300], [320, 200, 250])).toEqual({ about: 'x', angle: 90 });
  expect(bedTurn([60, 300, 240], [250, 310, 70])).toEqual({ about: 'y', angle: 90 });
  expect(bedTurn([300, 300, 300], [200, 200, 200])).toBeUndefined();
});

// Steel: EN 1991-1-1:2002, table A.4 (from memory).
test('a cubic decimetre of steel weighs 7.85 kg', () => {
  expect(massOf(1e6, 'steel')).toBeCloseTo(7850, 9);
});
