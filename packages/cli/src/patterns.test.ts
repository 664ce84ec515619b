/** The jobs that are done by hand in e2e/repeating.spec.ts, headless: the same numbers. */
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { runLedger } from './ledger.ts';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const run = (...ledger: object[]) => runLedger({ kadrel: 1, ledger }, kernel).document;
function measure(name: string, ...ledger: object[]) {
  const document = run(...ledger);
  const { id } = Object.values(document.items).find((item) => item.name === name)!;
  return kernel.measure(document, id);
}

const seat = { verb: 'box', as: 'Seat', size: [20, 20, 30], at: [80, -10, 0] };
const post = { verb: 'box', as: 'Post', size: [10, 10, 100] };

test('a ring of twelve every 30°, eight the day after, two left out', () => {
  const ring = { verb: 'around', as: 'Ring', parts: ['Seat'], count: 12, pitch: 30, at: [0, 0, 0] };
  expect(measure('Ring', seat, ring).volume).toBe(12 * 20 * 20 * 30);
  const fewer = [seat, ring, { verb: 'pattern', parts: ['Ring'], count: 8 }];
  expect(measure('Ring', ...fewer).volume).toBe(8 * 20 * 20 * 30);
  const out = { verb: 'omit', part: 'Ring', members: [2, 4] };
  expect(measure('Ring', ...fewer, out)).toMatchObject({
    volume: 6 * 20 * 20 * 30,
    solids: 6,
    watertight: true,
  });
});

test('twenty posts by pitch, then as a span, then a grid copied from the row', () => {
  const row = { verb: 'along', as: 'Row', parts: ['Post'], count: 20, pitch: 50 };
  const spanned = [
    post,
    row,
    { verb: 'pattern', parts: ['Row'], span: 'now' },
    { verb: 'pattern', parts: ['Row'], count: 39 },
  ];
  expect(measure('Row', post, row).box.max).toEqual([960, 10, 100]);
  expect(measure('Row', ...spanned)).toMatchObject({ box: { max: [960, 10, 100] }, solids: 39 });
  const grid = { verb: 'grid', as: 'Field', parts: ['Row'], rows: 4, rowPitch: 200 };
  expect(measure('Field', ...spanned, grid)).toMatchObject({ box: { max: [960, 610, 100] }, solids: 156 });
});

test('a ring of holes in a disc, and fewer of them', () => {
  const holes = [
    { verb: 'cylinder', as: 'Disc', diameter: 200, height: 10 },
    { verb: 'cylinder', as: 'Drill', diameter: 12, height: 20, at: [80, 0, -5] },
    { verb: 'around', as: 'Holes', parts: ['Drill'], count: 12, at: [0, 0, 0] },
    { verb: 'subtract', from: 'Disc', parts: ['Holes'] },
  ];
  const volume = (count: number) => Math.PI * (100 ** 2 - count * 6 ** 2) * 10;
  expect(measure('Disc', ...holes).volume).toBeCloseTo(volume(12), 6);
  expect(
    measure('Disc', ...holes, { verb: 'pattern', parts: ['Holes'], count: 'now - 5' }).volume,
  ).toBeCloseTo(volume(7), 6);
});

test('points and faces of single members are told by their number', () => {
  const row = { verb: 'along', as: 'Row', parts: ['Post'], count: 6, pitch: 50 };
  const ball = { verb: 'sphere', as: 'Ball', diameter: 10, at: [0, 0, 500] };
  // A ball's centroid comes with noise of some 1e-16.
  const onto = (to: object) =>
    measure('Ball', post, row, ball, {
      verb: 'move',
      parts: ['Ball'],
      from: [0, 0, 500],
      to,
    }).centroid.map((n) => Math.round(n * 1e9) / 1e9 + 0);
  expect(onto({ on: 'Row', at: 'top', member: 4 })).toEqual([155, 5, 100]);
  expect(onto({ on: 'Row', at: 'top&front&right', member: '6' })).toEqual([260, 0, 100]);
  expect(onto({ on: 'Row', at: 'top' })).toEqual([5, 5, 100]);
  expect(() => onto({ on: 'Row', at: 'top', member: 7 })).toThrow(/Row has no member 7/);
});

test('a part is seated on a member, and a row of parts is seated as one', () => {
  const row = { verb: 'along', as: 'Row', parts: ['Post'], count: 3, pitch: 50 };
  const plank = { verb: 'box', as: 'Plank', size: [130, 20, 5], at: [-5, -5, 400] };
  expect(measure('Plank', post, row, plank, { verb: 'seat', parts: ['Plank'] }).box.min[2]).toBe(100);
  const raised = [
    post,
    row,
    { verb: 'move', parts: ['Row'], by: [0, 0, 77] },
    { verb: 'seat', parts: ['Row'] },
  ];
  expect(measure('Row', ...raised).box.min).toEqual([0, 0, 0]);
});

test('a path along a picked edge: half the rim of a disc is πr long', () => {
  const document = run(
    { verb: 'cylinder', as: 'Disc', diameter: 200, height: 10 },
    { verb: 'box', as: 'Pin', size: [2, 2, 20], at: [100, 0, 10] },
    { verb: 'path', as: 'Pins', parts: ['Pin'], path: { on: 'Disc', at: 'side&top' }, count: 8 },
  );
  const { id } = Object.values(document.items).find(({ name }) => name === 'Pins')!;
  const { box, solids } = kernel.measure(document, id);
  expect(solids).toBe(8);
  // Square to the rim: the fifth of eight stands opposite, turned by 180°.
  expect(box.min[0]).toBeCloseTo(-102, 9);
  expect(box.max[0]).toBeCloseTo(102, 9);
});

test('STEP and STL write every member', () => {
  const document = run(post, { verb: 'along', as: 'Row', parts: ['Post'], count: 4, pitch: 50 });
  const { id } = Object.values(document.items).find(({ name }) => name === 'Row')!;
  const step = kernel.exported('step', {
    document,
    parts: [id],
    chordMm: 1,
    time: '2026-01-01T00:00:00',
  }) as string;
  expect(step.match(/MANIFOLD_SOLID_BREP/g)).toHaveLength(4);
  expect(step).toContain('Row 4');
  // Twelve facets a box.
  expect(
    new DataView(
      (kernel.exported('stl', { document, parts: [id], chordMm: 0.1, time: '' }) as Uint8Array).buffer,
    ).getUint32(80, true),
  ).toBe(48);
});
