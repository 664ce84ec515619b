/** Pyramids and offset solids against formulas. */
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const of = (name: string, ...statements: Statement[]) => measured(kernel, built(statements), name);

// Source: any handbook of mensuration; V = h/3 (A + √(A·a) + a), and the area of a regular polygon n/2 · R² · sin(360°/n).
test.each([
  [4, 'flats', 30, 0, 40],
  [6, 'corners', 20, 12, 7],
  [3, 'side', 10, 25, 9],
  [5, 'flats', 12, 4, 100],
  [60, 'corners', 50, 49.9, 3],
] as const)('a pyramid of %i sides, measured across %s', (sides, across, width, top, height) => {
  const angle = Math.PI / sides;
  const radius = (size: number) =>
    ({ corners: size / 2, flats: size / 2 / Math.cos(angle), side: size / 2 / Math.sin(angle) })[across];
  const area = (size: number) => (sides / 2) * radius(size) ** 2 * Math.sin(2 * angle);
  const [low, high] = [area(width), area(top)];
  const wanted = (height / 3) * (low + Math.sqrt(low * high) + high);
  const made = of('spire', ['frustum', { as: 'spire', sides, width, across, top, height }]);
  expect(made.volume / wanted).toBeCloseTo(1, 9);
  expect(made.faces).toBe(top === 0 ? sides + 1 : sides + 2);
  expect(made).toMatchObject({ watertight: true, solids: 1 });
});

test('a pyramid combines like any other solid', () => {
  const made = of(
    'post',
    ['frustum', { as: 'spire', sides: 4, width: 20, across: 'flats', height: 30 }],
    ['box', { as: 'base', size: [40, 40, 20], at: [-20, -20, -10] }],
    ['union', { as: 'post', parts: ['base', 'spire'] }],
  );
  // Above the base is a pyramid two thirds as wide and high.
  expect(made.volume).toBeCloseTo(32_000 + ((40 / 3) ** 2 * 20) / 3, 6);
});

const block: Statement = ['box', { as: 'block', size: [10, 20, 30] }];
const offset = (by: number, corners: string): Statement => ['offset-solid', { part: 'block', by, corners }];

// Source: J. Steiner 1840, for convex bodies: V + A·d + M·d² + 4/3·π·d³, where M of a box is π/2 times the sum of its three sides.
test('a box with a clearance all round, round corners', () => {
  const [a, b, c, d] = [10, 20, 30, 2];
  const wanted =
    a * b * c + 2 * (a * b + b * c + c * a) * d + Math.PI * (a + b + c) * d ** 2 + (4 / 3) * Math.PI * d ** 3;
  const made = of('block', block, offset(d, 'round'));
  expect(made.volume / wanted).toBeCloseTo(1, 9);
  expect(made.box).toEqual({ min: [-2, -2, -2], max: [12, 22, 32] });
});

test.each([
  [1.5, 13 * 23 * 33],
  [-1, 8 * 18 * 28],
])('and square ones, by %p mm', (by, volume) => {
  expect(of('block', block, offset(by, 'square')).volume).toBeCloseTo(volume, 6);
});

test.each([
  ['a cylinder', ['cylinder', { as: 'block', diameter: 10, height: 20 }], -1, Math.PI * 16 * 18],
  ['a ball', ['sphere', { as: 'block', diameter: 10 }], 3, (4 / 3) * Math.PI * 512],
  ['a ring', ['torus', { as: 'block', diameter: 20, thickness: 4 }], 1, 2 * Math.PI ** 2 * 10 * 9],
] as const)('%s stays one', (_, made, by, volume) => {
  expect(of('block', made as Statement, offset(by, 'square')).volume / volume).toBeCloseTo(1, 9);
});

test('a bore gets narrower as the solid grows', () => {
  const pipe: Statement = ['tube', { as: 'block', diameter: 20, bore: 10, height: 30 }];
  const made = of('block', pipe, offset(1, 'square'));
  expect(made.volume / (Math.PI * (11 ** 2 - 4 ** 2) * 32)).toBeCloseTo(1, 9);
});

test.each([
  ['inward through what is thinnest', offset(-5, 'square')],
  ['further', offset(-7, 'round')],
])('%s is refused, and says why', (_, statement) => {
  const document = built([block, statement]);
  const problem = kernel.problemOf(document, idOf(document, 'block'));
  expect(problem?.reason).toMatch(/cannot all move by|no closed body|no volume/);
});

test('a neck that closes is refused, and so is no clearance at all', () => {
  const parts: Statement[] = [
    ['box', { as: 'left', size: [20, 20, 20] }],
    ['box', { as: 'right', size: [20, 20, 20], at: [30, 0, 0] }],
    ['box', { as: 'neck', size: [30, 4, 4], at: [10, 8, 8] }],
    ['union', { as: 'block', parts: ['left', 'right', 'neck'] }],
  ];
  const document = built([...parts, offset(-3, 'square')]);
  const failed = kernel.problemOf(document, idOf(document, 'block'));
  const volume = failed ? undefined : measured(kernel, document, 'block').volume;
  // Either it is two cubes, or it is refused; never anything else.
  expect(failed ? 'refused' : volume).toEqual(failed ? 'refused' : expect.closeTo(2 * 14 ** 3, 6));
  expect(() => built([block, offset(0, 'round')])).toThrow('would change nothing');
});

test('a failure says which step it was, and what is made before it none', () => {
  const statements: Statement[] = [block, offset(1, 'square'), offset(-9, 'square')];
  const document = built(statements);
  expect(kernel.problemOf(document, idOf(document, 'block'))).toMatchObject({ step: 1 });
  const bad = built([
    ['line', { as: 'edge', from: [0, 0, 0], to: [10, 0, 0] }],
    ['raise', { as: 'nothing', profiles: ['edge'], height: 5 }],
  ]);
  expect(kernel.problemOf(bad, idOf(bad, 'nothing'))).toMatchObject({ step: null });
});

test('the clearance of a step can be changed, and follows a variable', () => {
  const statements: Statement[] = [
    ['variable', { name: 'play', value: '2 mm' }],
    block,
    ['offset-solid', { part: 'block', by: 'play', corners: 'square' }],
  ];
  expect(of('block', ...statements, ['variable', { name: 'play', value: '1 mm' }]).volume).toBeCloseTo(
    12 * 22 * 32,
    6,
  );
  expect(of('block', ...statements, ['step', { part: 'block', depth: '3' }]).volume).toBeCloseTo(
    16 * 26 * 36,
    6,
  );
  expect(() => built([...statements, ['step', { part: 'block', depth: '0' }]])).toThrow(
    'would change nothing',
  );
});
