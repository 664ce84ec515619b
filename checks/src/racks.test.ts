/** Parts of the starter rack against what their standards say. */
import {
  USUAL_SCOPE,
  docksReport,
  gatheredPart,
  partNamed,
  rackPartFault,
  starterRack,
  type KadrelDocument,
} from '@kadrel/core';
import { Evaluator, fitReportOf, worldOf } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { builtBy, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = new Evaluator(await sharedLibraries());
});

const built = (...statements: Statement[]) => builtBy(kernel, statements);
const taken = (part: string, size?: string, values?: object): KadrelDocument =>
  built(['take', { part, as: 'it', ...(size ? { size } : {}), ...(values ? { values } : {}) }]);
const measured = (document: KadrelDocument) => kernel.measure(document, partNamed(document, 'it')!.id);
const sizeOf = (document: KadrelDocument) => {
  const { min, max } = measured(document).box;
  return max.map((n, i) => n - min[i]!);
};

test('every part is sound, at each of its sizes too', () => {
  for (const part of starterRack().parts) {
    expect(rackPartFault(part)).toBeUndefined();
    for (const { name } of [{ name: undefined }, ...part.sizes]) {
      const { watertight, volume } = measured(taken(part.name, name));
      expect([part.name, name, watertight, volume > 0]).toEqual([part.name, name, true, true]);
    }
  }
});

/** Across flats, head; across flats, height; bore, outside, thickness. Source: ISO 4014/4017, ISO 4032, ISO 7089, from memory. */
test.each([
  ['M3', 5.5, 2, 5.5, 2.4, 3.2, 7, 0.5],
  ['M4', 7, 2.8, 7, 3.2, 4.3, 9, 0.8],
  ['M5', 8, 3.5, 8, 4.7, 5.3, 10, 1],
  ['M6', 10, 4, 10, 5.2, 6.4, 12, 1.6],
  ['M8', 13, 5.3, 13, 6.8, 8.4, 16, 1.6],
  ['M10', 16, 6.4, 16, 8.4, 10.5, 20, 2],
  ['M12', 18, 7.5, 18, 10.8, 13, 24, 2.5],
])('bolt, nut and washer %s', (size, flats, head, nutFlats, nutHigh, bore, outside, thick) => {
  const [x, y, z] = sizeOf(taken('Hexagon head bolt', size, { shank: 30 }));
  expect(Math.min(x!, y!)).toBeCloseTo(flats, 9);
  expect(z).toBeCloseTo(head + 30, 9);
  const nut = taken('Hexagon nut', size);
  expect(Math.min(...sizeOf(nut).slice(0, 2))).toBeCloseTo(nutFlats, 9);
  expect(sizeOf(nut)[2]).toBeCloseTo(nutHigh, 9);
  // A regular hexagon by its width across flats: area √3/2 · s².
  const thread = Number(size.slice(1));
  const face = (Math.sqrt(3) / 2) * nutFlats ** 2 - (Math.PI / 4) * thread ** 2;
  expect(measured(nut).volume).toBeCloseTo(face * nutHigh, 6);
  expect(measured(taken('Plain washer', size)).volume).toBeCloseTo(
    (Math.PI / 4) * (outside ** 2 - bore ** 2) * thick,
    6,
  );
});

/** cm² by the size. Source: EN 10056-1 and EN 10210-2, from memory. */
test.each([
  ['Steel angle', '50 × 50 × 5', 4.8],
  ['Steel angle', '100 × 100 × 10', 19.2],
  ['Square tube', '50 × 50 × 4', 7.19],
  ['Square tube', '100 × 100 × 6', 22.2],
  ['Round tube', '48.3 × 3.6', 5.06],
  ['Round tube', '60.3 × 4', 7.07],
])('%s %s has a cross-section of %f cm²', (name, size, area) => {
  const section = measured(taken(name, size, { long: 1000 })).volume / 1000 / 100;
  expect(Math.abs(section - area) / area).toBeLessThan(0.005);
});

