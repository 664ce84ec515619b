/** Areas found by formulas, and by the kernel's own split of a face: the same drawings, the same regions. */
import { areasOf, circle, line, throughPoints, type Curve, type Path, type Vec2 } from '@kadrel/core';
import { numbers, trials } from '@kadrel/testing';
import { loadOcct } from '../../node.ts';
import { scope, type Occt } from '../../occt/occt.ts';
import { splitRegions } from './regions.ts';

let occt: Occt;
beforeAll(async () => {
  occt = await loadOcct();
});

const path = (name: string, curves: readonly Curve[], closed: boolean): Path => ({
  closed,
  curves: curves.map((curve, i) => ({ name: `${name}.${i}`, curve })),
});

function drawing(seed: number): Path[] {
  const next = numbers(seed);
  const point = (): Vec2 => [Math.round(next() * 1000) / 10, Math.round(next() * 1000) / 10];
  return Array.from({ length: 6 }, (_, i): Path => {
    const name = `c${i}`;
    const kind = (seed + i) % 4;
    if (kind === 0) return path(name, [circle(point(), 5 + next() * 30)], true);
    if (kind === 1) return path(name, [line(point(), point())], false);
    if (kind === 2) {
      const corners = [point(), point(), point()];
      return path(
        name,
        corners.map((from, k) => line(from, corners[(k + 1) % 3]!)),
        true,
      );
    }
    return path(name, throughPoints({ points: [point(), point(), point(), point()], closed: true }), true);
  });
}

test('agree with the split by the kernel on drawings of lines, circles, triangles and free curves', () => {
  let counted = 0;
  for (let seed = 1; seed <= trials(40); seed++) {
    const paths = drawing(seed);
    const found = areasOf(paths);
    if (!found) continue;
    counted += 1;
    const split = scope((keep) =>
      splitRegions({ occt, keep }, paths).regions.map(({ face, curves }) => {
        const properties = keep(new occt.GProp_GProps());
        occt.BRepGProp.SurfaceProperties(face, properties, 1e-9, false);
        return { area: properties.Mass(), curves: curves.join(' ') };
      }),
    );
    // Slivers below the kernel's tolerance are found by one and not by the other.
    const large = <T extends { area: number }>(list: readonly T[]) =>
      list.filter(({ area }) => area > 1e-3).sort((a, b) => a.area - b.area);
    const [ours, theirs] = [large(found), large(split)];
    expect([seed, ours.length]).toEqual([seed, theirs.length]);
    ours.forEach(({ area, curves }, i) => {
      expect(Math.abs(area - theirs[i]!.area)).toBeLessThan(1e-4);
      expect([seed, curves.join(' ')]).toEqual([seed, theirs[i]!.curves]);
    });
  }
  // Hardly any of them touch by chance.
  expect(counted).toBeGreaterThan(0.7 * trials(40));
});

test('leave what touches or lies on itself to the kernel', () => {
  expect(
    areasOf([path('a', [circle([0, 0], 10)], true), path('b', [circle([15, 0], 5)], true)]),
  ).toBeUndefined();
  const square: readonly Vec2[] = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  const sides = square.map((from, k) => line(from, square[(k + 1) % 4]!));
  expect(areasOf([path('a', sides, true), path('b', [line([2, 0], [8, 0])], false)])).toBeUndefined();
  // A fillet goes on from both sides: that is no touching.
  expect(areasOf([path('a', sides, true)])).toHaveLength(1);
});

test('holes, islands and loose ends', () => {
  const square = (name: string, at: number, size: number) => {
    const corners: Vec2[] = [
      [at, at],
      [at + size, at],
      [at + size, at + size],
      [at, at + size],
    ];
    return path(
      name,
      corners.map((from, k) => line(from, corners[(k + 1) % 4]!)),
      true,
    );
  };
  const found = areasOf([
    square('a', 0, 100),
    square('b', 10, 50),
    square('c', 20, 10),
    path('tail', [line([100, 100], [150, 150])], false),
    path('inside', [line([70, 70], [90, 90])], false),
  ])!;
  expect(found.map(({ area }) => Math.round(area)).sort((a, b) => a - b)).toEqual([100, 2400, 7500]);
  expect(
    found.every(({ curves }) => !curves.some((name) => name.startsWith('tail') || name.startsWith('inside'))),
  ).toBe(true);
});
