/** Shells that are open beside an inward edge, against their volumes reckoned as prisms. */
import { faceNamesOf, type Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { builtBy, idOf, measured, numbers, trials, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const of = (...statements: Statement[]) => measured(kernel, builtBy(kernel, statements), 'block');
const shell = (thickness: number, open: string): Statement => ['shell', { part: 'block', thickness, open }];

interface Stair {
  readonly width: number;
  readonly low: number;
  readonly high: number;
  readonly tread: number;
  readonly depth: number;
}
const stair = ({ width, low, high, tread, depth }: Stair): Statement[] => [
  ['box', { as: 'plate', size: [width, depth, low] }],
  ['box', { as: 'post', size: [width - tread, depth, high] }],
  ['union', { as: 'block', parts: ['plate', 'post'] }],
];
const STAIR: Stair = { width: 50, low: 15, high: 40, tread: 25, depth: 40 };

/** The hollow goes up behind the riser, and through under it up to the plane of the tread. */
const treadOpened = ({ width, low, high, tread, depth }: Stair, t: number): number => {
  const solid = width * low + (width - tread) * (high - low);
  const upright = (width - tread - 2 * t) * (high - 2 * t);
  return solid * depth - (upright + tread * (low - t)) * (depth - 2 * t);
};

test('the tread of a stair: the riser stands on the plane that was opened, as thick as it says', () => {
  const opened = of(...stair(STAIR), shell(2, 'top'));
  expect(opened).toMatchObject({ watertight: true, solids: 1, box: { min: [0, 0, 0], max: [50, 40, 40] } });
  expect(opened.volume).toBeCloseTo(treadOpened(STAIR, 2), 6);
});

test('stairs of any size', () => {
  const sizes = numbers(1611);
  const { low, high } = { low: 8, high: 30 };
  for (let trial = 0; trial < trials(20); trial++) {
    const tread = low + sizes() * 20;
    const one = { width: tread + 12 + sizes() * 20, low: low + sizes() * 10, high, tread, depth: 20 };
    const t = 1 + sizes() * 2;
    expect(of(...stair(one), shell(t, 'top')).volume).toBeCloseTo(treadOpened(one, t), 6);
  }
});

test('the gaps of a comb, all of one name', () => {
  const comb: Statement[] = [
    ['box', { as: 'bar', size: [60, 20, 10] }],
    ...[0, 20, 40].map((x): Statement => ['box', { as: `tooth ${x}`, size: [10, 20, 30], at: [x, 0, 0] }]),
    ['union', { as: 'block', parts: ['bar', 'tooth 0', 'tooth 20', 'tooth 40'] }],
  ];
  const teeth = 3 * 6 * (30 - 2 - 10);
  expect(of(...comb, shell(2, 'top')).volume).toBeCloseTo(24_000 - (56 * 8 + teeth) * 16, 6);
});

test('the gap of a fork', () => {
  const fork: Statement[] = [
    ['box', { as: 'bar', size: [60, 30, 30] }],
    ['box', { as: 'gap', size: [40, 30, 20], at: [10, 0, 10] }],
    ['subtract', { as: 'block', from: 'bar', parts: ['gap'] }],
  ];
  const prongs = 2 * 6 * (30 - 2 - 10);
  expect(of(...fork, shell(2, 'p2.bottom')).volume).toBeCloseTo(30_000 - (56 * 8 + prongs) * 26, 6);
});

/** A plate with a post of 20 × 8 mm, 15 mm high over it. */
const posted = (x: number, y: number): Statement[] => [
  ['box', { as: 'plate', size: [60, 60, 10] }],
  ['box', { as: 'post', size: [20, 8, 25], at: [x, y, 0] }],
  ['union', { as: 'block', parts: ['plate', 'post'] }],
];

test('a plate round a post that stands on its corner', () => {
  const made = of(...posted(40, 0), shell(2, 'top'));
  expect(made.volume).toBeCloseTo(36_000 + 20 * 8 * 15 - 56 * 56 * 8 - 16 * 4 * 13, 6);
  expect(made).toMatchObject({ watertight: true, solids: 1 });
});

test('a post in the middle would come off, and is refused at its foot', () => {
  const document = builtBy(kernel, [...posted(20, 26), shell(2, 'top')]);
  const problem = kernel.problemOf(document, idOf(document, 'block'))!;
  expect(`${problem.reason} ${problem.remedy}`).toMatch(/would come off the rest.*Leave other faces open/);
  const [[x, y, z] = []] = problem.places;
  expect([x, y, z].map(Math.round as never)).toEqual([30, 30, 10]);
});

test('faces that are not opened keep their names, those behind are called after them, and a wall that ends has a rim', () => {
  const document = builtBy(kernel, [...stair(STAIR), shell(2, 'top')]);
  const names = new Set(faceNamesOf(kernel.facts(document, idOf(document, 'block'))));
  for (const name of ['right', 'p2.right', 'p2.top', 'inner right', 'inner p2.right', 'inner p2.top', 'rim'])
    expect(names).toContain(name);
  expect([...names].filter((name) => name === 'top' || name === 'inner top')).toEqual([]);
});

test('a wall for which there is no room is told, with the largest that there is', () => {
  const document = builtBy(kernel, [...stair(STAIR), shell(13, 'top')]);
  const problem = kernel.problemOf(document, idOf(document, 'block'))!;
  expect(`${problem.reason} ${problem.remedy}`).toMatch(/12\.[45]/);
});
