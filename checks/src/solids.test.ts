/** Solids against closed formulas and laws from outside the project. */
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, measured, numbers, type Statement, trials } from '@kadrel/testing';
import { plateWithHoles } from './bench.ts';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

/** Measures agree with closed formulas to this, relative. */
const RELATIVE = 1e-9;
const agrees = (value: number, formula: number, relative = RELATIVE) =>
  expect(Math.abs(value / formula - 1)).toBeLessThan(relative);

describe('two equal cylinders crossing at a right angle', () => {
  // Source: Archimedes, The Method; Steinmetz. V = 16 r³ / 3, A = 16 r².
  test.each([1, 3, 12.5, 400])('radius %d', (r) => {
    // The kernel keeps edges in the parameters of a face to 1e-7 mm, which below some 2 mm is more than 1e-9 of the size.
    const relative = r < 2 ? 2e-9 : RELATIVE;
    const [diameter, height] = [2 * r, 6 * r];
    const document = built([
      ['cylinder', { as: 'upright', diameter, height, at: [0, 0, -3 * r] }],
      ['cylinder', { as: 'lying', diameter, height, at: [0, 0, 0] }],
      ['change', { parts: ['lying'], turn: ['0', '90', '0'] }],
      ['move', { parts: ['lying'], by: [-3 * r, 0, 0] }],
      ['intersect', { as: 'common', parts: ['upright', 'lying'] }],
    ]);
    const facts = measured(kernel, document, 'common');
    agrees(facts.volume, (16 * r ** 3) / 3, relative);
    agrees(facts.area, 16 * r ** 2, relative);
    expect(facts.watertight).toBe(true);
    facts.centroid.forEach((n) => expect(Math.abs(n)).toBeLessThan(1e-9 * r));
  });
});

test('a plate with 100 holes has the volume and the area that are left', () => {
  // Source: mensuration; the volume of a cylinder is π r² h, its side 2 π r h.
  const facts = measured(kernel, built(plateWithHoles(10, 10)), 'holed');
  agrees(facts.volume, 100 * 100 * 8 - 100 * Math.PI * 9 * 8);
  agrees(facts.area, 2 * (100 * 100 + 2 * 100 * 8) - 200 * Math.PI * 9 + 100 * 2 * Math.PI * 3 * 8);
  expect(facts).toMatchObject({ faces: 106, solids: 1, watertight: true });
});

test('a holed plate has the genus of its holes', () => {
  // Source: Euler–Poincaré, V − E + F = 2 (shells − genus) + (rings), with a ring for each inner border of a face.
  const [n, document] = [12, built(plateWithHoles(3, 4))];
  const { faces, edges } = measured(kernel, document, 'holed');
  // Each hole: a face, two rims, a seam, two vertices on them, and two inner borders (in top and bottom).
  const vertices = 8 + 2 * n;
  const rings = 2 * n;
  expect(vertices - edges + faces - rings).toBe(2 * (1 - n));
});

describe('inclusion and exclusion on random pairs', () => {
  // Source: inclusion–exclusion, vol(A ∪ B) + vol(A ∩ B) = vol A + vol B, and vol(A − B) = vol A − vol(A ∩ B).
  const random = numbers(20260105);
  const between = (low: number, high: number) => low + (high - low) * random();
  const solid = (as: string): Statement[] => {
    const at = [between(-6, 6), between(-6, 6), between(-6, 6)];
    const turn = random() < 0.5 ? ['0', '0', '0'] : [0, 1, 2].map(() => String(between(-180, 180)));
    const made: Statement =
      random() < 0.5
        ? ['box', { as, size: [between(5, 20), between(5, 20), between(5, 20)], at }]
        : ['cylinder', { as, diameter: between(5, 20), height: between(5, 25), at }];
    return [made, ['change', { parts: [as], turn }]];
  };
  const count = trials(200);
  const pairs = Array.from({ length: count }, () => [...solid('a'), ...solid('b')]);

  test('holds', () => {
    let met = 0;
    const errors: number[] = [];
    for (const pair of pairs) {
      const volume = (verb: 'union' | 'subtract' | 'intersect') => {
        const typed =
          verb === 'subtract' ? { as: 'r', from: 'a', parts: ['b'] } : { as: 'r', parts: ['a', 'b'] };
        const document = built([...pair, [verb, typed]]);
        return kernel.problemOf(document, Object.values(document.items).find((p) => p.name === 'r')!.id)
          ? 0
          : measured(kernel, document, 'r').volume;
      };
      const [a, b] = ['a', 'b'].map((name) => measured(kernel, built(pair), name).volume) as [number, number];
      const [union, less, common] = [volume('union'), volume('subtract'), volume('intersect')];
      if (common > 0) met += 1;
      errors.push(Math.max(Math.abs(union + common - a - b) / (a + b), Math.abs(less + common - a) / a));
    }
    expect(met).toBeGreaterThan(0.5 * count);
    errors.sort((x, y) => x - y);
    // Flat faces and square cuts are exact. Where a slanting cylinder is cut, the kernel's intersection curves are
    // approximations within 1e-7 mm, and the volume follows them.
    expect(errors[Math.floor(0.5 * count)]).toBeLessThan(1e-12);
    expect(errors[Math.floor(0.9 * count)]).toBeLessThan(2e-9);
    expect(errors.at(-1)).toBeLessThan(1e-7);
  });
});
