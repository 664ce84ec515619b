/** Single faces: their sizes, and their borders as outlines. */
import { AT_ORIGIN, areaBelow, curveLength, type DrawnPath, type FaceFacts, type Pose } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, idOf, type Statement } from './bench.ts';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const { PI } = Math;
const marked: Statement[] = [
  ['box', { as: 'block', size: [60, 40, 20], at: [0, 0, -20] }],
  ['circle', { as: 'disc', diameter: 20, at: [30, 20, 0] }],
  ['emboss', { part: 'block', profiles: ['disc'], how: 'imprint' }],
];
const sizes = (statements: readonly Statement[], name: string, names: readonly string[]) => {
  const document = built(statements);
  return kernel.answer(document, { ask: 'face', part: idOf(document, name), names }) as FaceFacts;
};
const outline = (statements: readonly Statement[], name: string, face: string, shift: Pose['shift']) => {
  const document = built(statements);
  const plane: Pose = { ...AT_ORIGIN, shift };
  const part = idOf(document, name);
  return kernel.answer(document, { ask: 'cut', part, plane, how: { face } }) as readonly DrawnPath[];
};
const areaOf = (paths: readonly DrawnPath[]) =>
  paths.map(({ curves }) => Math.abs(curves.reduce((sum, curve) => sum + areaBelow(curve), 0)));

test('what an imprint marks has the size of the outline, and the rest of the face is less by that', () => {
  const disc = sizes(marked, 'block', ['imprint.top']);
  expect(disc.count).toBe(1);
  expect(disc.area).toBeCloseTo(100 * PI, 9);
  expect(disc.border).toBeCloseTo(20 * PI, 9);
  const rest = sizes(marked, 'block', ['top']);
  expect(rest.area).toBeCloseTo(2400 - 100 * PI, 9);
  // Its border runs round outside and round the disc.
  expect(rest.border).toBeCloseTo(200 + 20 * PI, 9);
});

test('faces together have one border: the edge between them is none', () => {
  const both = sizes(marked, 'block', ['top', 'imprint.top']);
  expect(both).toMatchObject({ count: 2 });
  expect(both.area).toBeCloseTo(2400, 9);
  expect(both.border).toBeCloseTo(200, 9);
});

test('a face that is not there has no size', () => {
  expect(sizes(marked, 'block', ['nothing'])).toEqual({ count: 0, area: 0, border: 0 });
});

test('the edges of the face that is nearest in the plane, with its holes', () => {
  // The disc and what is round it have the same centre.
  const disc = outline(marked, 'block', 'imprint.top', [30, 20, 0]);
  expect(areaOf(disc)).toEqual([expect.closeTo(100 * PI, 9)]);
  const block: Statement[] = [
    ['box', { as: 'plate', size: [60, 40, 5], at: [0, 0, -5] }],
    ['cylinder', { as: 'drill', diameter: 10, height: 20, at: [20, 20, -10] }],
    ['subtract', { as: 'holed', from: 'plate', parts: ['drill'] }],
  ];
  const paths = outline(block, 'holed', 'top', [30, 20, 0]);
  expect(areaOf(paths).sort((a, b) => a - b)).toEqual([expect.closeTo(25 * PI, 9), expect.closeTo(2400, 9)]);
  const length = paths.flatMap(({ curves }) => curves).reduce((sum, curve) => sum + curveLength(curve), 0);
  expect(length).toBeCloseTo(200 + 10 * PI, 9);
  expect(() => outline(block, 'holed', 'top', [30, 20, 1])).toThrow('no such flat face');
});
