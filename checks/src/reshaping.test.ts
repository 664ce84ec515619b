/** Drafted, reshaped and mirrored solids against formulas. */
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { builtBy, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const of = (...statements: Statement[]) => measured(kernel, builtBy(kernel, statements), 'block');
const block: Statement = ['box', { as: 'block', size: [10, 20, 30] }];
const reshape = (places: unknown, by: readonly number[], folds = 'beside'): Statement => [
  'reshape',
  { part: 'block', places, by, folds },
];
const problemOf = (...statements: Statement[]) => {
  const document = builtBy(kernel, statements);
  return kernel.problemOf(document, Object.keys(document.items)[0]!);
};

// Source: the prismatoid formula h/6 (A + 4·M + a).
test.each([5, -5])('all sides of a box drafted by %p°', (angle) => {
  const sides = ['front', 'back', 'left', 'right'];
  const made = of(block, ['draft', { part: 'block', faces: sides, angle, foot: 'bottom' }]);
  const at = (z: number) => {
    const inward = 2 * z * Math.tan((angle * Math.PI) / 180);
    return (10 - inward) * (20 - inward);
  };
  expect(made.volume / ((30 / 6) * (at(0) + 4 * at(15) + at(30)))).toBeCloseTo(1, 9);
  expect(made.faces).toBe(6);
  // A face that leans is still called what it was: it can be chosen again.
  const again: Statement = ['offset-face', { part: 'block', faces: 'top', by: 1 }];
  expect(of(block, ['draft', { part: 'block', faces: sides, angle, foot: 'bottom' }], again).box.max[2]).toBe(
    31,
  );
});

test('a round side becomes a cone', () => {
  const pin: Statement = ['cylinder', { as: 'block', diameter: 20, height: 30 }];
  const made = of(pin, ['draft', { part: 'block', faces: 'side', angle: 10, foot: 'bottom' }]);
  const top = 10 - 30 * Math.tan(Math.PI / 18);
  expect(made.volume / (((Math.PI * 30) / 3) * (100 + 10 * top + top ** 2))).toBeCloseTo(1, 9);
});

test('too steep says the largest angle', () => {
  const steep = problemOf(block, [
    'draft',
    { part: 'block', faces: 'left,right', angle: 20, foot: 'bottom' },
  ]);
  expect(steep?.remedy).toMatch(/largest angle that fits here is about 9\.4\d*°/);
});

test.each([
  ['the whole top, straight', 'top', [0, 0, 5], 10 * 20 * 35],
  ['the whole top, aside', 'top', [4, 3, 0], 6000],
  // A wedge of half the height that is added, times its base.
  ['an edge, up', 'top&right', [0, 0, 6], 6000 + (10 * 20 * 6) / 2],
  ['an edge, out', 'top&right', [4, 0, 0], 6000 + (4 * 30 * 20) / 2],
  // A tetrahedron over half of the top, or over all of it when it folds the other way.
  ['a corner, up, folding beside', 'top&front&right', [0, 0, 6], 6000 + (100 * 6) / 3],
] as const)('%s', (_, places, by, volume) => {
  expect(of(block, reshape(places, by)).volume).toBeCloseTo(volume, 6);
});

test('a corner, folding through it or warping', () => {
  const corner = 'top&front&right';
  // Two tetrahedra share the fold from the corner to the one opposite.
  expect(of(block, reshape(corner, [0, 0, 6], 'through')).volume).toBeCloseTo(6000 + (2 * (100 * 6)) / 3, 6);
  // Under a bilinear roof whose corners stand at 0, 0, 0 and 6 lies a quarter of 6 times the base.
  expect(of(block, reshape(corner, [0, 0, 6], 'warp')).volume).toBeCloseTo(6000 + (200 * 6) / 4, 6);
});

test('onto a point of another part', () => {
  const document = builtBy(kernel, [
    block,
    ['box', { as: 'roof', size: [10, 10, 10], at: [40, 0, 37] }],
    [
      'reshape',
      {
        part: 'block',
        places: 'top',
        from: { on: 'block', at: 'top&front&left' },
        to: [0, 0, 37],
      },
    ],
  ]);
  expect(measured(kernel, document, 'block').box.max[2]).toBe(37);
});

test('a shape that would run through itself, or is round, is refused with a place', () => {
  expect(problemOf(block, reshape('top', [0, 0, -40]))).toMatchObject({ step: 0 });
  const round = problemOf(
    block,
    ['fillet', { part: 'block', edges: 'along z', radius: 2 }],
    reshape('top', [0, 0, 5]),
  );
  expect(round).toMatchObject({ step: 1, reason: expect.stringContaining('all flat') as string });
  expect(round!.places.length).toBeGreaterThan(0);
});

test('half a model and its mirror image are one', () => {
  const half: Statement[] = [
    block,
    ['fillet', { part: 'block', edges: 'right&top', radius: 3 }],
    ['mirror-join', { part: 'block', plane: 'side' }],
  ];
  const made = of(...half);
  expect(made.volume / (2 * (6000 - (1 - Math.PI / 4) * 9 * 20))).toBeCloseTo(1, 9);
  expect(made.box).toEqual({ min: [-10, 0, 0], max: [10, 20, 30] });
  expect(made.solids).toBe(1);
});

test('halves that would touch along an edge only are no solid, and are refused there', () => {
  const wedged: Statement[] = [
    block,
    ['reshape', { part: 'block', places: 'left&top', by: [2, 0, 0], folds: 'beside' }],
  ];
  const problem = problemOf(...wedged, ['mirror-join', { part: 'block', plane: 'side' }]);
  expect(problem).toMatchObject({ step: 1, reason: expect.stringContaining('only touch') as string });
  expect(problem!.places).toEqual([[0, 10, 0]]);
});

test('a ring joined with its image, or united with one that was turned, is drawn, and has a hull', () => {
  // Pieces of a ring were merged into one face without edges, which the kernel cannot lay out.
  const ring: Statement = ['torus', { as: 'block', diameter: 40, thickness: 8 }];
  const join: Statement = ['mirror-join', { part: 'block', plane: 'side' }];
  const united = builtBy(kernel, [
    ring,
    ['torus', { as: 'other', diameter: 40, thickness: 8 }],
    ['turn', { parts: ['other'], angle: 180, about: 'z' }],
    ['union', { as: 'both', parts: ['block', 'other'] }],
  ]);
  for (const document of [builtBy(kernel, [ring, join]), united]) {
    const { snaps } = kernel.facts(document, idOf(document, document === united ? 'both' : 'block'));
    expect(snaps.triangles.length).toBeGreaterThan(100);
  }
  // A disc with a rim in the shape of half a ring. Source: Pappus, the second theorem.
  const [far, thick] = [20, 4];
  const half = 2 * Math.PI * (far + (4 * thick) / (3 * Math.PI)) * ((Math.PI * thick ** 2) / 2);
  const part =
    of(ring, join, ['hull', { part: 'block', chord: 0.1 }]).volume / (Math.PI * far ** 2 * 2 * thick + half);
  expect(part).toBeLessThan(1);
  expect(part).toBeGreaterThan(0.99);
});

test('the wall of a bore moves as one, also where two faces make it up', () => {
  const { volume } = measured(
    kernel,
    builtBy(kernel, [
      ['box', { as: 'block', size: [40, 30, 20] }],
      ['cylinder', { as: 'drill', diameter: 8, height: 40, at: [20, 15, -10] }],
      ['subtract', { as: 'plate', from: 'block', parts: ['drill'] }],
      ['offset-face', { part: 'plate', faces: ['top'], by: '10' }],
      ['offset-face', { part: 'plate', faces: ['drill.side'], by: '-1' }],
    ]),
    'plate',
  );
  expect(volume / ((1200 - Math.PI * 25) * 30)).toBeCloseTo(1, 9);
});

describe('hulls', () => {
  const hull = (part: string, more = {}): Statement => ['hull', { part, ...more }];
  const of = (statements: readonly Statement[], name: string) =>
    measured(kernel, builtBy(kernel, statements), name);

  test('the hull of two boxes corner to corner is exact', () => {
    const boxes: readonly Statement[] = [
      ['box', { as: 'a', size: [10, 10, 10] }],
      ['box', { as: 'b', size: [10, 10, 10], at: [10, 0, 10] }],
      ['box', { as: 'c', size: [10, 10, 10], at: [10, 0, 0] }],
      ['union', { as: 'steps', parts: ['a', 'b', 'c'] }],
      hull('steps'),
    ];
    // A square of side 20 less the triangle above the step.
    const made = of(boxes, 'steps');
    expect(made.volume).toBeCloseTo((400 - 50) * 10, 9);
    expect(made).toMatchObject({ faces: 7, watertight: true, solids: 1 });
  });

  test('what is convex stays as it is, and keeps the names of its faces', () => {
    const roof: readonly Statement[] = [
      ['wedge', { as: 'roof', size: [30, 20, 10], top: 5, lean: 'middle' }],
      hull('roof'),
    ];
    const [before, after] = [of(roof.slice(0, 1), 'roof'), of(roof, 'roof')];
    expect(after.volume).toBeCloseTo(before.volume, 9);
    const raised = of(
      [...roof, ['offset-face', { part: 'roof', faces: ['bottom'], by: '5', sides: 'straight' }]],
      'roof',
    );
    expect(raised.volume - after.volume).toBeCloseTo(600 * 5, 8);
  });

  // A disc as thick as the ring, with a half disc turned round its rim, whose centroid is 4r / 3π off its straight side.
  // Source: Pappus and Guldin, in any handbook of mensuration.
  test('the hull of a ring fills its hole, as nearly as its facets', () => {
    const ring: readonly Statement[] = [
      ['torus', { as: 'ring', diameter: 40, thickness: 10, at: [0, 0, 0] }],
    ];
    const exact = Math.PI * 400 * 10 + 2 * Math.PI * ((Math.PI * 25) / 2) * (20 + (4 * 5) / (3 * Math.PI));
    const made = of([...ring, hull('ring', { chord: '0.05' })], 'ring');
    expect(made.volume).toBeLessThan(exact);
    expect(made.volume / exact).toBeGreaterThan(0.99);
    expect(made).toMatchObject({ watertight: true, solids: 1 });
  });
});
