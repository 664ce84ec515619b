import { scale, unit, type Vec3 } from '@kadrel/core';
import { numbers } from '@kadrel/testing';
import { behindAll, beforeSide, sidesOf, type Side } from './convex.ts';
import { areaWithin, newellNormal, volumeWithin } from './flatFaces.ts';

const side = (normal: Vec3, offset: number, name = String(normal)): Side => ({ name, normal, offset });
const axes: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const ball = (radius: number) => axes.flatMap((axis) => [scale(axis, radius), scale(axis, -radius)]);
const volumeOf = (sides: readonly Side[]) =>
  volumeWithin(behindAll(sides, ball(1)).flatMap(({ loops }) => loops)) / 6;
const cube = axes.flatMap((axis) => [side(axis, 1), side(scale(axis, -1), 1)]);

test('a cube, and what is left of it behind a slanting plane', () => {
  expect(volumeOf(cube)).toBeCloseTo(8, 12);
  // Through the middles of three edges that meet: a corner of side 1 goes, of 1/6.
  const corner = side(unit([1, 1, 1]), 2 / Math.sqrt(3), 'corner');
  expect(volumeOf([...cube, corner])).toBeCloseTo(8 - 1 / 6, 12);
  expect(behindAll([...cube, side([1, 0, 0], 5, 'far')], ball(1)).map(({ name }) => name)).not.toContain(
    'far',
  );
  expect(behindAll([...cube, side([1, 0, 0], -1.5)], ball(1))).toEqual([]);
  expect(behindAll(cube.slice(1), ball(1))).toEqual([]);
});

test('behind random planes round a ball: closed, convex, and with the sides that it was made from', () => {
  const random = numbers(11);
  for (let trial = 0; trial < 20; trial++) {
    const sides = [...cube, ...Array.from({ length: 40 }, (_, i) => side(someWay(random), 0.9, `cut${i}`))];
    const faces = behindAll(sides, ball(1)).map((face) => ({
      ...face,
      normal: newellNormal(face.loops[0]!),
    }));
    const area = faces.reduce((sum, { loops, normal }) => sum + areaWithin(loops[0]!, normal) / 2, 0);
    // Each side is a cone to the middle, of a height that is known.
    const cones = faces.reduce((sum, { name, loops, normal }) => {
      const { offset } = sides.find((one) => one.name === name)!;
      return sum + (offset * areaWithin(loops[0]!, normal)) / 6;
    }, 0);
    expect(volumeWithin(faces.flatMap(({ loops }) => loops)) / 6).toBeCloseTo(cones, 9);
    expect(area).toBeGreaterThan(4 * Math.PI * 0.9 ** 2);
    const corners = faces.flatMap(({ loops }) => loops.flat());
    const beyond = corners.flatMap((at) => sides.map((one) => beforeSide(one, at)));
    expect(beyond.reduce((max, one) => Math.max(max, one))).toBeLessThan(1e-6);
    expect(sidesOf(faces)).toHaveLength(faces.length);
  }
});

test('a solid with a hole or a dent has no such sides', () => {
  const faces = behindAll(cube, ball(1)).map((face) => ({ ...face, normal: newellNormal(face.loops[0]!) }));
  const [first, ...others] = faces;
  expect(sidesOf([{ ...first!, loops: [...first!.loops, ...first!.loops] }, ...others])).toBeUndefined();
  const dented = faces.map((face) => ({ ...face, normal: scale(face.normal, -1) }));
  expect(sidesOf(dented)).toBeUndefined();
});

function someWay(random: () => number): Vec3 {
  const way: Vec3 = [random() - 0.5, random() - 0.5, random() - 0.5];
  return unit(way);
}
