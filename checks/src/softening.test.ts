/** Soft forms against values that the same cages come to elsewhere, and against ever finer cages. */
import type { FaceFacts } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { builtBy, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const of = (...statements: Statement[]) => measured(kernel, builtBy(kernel, statements), 'block');
const cube: Statement = ['box', { as: 'block', size: [10, 10, 10] }];
const soften = (level: number, form = 'smooth'): Statement => ['soften', { part: 'block', level, form }];
/** A cube grows on its four sides into a cross of five. */
const cross: readonly Statement[] = [
  cube,
  ['offset-face', { part: 'block', faces: ['front', 'back', 'left', 'right'], by: '10', sides: 'copy' }],
];

test('a cross of five cubes has a cage of 22 faces', () => {
  const made = of(...cross);
  expect(made.volume).toBeCloseTo(5000, 9);
  expect(made.faces).toBe(22);
});

// 327.2003, 3271.918 and the limits 327.61 and 3272.31 were found with the raw kernel and with meshes refined six times before this
// was written (kernel notes, 16); no published source.
test.each([
  ['a cube', [cube], 1, 327.2003, 24],
  ['a cross', cross, 1, 3271.918, 88],
] as const)('%s, softened', (_, cage, level, volume, faces) => {
  const made = of(...cage, soften(level));
  expect(Math.abs(made.volume - volume)).toBeLessThan(1e-3);
  expect(made).toMatchObject({ watertight: true, closed: true, solids: 1, faces });
});

test('more levels come nearer to the limit, from patches and from facets', () => {
  const limit = 327.61;
  const off = [1, 2].map((level) => Math.abs(of(cube, soften(level)).volume / limit - 1));
  expect(off[0]).toBeLessThan(0.0015);
  expect(off[1]!).toBeLessThan(off[0]!);
  // Facets that are twice as fine are off by a quarter: the corners of the cage lie on one another's limit to second order.
  const facets = [1, 2, 3].map((level) => of(cube, soften(level, 'facets')).volume - limit);
  expect(facets[1]! / facets[0]!).toBeGreaterThan(0.15);
  expect(facets[1]! / facets[0]!).toBeLessThan(0.35);
  expect(facets[2]! / facets[1]!).toBeGreaterThan(0.15);
  expect(facets[2]! / facets[1]!).toBeLessThan(0.35);
});

test('a soft form takes a bore, and follows its cage', () => {
  const document = builtBy(kernel, [
    ...cross,
    soften(1),
    ['cylinder', { as: 'drill', diameter: 3, height: 40, at: [5, 5, -10] }],
    ['subtract', { as: 'bored', from: 'block', parts: ['drill'] }],
  ]);
  const { volume, watertight } = measured(kernel, document, 'bored');
  // The cross is nearly flat in its middle, where it is bored: about its height times the circle is gone.
  const gone = 3271.918 - volume;
  expect(watertight).toBe(true);
  expect(gone / (Math.PI * 1.5 ** 2 * 10)).toBeGreaterThan(0.8);
  expect(gone / (Math.PI * 1.5 ** 2 * 10)).toBeLessThan(1);
  const larger = of(cube, soften(1), ['change', { parts: ['block'], size: ['20', '20', '20'] }]);
  expect(larger.volume / 8).toBeCloseTo(of(cube, soften(1)).volume, 8);
});

describe('creases', () => {
  const creased = (level: number, sharp: readonly string[], more = {}): Statement => [
    'soften',
    { part: 'block', level, sharp, ...more },
  ];

  test('with all its edges sharp a cage stays what it is, to the last digit', () => {
    const made = of(cube, creased(1, ['all']));
    expect(made.volume).toBeCloseTo(1000, 9);
    expect(made.area).toBeCloseTo(600, 9);
    expect(of(...cross, creased(1, ['all'])).volume).toBeCloseTo(5000, 8);
  });

  // A sharp ring is a closed cubic B-spline of its corners: of a square of side a, however fine, it encloses 61/90 of a²
  // (Green's formula on the curve's four pieces, worked out by hand; no published source).
  test('the sharp ring round a face is the curve that its corners control, and stays in its plane', () => {
    const document = builtBy(kernel, [cube, creased(1, ['around top'])]);
    const made = measured(kernel, document, 'block');
    expect(made.box.max[2]).toBeCloseTo(10, 9);
    expect(made).toMatchObject({ watertight: true, closed: true, solids: 1, faces: 24 });
    const question = { ask: 'face', part: idOf(document, 'block'), names: ['top'] } as const;
    const { area } = kernel.answer(document, question) as FaceFacts;
    expect(area / (100 * (61 / 90))).toBeCloseTo(1, 9);
    // Facets come nearer to their limit by three quarters with each level, and the patches lie there already (Richardson).
    const facets = (level: number) => of(cube, creased(level, ['around top'], { form: 'facets' })).volume;
    const limit = facets(3) + (facets(3) - facets(2)) / 3;
    expect(Math.abs(of(cube, creased(2, ['around top'])).volume / limit - 1)).toBeLessThan(0.001);
  });

  // With all edges sharp by s, each corner of the cage goes s of the way from its soft to its sharp place the first time (DeRose, Kass,
  // Truong 1998), so that the first facets are as far out as that says; what comes after is soft.
  test('edges that are sharp in part lie between soft and sharp ones, and the patches on the limit of the facets', () => {
    const inPart = (level: number, sharpness: string, more = {}) =>
      of(cube, creased(level, ['all'], { sharpness, ...more }));
    const soft = of(cube, soften(1, 'facets')).box.min[0];
    for (const part of [0.25, 0.5, 0.9])
      expect(inPart(1, String(100 * part), { form: 'facets' }).box.min[0]).toBeCloseTo((1 - part) * soft, 9);
    const volumes = ['20', '50', '80', '100'].map((sharpness) => inPart(1, sharpness).volume);
    expect(volumes).toEqual(volumes.toSorted((a, b) => a - b));
    expect(volumes[0]).toBeGreaterThan(of(cube, soften(1)).volume);
    expect(volumes[3]).toBeCloseTo(1000, 9);
    const facets = (level: number) => inPart(level, '50', { form: 'facets' }).volume;
    const limit = facets(3) + (facets(3) - facets(2)) / 3;
    const made = inPart(2, '50');
    expect(Math.abs(made.volume / limit - 1)).toBeLessThan(0.002);
    expect(made).toMatchObject({ watertight: true, closed: true, solids: 1 });
    expect(() => of(cube, creased(1, ['all'], { sharpness: '150' }))).toThrow('from 1 to 100');
  });

  test('edges have a sharpness each, in the order in which they were chosen', () => {
    const each = (sharp: readonly string[], sharpnesses: string, more = {}) =>
      of(cube, creased(1, sharp, { sharpnesses, ...more }));
    const rings = ['around top', 'around bottom'];
    expect(each(rings, '40, 40').volume).toBe(of(cube, creased(1, rings, { sharpness: '40' })).volume);
    expect(each(rings, '100', { sharpness: '40' }).volume).toBe(each(rings, '100, 40').volume);
    // Upside down it is the same form.
    expect(each(rings, '100, 40').volume).toBeCloseTo(each(rings, '40, 100').volume, 9);
    expect(each(rings, '100, 40').box.max[2]).toBeCloseTo(10, 9);
    expect(each(rings, '100, 40').box.min[2]).toBeGreaterThan(0.1);
    expect(() => each(rings, '10, 20, 30')).toThrow('There are 3 sharpnesses for 2 edges or rules.');
    expect(() => each(rings, '10, 120')).toThrow('Each sharpness is from 1 to 100 percent.');
  });

  test('a sharp corner stays where it is, and the rest is as smooth as before', () => {
    const made = of(cube, creased(1, [], { corners: ['back & right & top'] }));
    expect(made.box.max).toEqual([10, 10, 10].map((n) => expect.closeTo(n, 9) as number));
    expect(made.box.min[0]).toBeCloseTo(of(cube, soften(1)).box.min[0], 9);
    expect(made).toMatchObject({ watertight: true, solids: 1 });
  });
});

test('the cage of a soft form is told by its edges, and takes steps while Soften is off', () => {
  const off: Statement = ['step', { part: 'block', state: 'off' }];
  const on: Statement = ['step', { part: 'block', step: '2', state: 'on' }];
  const higher: Statement = ['offset-face', { part: 'block', faces: 'top', by: 10 }];
  const document = builtBy(kernel, [cube, soften(1)]);
  const ends = kernel.answer(document, { ask: 'cage', part: idOf(document, 'block') }) as readonly number[];
  expect(ends).toHaveLength(12 * 6);
  const lengths = Array.from({ length: 12 }, (_, i) =>
    Math.hypot(...[0, 1, 2].map((k) => ends[6 * i + 3 + k]! - ends[6 * i + k]!)),
  );
  for (const length of lengths) expect(length).toBeCloseTo(10, 9);
  // What is done to the cage comes out as if it had been there first.
  const under = builtBy(kernel, [cube, soften(1), off, higher, on]);
  const first = builtBy(kernel, [cube, higher, soften(1)]);
  expect(under.items[idOf(under, 'block')]!.recipe).toEqual(first.items[idOf(first, 'block')]!.recipe);
  const plain = builtBy(kernel, [cube]);
  expect(kernel.answer(plain, { ask: 'cage', part: idOf(plain, 'block') })).toEqual([]);
});

describe('cages with a hole', () => {
  const hole = (more: Statement): readonly Statement[] => [
    ['box', { as: 'outside', size: [30, 30, 10], at: [-15, -15, 0] }],
    more,
    ['subtract', { as: 'block', from: 'outside', parts: ['inside'] }],
  ];
  const square: Statement = ['box', { as: 'inside', size: [10, 10, 30], at: [-5, -5, -10] }];

  // Faces, edges and corners of what goes round one hole: F − E + V = 0 (Euler and Poincaré).
  test('a frame becomes a smooth ring with a hole, as near to its limit as its facets say', () => {
    const statements = (level: number, form?: string): readonly Statement[] => [
      ...hole(square),
      soften(level, form),
    ];
    const made = of(...statements(1));
    expect(made).toMatchObject({ watertight: true, closed: true, solids: 1, faces: 64, edges: 128 });
    const facets = (level: number) => of(...statements(level, 'facets')).volume;
    const limit = facets(2) + (facets(2) - facets(1)) / 3;
    expect(Math.abs(made.volume / limit - 1)).toBeLessThan(0.01);
    // As the cage is, so it is alike in X and in Y.
    expect(made.box.max[0]).toBeCloseTo(made.box.max[1], 9);
    expect(made.box.max[0]).toBeCloseTo(-made.box.min[0], 9);
  });

  test('a hole with other corners is gone round too', () => {
    const six: Statement = ['prism', { as: 'inside', sides: 6, width: 12, height: 30, at: [0, 0, -10] }];
    expect(of(...hole(six), soften(1))).toMatchObject({ watertight: true, closed: true, solids: 1 });
  });
});

describe('cages with several holes', () => {
  const slab = (...holes: readonly (readonly [string, number, number])[]): readonly Statement[] => [
    ['box', { as: 'block', size: [60, 30, 10] }],
    ...holes.flatMap(([as, x, size]): Statement[] => [
      ['box', { as, size: [size, size, 30], at: [x, 15 - size / 2, -10] }],
      ['subtract', { from: 'block', parts: [as] }],
    ]),
  ];
  const TWO = slab(['left', 10, 10], ['right', 40, 10]);

  test('a slab with two holes is smooth and closed, as near to its limit as its facets say', () => {
    const made = of(...TWO, soften(1));
    expect(made).toMatchObject({ watertight: true, closed: true, solids: 1 });
    const facets = (level: number) => of(...TWO, soften(level, 'facets')).volume;
    const limit = facets(2) + (facets(2) - facets(1)) / 3;
    expect(Math.abs(made.volume / limit - 1)).toBeLessThan(0.01);
    expect(made.volume).toBeGreaterThan(0.3 * (60 * 30 - 200) * 10);
  });

  test('three holes of other sizes are gone round too, by quads alone once they are refined', () => {
    const three = slab(['left', 6, 8], ['middle', 25, 12], ['right', 46, 6]);
    const made = of(...three, soften(1));
    expect(made).toMatchObject({ watertight: true, closed: true, solids: 1 });
    // Each quad has four edges, each of two quads.
    expect(made.edges).toBe(2 * made.faces);
  });
});

test.each([
  [[['cylinder', { as: 'block', diameter: 10, height: 10 }], soften(1)], 'faces are all flat'],
  [[cube, soften(4, 'facets')], 'faces, and 1600 is the most'],
] as const)('%p is refused in words', (statements, words) => {
  const document = builtBy(kernel, statements as readonly Statement[]);
  expect(kernel.problemOf(document, Object.keys(document.items)[0]!)).toMatchObject({
    step: 0,
    reason: expect.stringContaining(words) as string,
  });
});
