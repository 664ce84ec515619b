import { numbers } from '@kadrel/testing';
import { areaOfFacets, facetsWithin, type Flat } from './flatFacets.ts';

const ring = ([x, y]: Flat, radius: number, corners: number): Flat[] =>
  Array.from({ length: corners }, (_, i): Flat => {
    const angle = (2 * Math.PI * i) / corners;
    return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
  });

/** Twice the area of a regular polygon, by the formula. */
const twiceAreaOfRing = (radius: number, corners: number) =>
  corners * radius ** 2 * Math.sin((2 * Math.PI) / corners);

const square: Flat[] = [
  [0, 0],
  [40, 0],
  [40, 40],
  [0, 40],
];

test('a square is two facets, either way round', () => {
  for (const loop of [square, square.toReversed()]) {
    const triangles = facetsWithin([loop])!;
    expect(triangles).toHaveLength(6);
    expect(Math.abs(areaOfFacets(loop, triangles))).toBe(3200);
  }
});

test('the outer loop may stand anywhere among the holes', () => {
  const loops = [ring([12, 12], 4, 12), square, ring([26, 26], 9, 30)];
  const triangles = facetsWithin(loops)!;
  const expected = 3200 - twiceAreaOfRing(9, 30) - twiceAreaOfRing(4, 12);
  expect(Math.abs(areaOfFacets(loops.flat(), triangles))).toBeCloseTo(expected, 9);
});

test('random holes: corners − 2 + 2 × holes facets, all of them the same way round, of the right area', () => {
  const random = numbers(7);
  for (let k = 0; k < 20; k++) {
    const columns = 2 + Math.floor(12 * random());
    const holes = Array.from({ length: columns * columns }, (_, i) => {
      const radius = 1 + 3 * random();
      const at: Flat = [10 * (i % columns) + 5 + random() - 0.5, 10 * Math.floor(i / columns) + 5];
      return { radius, corners: 3 + Math.floor(40 * random()), at };
    });
    const side = 10 * columns;
    const outer: Flat[] = square.map(([x, y]) => [(x / 40) * side, (y / 40) * side]);
    const loops = [outer, ...holes.map(({ at, radius, corners }) => ring(at, radius, corners))];
    const triangles = facetsWithin(loops)!;
    const corners = loops.flat();
    expect(triangles).toHaveLength(3 * (corners.length - 2 + 2 * holes.length));
    const areas = Array.from({ length: triangles.length / 3 }, (_, i) =>
      areaOfFacets(corners, triangles.slice(3 * i, 3 * i + 3)),
    );
    expect(new Set(areas.map(Math.sign)).size).toBe(1);
    const open = holes.reduce((sum, { radius, corners }) => sum + twiceAreaOfRing(radius, corners), 0);
    expect(Math.abs(areas.reduce((sum, area) => sum + area, 0))).toBeCloseTo(2 * side * side - open, 7);
  }
});

test('loops that cross or touch are left to others', () => {
  expect(facetsWithin([square, ring([40, 20], 5, 16)])).toBeUndefined();
  expect(
    facetsWithin([
      square,
      [
        [0, 20],
        [10, 10],
        [10, 30],
      ],
    ]),
  ).toBeUndefined();
});
