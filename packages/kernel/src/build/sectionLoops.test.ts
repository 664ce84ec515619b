/** Faces by the lines in which a plane and a solid meet, against formulas; and where they do not tell. */
import type { Vec3 } from '@kadrel/core';
import type { Content } from '../content/content.ts';
import { integralsOf } from '../facts/integrals.ts';
import { sharedLibraries } from '../node.ts';
import { Shapes } from '../shapes.ts';
import { enclosedOn } from './section.ts';

const libraries = await sharedLibraries();
const shapes = new Shapes(libraries);
const UNTURNED = [1, 0, 0, 0, 1, 0, 0, 0, 1] as const;

const tube = (diameter: number, bore: number): Content =>
  ({ kind: 'tube', diameter, bore, height: 20 }) as unknown as Content;
const union = (...of: readonly Content[]): Content =>
  ({
    kind: 'combine',
    how: 'union',
    operands: of.map((content, i) => ({ tag: `p${i}`, pose: { turn: UNTURNED, shift: [0, 0, 0] }, content })),
  }) as unknown as Content;

/** Area on the plane at a height; undefined where the lines do not tell. */
function areaAt(content: Content, offset: number, normal: Vec3 = [0, 0, 1]): number | undefined {
  const { shape } = shapes.shapeOf(content);
  const across: Vec3 = normal[2] === 1 ? [1, 0, 0] : [0, 1, 0];
  const faces = enclosedOn(libraries.occt, shape, { normal, offset, across });
  return faces && integralsOf(libraries.occt, faces).area;
}

const ring = (diameter: number, bore: number) => (Math.PI / 4) * (diameter ** 2 - bore ** 2);

test('rings within rings: holes are left out, and what stands in them counts again', () => {
  const nested = union(tube(60, 50), tube(40, 30), tube(20, 10));
  const expected = ring(60, 50) + ring(40, 30) + ring(20, 10);
  expect(areaAt(nested, 7)! / expected).toBeCloseTo(1, 10);
});

test('upright through them: rectangles side by side', () => {
  expect(areaAt(union(tube(60, 50), tube(40, 30)), 0, [1, 0, 0])!).toBeCloseTo(4 * 5 * 20, 7);
});

test('beside the solid nothing is told, nor where the plane touches it along a line', () => {
  expect(areaAt(tube(60, 50), 30)).toBeUndefined();
  expect(areaAt(tube(60, 50), 30, [1, 0, 0])).toBeUndefined();
});
