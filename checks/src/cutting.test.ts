/** Solids cut by planes, and what is subtracted with a clearance, against formulas. */
import { datumInWorld } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { builtBy, idOf, measured, numbers, type Statement } from './bench.ts';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const volumes = (statements: readonly Statement[], ...names: string[]) => {
  const document = builtBy(kernel, statements);
  return names.map((name) => measured(kernel, document, name).volume);
};

const SOLIDS: readonly (readonly [Statement, number])[] = [
  [['box', { as: 'block', size: [20, 30, 40], at: [-10, -15, -20] }], 20 * 30 * 40],
  [['cylinder', { as: 'block', diameter: 30, height: 40, at: [0, 0, -20] }], Math.PI * 225 * 40],
  [['sphere', { as: 'block', diameter: 30, at: [0, 0, 0] }], (4 / 3) * Math.PI * 15 ** 3],
  [
    ['cone', { as: 'block', diameter: 30, top: 10, height: 40, at: [0, 0, -20] }],
    ((Math.PI * 40) / 3) * (225 + 75 + 25),
  ],
  [['torus', { as: 'block', diameter: 40, thickness: 12, at: [0, 0, 0] }], 2 * Math.PI ** 2 * 20 * 36],
];

// Planes through points near the middle, leaning at random: the two halves come to what the formula of the whole says.
test('halves add up to the whole', () => {
  const random = numbers(7);
  const between = (least: number, most: number) => least + (most - least) * random();
  for (let i = 0; i < 15; i++) {
    const [solid, whole] = SOLIDS[i % SOLIDS.length]!;
    const points = Array.from({ length: 3 }, () => [between(-8, 8), between(-8, 8), between(-8, 8)]);
    const [a, b] = volumes(
      [solid, ['split-solid', { parts: ['block'], plane: { points } }]],
      'block',
      'block 2',
    );
    expect(Math.abs((a! + b!) / whole - 1)).toBeLessThan(1e-9);
    expect(Math.min(a!, b!)).toBeGreaterThan(0);
  }
});

// Source: a cap of a ball of radius r and height h holds π h² (3r − h) / 3.
test.each([
  ['front', 5],
  ['behind', 25],
] as const)('what is %s a plane at 10 stays of a ball', (keep, height) => {
  const [left] = volumes(
    [
      ['sphere', { as: 'block', diameter: 30, at: [0, 0, 0] }],
      ['trim-solid', { parts: ['block'], plane: 'plan', at: '10', keep }],
    ],
    'block',
  );
  expect(left! / ((Math.PI * height ** 2 * (45 - height)) / 3)).toBeCloseTo(1, 9);
});

const split: readonly Statement[] = [
  ['box', { as: 'block', size: [10, 10, 30], at: [0, 0, 0] }],
  ['split-solid', { parts: ['block'], plane: 'plan', at: '12' }],
];
const heights = (...more: Statement[]) =>
  volumes([...split, ...more], 'block', 'block 2').map((volume) => volume / 100);
const upper = (...more: Statement[]) => volumes([...split, ...more], 'block')[0]!;

test('the plane can be moved for both halves, in the step of either', () => {
  expect(heights()).toEqual([expect.closeTo(18, 9), expect.closeTo(12, 9)]);
  const moved: Statement = ['step', { part: 'block 2', step: '1', depth: '20' }];
  expect(heights(moved)).toEqual([expect.closeTo(10, 9), expect.closeTo(20, 9)]);
});

test('a half that is unlinked, copied or left alone stays the half that it is', () => {
  const moved: Statement = ['step', { part: 'block', step: '1', depth: '20' }];
  expect(heights(['unlink', { parts: ['block 2'] }], moved)).toEqual([
    expect.closeTo(10, 9),
    expect.closeTo(12, 9),
  ]);
  const [copy] = volumes([...split, ['duplicate', { parts: ['block 2'], by: ['50', '0', '0'] }]], 'block 3');
  expect(copy! / 100).toBeCloseTo(12, 9);
  const [left] = volumes([...split, ['delete', { parts: ['block'] }]], 'block 2');
  expect(left! / 100).toBeCloseTo(12, 9);
});

test('a step that is off is not done, and steps are done in their order', () => {
  const shelled: Statement = ['shell', { part: 'block', thickness: 1, open: 'top' }];
  expect(heights(['step', { part: 'block', step: '1', state: 'off' }])[0]).toBeCloseTo(30, 9);
  // Split first, the shell has a floor of its own; the other way round the cut goes through the finished shell.
  expect(upper(shelled)).toBeCloseTo(1800 - 64 * 17, 6);
  expect(upper(shelled, ['step', { part: 'block', step: '2', to: '1' }])).toBeCloseTo(36 * 18, 6);
});

test('each half has its own steps from the split on', () => {
  const rounded: Statement[] = [
    ['fillet', { part: 'block', edges: 'around top', radius: '1' }],
    ['shell', { part: 'block 2', thickness: '1', open: 'cut' }],
  ];
  const [top, bottom] = heights(...rounded);
  expect(top! * 100).toBeLessThan(1800);
  expect(bottom! * 100).toBeCloseTo(1200 - 64 * 11, 6);
  const moved: Statement = ['step', { part: 'block 2', step: '1', depth: '20' }];
  expect(heights(...rounded, moved)[1]! * 100).toBeCloseTo(2000 - 64 * 19, 6);
  const thicker: Statement = ['step', { part: 'block 2', step: '2', depth: '2' }];
  expect(heights(...rounded, thicker)[1]! * 100).toBeCloseTo(1200 - 36 * 10, 6);
});

test('the datum of a half is a point of that half', () => {
  const document = builtBy(kernel, [...split, ['change', { parts: ['block 2'], datum: '0, 0, 1' }]]);
  const half = document.items[idOf(document, 'block 2')]!;
  const boxOf = (id: string) => kernel.facts(document, id).measures.box;
  expect(datumInWorld(document, half, boxOf)).toEqual([5, 5, 12]);
});

test('a plane that misses is refused', () => {
  const document = builtBy(kernel, [
    split[0]!,
    ['trim-solid', { parts: ['block'], plane: 'plan', at: '31' }],
  ]);
  expect(kernel.problemOf(document, Object.keys(document.items)[0]!)).toMatchObject({
    step: 0,
    reason: 'The plane does not go through the solid.',
  });
});

// Source: J. Steiner 1840, for the upright prism that lies within the block: its base grows to A + P·c + π·c².
test('what is taken out leaves a clearance all round', () => {
  const [left] = volumes(
    [
      ['box', { as: 'block', size: [60, 60, 20], at: [-30, -30, 0] }],
      ['box', { as: 'peg', size: [10, 20, 40], at: [-5, -10, -10] }],
      ['subtract', { as: 'socket', from: 'block', parts: ['peg'], clearance: '0.3' }],
    ],
    'socket',
  );
  expect(left! / (60 * 60 * 20 - 20 * (200 + 60 * 0.3 + Math.PI * 0.09))).toBeCloseTo(1, 9);
});
