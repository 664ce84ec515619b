/** Parts that are settled: the solid stays, to the last digit that is written, and what it was made by goes. */
import { isRefusal, perform, verbNamed } from '@kadrel/core';
import { worldOf, type Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { builtBy, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const rounded: readonly Statement[] = [
  ['box', { as: 'block', size: [40, 30, 20] }],
  ['fillet', { part: 'block', edges: ['along z'], radius: '5' }],
];
const bored: readonly Statement[] = [
  ...rounded,
  ['cylinder', { as: 'drill', diameter: 8, height: 40, at: [20, 15, -10] }],
  ['subtract', { as: 'plate', from: 'block', parts: ['drill'] }],
];
const settle = (part: string): Statement => ['settle', { part }];

test.each([
  ['a rounded box', rounded, 'block'],
  ['a combination', bored, 'plate'],
  ['a ring', [['torus', { as: 'ring', diameter: 20, thickness: 6 }]] as Statement[], 'ring'],
  [
    'a soft cube',
    [
      ['box', { as: 'block', size: [10, 10, 10] }],
      ['soften', { part: 'block', level: 1 }],
    ] as Statement[],
    'block',
  ],
  // Its corners are so far from their edges that their tolerances are written in fifteen digits.
  [
    'a soft block with a fillet that narrows',
    [
      ['box', { as: 'low', size: [50, 40, 15] }],
      ['box', { as: 'high', size: [25, 40, 33.81] }],
      ['union', { as: 'block', parts: ['low', 'high'] }],
      ['soften', { part: 'block', level: 1, form: 'facets', sharp: [{ at: 'top&right' }], sharpness: 60 }],
      ['fillet', { part: 'block', edges: [{ at: 'left+p2.left&p2.top' }], radius: 4.44, to: 1.94 }],
    ] as Statement[],
    'block',
  ],
])('%s keeps its measures', (_, statements, name) => {
  const before = measured(kernel, builtBy(kernel, statements), name);
  const document = builtBy(kernel, [...statements, settle(name)]);
  const after = measured(kernel, document, name);
  expect(after.volume / before.volume).toBeCloseTo(1, 9);
  expect(after.area / before.area).toBeCloseTo(1, 9);
  expect(after).toMatchObject({ watertight: true, faces: before.faces, solids: before.solids });
  expect(document.items[idOf(document, name)]!.recipe).toMatchObject({
    base: { kind: 'settled' },
    steps: [],
  });
});

test('operands go, faces keep their names in words, and steps go on from there', () => {
  const document = builtBy(kernel, [...bored, settle('plate')]);
  expect(Object.values(document.items).map(({ name }) => name)).toEqual(['plate']);
  const higher = builtBy(kernel, [
    ...bored,
    settle('plate'),
    ['offset-face', { part: 'plate', faces: ['top'], by: '10' }],
    ['offset-face', { part: 'plate', faces: ['drill.side'], by: '-1' }],
  ]);
  const area = 1200 - (4 - Math.PI) * 25 - Math.PI * 25;
  expect(measured(kernel, higher, 'plate').volume / (area * 30)).toBeCloseTo(1, 9);
});

test('what others are linked to stays theirs, and a scaled one is settled alike', () => {
  const document = builtBy(kernel, [
    ...rounded,
    ['duplicate', { parts: ['block'], by: [60, 0, 0], kind: 'linked' }],
    settle('block'),
    ['resize', { parts: ['block'], by: [2, 2, 2] }],
  ]);
  const [settled, other] = [measured(kernel, document, 'block'), measured(kernel, document, 'block 2')];
  expect(settled.volume / other.volume).toBeCloseTo(8, 9);
  const twice = builtBy(kernel, [...rounded, settle('block')]);
  const again = perform(
    verbNamed('settle')!,
    { part: 'block' },
    twice,
    worldOf(twice, kernel, () => 'x'),
  );
  expect(isRefusal(again) && again.message).toBe('block is settled already.');
});

test('what was written down and then damaged is told, and not shown', () => {
  const document = builtBy(kernel, [...rounded, settle('block')]);
  const id = idOf(document, 'block');
  const item = document.items[id]!;
  const base = item.recipe.base as unknown as { shape: string };
  for (const shape of ['nothing', base.shape.slice(0, 400), base.shape.replace('Curves', 'Cur')]) {
    const broken = {
      ...document,
      items: { [id]: { ...item, recipe: { steps: [], base: { ...base, shape } } } },
    } as unknown as typeof document;
    expect(kernel.problemOf(broken, id)).toMatchObject({ step: null });
  }
});
