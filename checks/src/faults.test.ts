/** Where something cannot be built is reported as a place in the world. */
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, idOf, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

/** The places of what is wrong with a part, rounded to 1e-6 mm. */
function places(statements: readonly Statement[], name: string) {
  const document = built(statements);
  const found = kernel.problemOf(document, idOf(document, name))?.places ?? [];
  return found.map((place) => place.map((n) => Math.round(n * 1e6) / 1e6 + 0)).sort();
}

test('a profile that crosses its axis: where its curves do', () => {
  const disc: Statement = ['circle', { as: 'disc', diameter: 20, at: [0, 0, 0], on: 'front' }];
  expect(places([disc, ['revolve', { as: 'ball', profiles: ['disc'] }]], 'ball')).toEqual([
    [0, 0, -10],
    [0, 0, 10],
  ]);
});

test('and of a copy that was moved and turned, there', () => {
  const statements: Statement[] = [
    ['circle', { as: 'disc', diameter: 20, at: [0, 0, 0], on: 'front' }],
    ['revolve', { as: 'ball', profiles: ['disc'] }],
    ['box', { as: 'block', size: [5, 5, 5] }],
    ['union', { as: 'both', parts: ['block', 'ball'] }],
    ['move', { parts: ['both'], by: [100, 0, 7] }],
  ];
  expect(places(statements, 'both')).toEqual([
    [100, 0, -3],
    [100, 0, 17],
  ]);
});

test('a rounded corner for which there is no room any more', () => {
  const statements: Statement[] = [
    ['rectangle', { as: 'plate', width: 60, height: 40, at: [100, 0, 0] }],
    ['corner', { profile: 'plate', size: 15, at: [160, 40, 0] }],
    ['raise', { as: 'body', profiles: ['plate'], height: 5 }],
    ['change', { parts: ['plate'], height: 10 }],
  ];
  expect(places(statements, 'plate')).toEqual([[160, 10, 0]]);
  expect(places(statements, 'body')).toEqual([[160, 10, 0]]);
});

test('curves that do not run round in one loop: their loose ends', () => {
  const statements: Statement[] = [
    ['line', { as: 'a', from: [0, 0, 0], to: [10, 0, 0] }],
    ['line', { as: 'b', from: [10, 0, 0], to: [10, 10, 0] }],
    ['fill', { as: 'skin', profiles: ['a', 'b'] }],
  ];
  expect(places(statements, 'skin')).toEqual([
    [0, 0, 0],
    [10, 10, 0],
  ]);
});

test('an outline that reaches beyond the solid it is laid on', () => {
  const statements: Statement[] = [
    ['box', { as: 'block', size: [10, 10, 10], at: [0, 0, -10] }],
    ['rectangle', { as: 'mark', width: 4, height: 4, at: [8, 3, 0] }],
    ['emboss', { part: 'block', profiles: ['mark'], depth: 1 }],
  ];
  const found = places(statements, 'block');
  expect(found.length).toBeGreaterThan(0);
  for (const [x, , z] of found) {
    expect(x).toBeGreaterThan(10);
    expect(z).toBe(0);
  }
});