test('twelve tiles and a tower from the rack stand on the bed, every joint closed, and nothing is wrong with how they stand', async () => {
  const steps: Statement[] = [['take', { part: 'Tower', as: 'tile 0' }]];
  for (let i = 1; i <= 12; i++) {
    const part = i % 2 === 1 ? 'Straight track' : 'Bend track';
    // Bends go round to the right by one end and to the left by the other, so that the run never meets itself.
    const by = i % 4 === 0 ? 'B' : 'A';
    steps.push(['take', { part, as: `tile ${i}`, onto: `tile ${i - 1}`, by }]);
  }
  const document = built(...steps);
  const world = worldOf(document, kernel, () => '');
  const { joints } = docksReport(document, (one, variant) => world.shapeOf(one, variant));
  expect(joints.map(({ isClosed, misfit }) => isClosed && misfit === undefined)).toEqual(
    Array(12).fill(true),
  );
  const { faults } = await fitReportOf(kernel, document, USUAL_SCOPE);
  expect(faults).toBe(0);
});

test('a bolt through two plates: drilled for M8, taken onto the hole, then M10, and still joined', () => {
  const steps: Statement[] = [
    ['box', { as: 'lower', size: [60, 60, 8] }],
    ['box', { as: 'upper', size: [60, 60, 10], at: [0, 0, 8] }],
    ['hole', { at: { on: 'lower', at: 'top' }, thread: 'M8' }],
    ['hole', { at: { on: 'upper', at: 'top' }, thread: 'M8' }],
    ['take', { part: 'Hexagon head bolt', size: 'M8', onto: 'upper: hole', as: 'bolt' }],
    ['take', { part: 'Hexagon nut', size: 'M8', onto: 'lower: hole 2', as: 'nut' }],
  ];
  const document = built(...steps);
  const box = (name: string, of: KadrelDocument) => kernel.measure(of, partNamed(of, name)!.id).box;
  expect(box('bolt', document).max[2]).toBeCloseTo(18 + 5.3, 9);
  expect(box('bolt', document).min[2]).toBeCloseTo(18 - 40, 9);
  expect(box('nut', document).max[2]).toBeCloseTo(0, 9);
  const volume = 60 * 60 * 8 - (Math.PI / 4) * 9 ** 2 * 8;
  expect(kernel.measure(document, partNamed(document, 'lower')!.id).volume).toBeCloseTo(volume, 6);
  const larger = built(...steps, ['change-taken', { part: 'bolt', size: 'M10' }]);
  expect(box('bolt', larger).max[2]).toBeCloseTo(18 + 6.4, 9);
  expect(Object.values(larger.joints)).toHaveLength(2);
});

test('docks that follow faces join there at any size', () => {
  const kit = built(
    ['variable', { name: 'long', value: '60' }],
    ['box', { as: 'arm', size: ['long', 40, 20] }],
    ['dock', { at: { on: 'arm', at: 'right' }, called: 'tip', kind: 'arm' }],
  );
  const arm = {
    ...gatheredPart(kit, partNamed(kit, 'arm')!.id, {
      id: 'arm1',
      version: 1,
      name: 'Arm',
      about: '',
      words: [],
    }),
    sizes: [{ name: 'long', values: { long: '150' } }],
  };
  const document = built(
    ['box', { as: 'wall', size: [10, 100, 100] }],
    ['dock', { at: { on: 'wall', at: 'right' }, called: 'seat', kind: 'arm' }],
    ['take', { part: arm, size: 'long', onto: 'wall: seat', as: 'it' }],
  );
  const { box } = measured(document);
  expect([box.min[0], box.max[0]]).toEqual([10, 160]);
  expect(
    docksReport(document, (part, variant) => worldOf(document, kernel, () => '').shapeOf(part, variant))
      .joints,
  ).toMatchObject([{ isClosed: true }]);
});
