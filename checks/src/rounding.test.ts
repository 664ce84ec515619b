/** Fillets, chamfers, shells and moved faces against formulas. */
import { chosenOfStep, distance, type MadeFaces, type Vec3 } from '@kadrel/core';
import { faceNamesOf, type Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { builtBy, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const of = (...statements: Statement[]) => measured(kernel, builtBy(kernel, statements), 'block');
const refusalOf = (...statements: Statement[]): string => {
  try {
    const document = builtBy(kernel, statements);
    const [part] = Object.values(document.items);
    const problem = kernel.problemOf(document, part!.id);
    return problem ? `${problem.reason} ${problem.remedy}` : '';
  } catch (error) {
    return (error as Error).message;
  }
};
const block = (...size: number[]): Statement => ['box', { as: 'block', size }];
const fillet = (edges: unknown, radius: number, more = {}): Statement => [
  'fillet',
  { part: 'block', edges, radius, ...more },
];
const chamfer = (edges: unknown, width: number, more = {}): Statement => [
  'chamfer',
  { part: 'block', edges, width, ...more },
];
const shell = (thickness: number, open?: unknown, more = {}): Statement => [
  'shell',
  { part: 'block', thickness, ...(open === undefined ? {} : { open }), ...more },
];
const push = (faces: unknown, by: number, more = {}): Statement => [
  'offset-face',
  { part: 'block', faces, by, ...more },
];

// Source: J. Steiner 1840: a box with all edges rounded is the box within it with a ball of the radius all round.
test.each([0.1, 0.5, 1, 2.5, 4, 4.9])('a box with all edges rounded by %p', (r) => {
  const [a, b, c] = [10 - 2 * r, 20 - 2 * r, 30 - 2 * r];
  const wanted =
    a * b * c + 2 * (a * b + b * c + c * a) * r + Math.PI * (a + b + c) * r ** 2 + (4 / 3) * Math.PI * r ** 3;
  const made = of(block(10, 20, 30), fillet('all', r));
  expect(made.volume / wanted).toBeCloseTo(1, 9);
  expect(made).toMatchObject({ watertight: true, solids: 1, faces: 26 });
  expect(made.box).toEqual({ min: [0, 0, 0], max: [10, 20, 30] });
});

// A fillet of radius r takes (1 − π/4)·r² off a square edge for each mm, and fills as much into an inward one.
const CORNER = 1 - Math.PI / 4;
test.each([
  ['top&front', 10],
  ['along z', 4 * 30],
  [['top&front', 'bottom&back'], 2 * 10],
  ['x', 4 * 10],
])('edges %p of a box', (edges, length) => {
  expect(of(block(10, 20, 30), fillet(edges, 2)).volume).toBeCloseTo(6000 - CORNER * 4 * length, 8);
});

test('a rule follows the size, and an inward edge is filled', () => {
  const step: Statement[] = [
    ['box', { as: 'low', size: [40, 20, 10] }],
    ['box', { as: 'high', size: [20, 20, 30] }],
    ['union', { as: 'block', parts: ['low', 'high'] }],
  ];
  const plain = of(...step).volume;
  expect(of(...step, fillet('inward', 3)).volume - plain).toBeCloseTo(CORNER * 9 * 20, 8);
  const rounded: Statement[] = [block(10, 20, 30), fillet('along z', 2)];
  expect(of(...rounded, ['change', { parts: ['block'], size: ['10', '20', '50'] }]).volume).toBeCloseTo(
    10 * 20 * 50 - CORNER * 4 * 200,
    8,
  );
});

test('where two parts met, whatever they are', () => {
  const made = of(
    ['box', { as: 'plate', size: [40, 40, 10], at: [-20, -20, 0] }],
    ['cylinder', { as: 'post', diameter: 16, height: 30 }],
    ['union', { as: 'block', parts: ['plate', 'post'] }],
    fillet('met', 2),
  );
  // Pappus: a ring whose section is the corner between the square and the arc, its centroid (10 − 3π)/(12 − 3π)·r from the corner.
  const section = CORNER * 4;
  const centroid = (2 * (10 - 3 * Math.PI)) / (12 - 3 * Math.PI);
  const ring = 2 * Math.PI * (8 + centroid) * section;
  expect(made.volume).toBeCloseTo(16_000 + Math.PI * 64 * 20 + ring, 6);
});

// A ball of radius r that rolls in the corner outside two cylinders keeps R₁ + r from the one axis and R₂ + r from the other: its
// centre runs along where those two wider cylinders cross, and the fillet is everywhere r from that curve. The kernel lays it in arcs
// across the edge: where it meets the cylinders it is that to 1e-5 mm, and between them within a thousandth of the radius.
test('a fillet between two crossing cylinders has the radius that it says, at 100 points', () => {
  const [thick, thin, r] = [12, 8, 2];
  const document = builtBy(kernel, [
    ['cylinder', { as: 'post', diameter: 2 * thick, height: 80, at: [0, 0, -40] }],
    ['cylinder', { as: 'arm', diameter: 2 * thin, height: 40 }],
    ['change', { parts: ['arm'], turn: ['0', '90', '0'] }],
    ['union', { as: 'block', parts: ['post', 'arm'] }],
    fillet('met', r),
  ]);
  const part = idOf(document, 'block');
  const { corners } = kernel.answer(document, { ask: 'made', part, step: 0 }) as MadeFaces;
  const count = corners.length / 3;
  expect(count).toBeGreaterThan(100);
  const centre = (angle: number): Vec3 => {
    const [y, z] = [(thin + r) * Math.cos(angle), (thin + r) * Math.sin(angle)];
    return [Math.sqrt((thick + r) ** 2 - y ** 2), y, z];
  };
  let [between, beside] = [0, 0];
  for (let i = 0; i < 100; i++) {
    const at = 3 * Math.floor((i * count) / 100);
    const point: Vec3 = [corners[at]!, corners[at + 1]!, corners[at + 2]!];
    const off = Math.abs(minAlong((angle) => distance(point, centre(angle))) - r);
    const [x, y, z] = point;
    const isOnCylinder = Math.hypot(x, y) - thick < 1e-5 || Math.hypot(y, z) - thin < 1e-5;
    if (isOnCylinder) beside = Math.max(beside, off);
    else between = Math.max(between, off);
  }
  expect(beside).toBeLessThan(1e-5);
  expect(between).toBeLessThan(r / 1000);
});

/** The least value over a full turn: coarsely, then by thirds. */
function minAlong(value: (angle: number) => number): number {
  const steps = 720;
  const coarse = Array.from({ length: steps }, (_, i) => (2 * Math.PI * i) / steps);
  const best = coarse.reduce((a, b) => (value(b) < value(a) ? b : a));
  let [low, high] = [best - (2 * Math.PI) / steps, best + (2 * Math.PI) / steps];
  for (let i = 0; i < 60; i++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (value(a) < value(b)) high = b;
    else low = a;
  }
  return value((low + high) / 2);
}

test.each([
  [{}, 2 * 2 * 0.5],
  [{ second: '4' }, 2 * 4 * 0.5],
  [{ angle: '60' }, 2 * 2 * Math.tan(Math.PI / 3) * 0.5],
])('a chamfer with %p takes its triangle off', (more, section) => {
  const made = of(block(10, 20, 30), chamfer('front&top', 2, more));
  expect(made.volume).toBeCloseTo(6000 - section * 10, 8);
});

// Three bars of w²/2 meet at each corner: each two share w³/3, all three w³/4; a triangle through the ends of their sides takes
// another w³/12 off. Own derivation by inclusion and exclusion.
test('all edges of a cube chamfered', () => {
  const [s, w] = [10, 2];
  const made = of(block(s, s, s), chamfer('all', w));
  expect(made.faces).toBe(26);
  expect(made.volume).toBeCloseTo(s ** 3 - 12 * (w ** 2 / 2) * s + 8 * w ** 3 * (3 / 3 - 1 / 4 - 1 / 12), 6);
});

describe('a radius for each edge', () => {
  test('edges that do not meet take off what each radius says', () => {
    const edges = ['top&front', 'bottom&back'];
    const made = of(block(10, 20, 30), fillet(edges, 1, { radii: [2, 3] }));
    expect(made.volume).toBeCloseTo(6000 - CORNER * (4 + 9) * 10, 8);
    // What has none of its own has the radius.
    expect(of(block(10, 20, 30), fillet(edges, 1, { radii: '3' })).volume).toBeCloseTo(
      6000 - CORNER * (9 + 1) * 10,
      8,
    );
  });

  test('of a rule one edge has another radius: the last choice that says one holds', () => {
    const made = of(block(10, 20, 30), fillet(['z', 'front&left'], 1, { radii: '1, 3' }));
    expect(made.volume).toBeCloseTo(6000 - CORNER * (3 + 9) * 30, 8);
  });

  test('three edges of three radii meet in a corner, and the solid is whole', () => {
    const made = of(
      block(10, 20, 30),
      fillet(['top&front', 'front&left', 'top&left'], 1, { radii: '1, 2, 3' }),
    );
    expect(made).toMatchObject({ watertight: true, solids: 1 });
    const [alone, together] = [CORNER * (1 * 10 + 4 * 30 + 9 * 20), 6000 - made.volume];
    // At the corner they take less than each for itself, by no more than a cube of the largest radius.
    expect(together).toBeLessThan(alone);
    expect(together).toBeGreaterThan(alone - 27);
  });

  test('radii follow variables, and are changed, added and emptied afterwards', () => {
    const statements: Statement[] = [
      ['variable', { name: 'small', value: '2' }],
      block(10, 20, 30),
      fillet(['top&front', 'bottom&back'], 1, { radii: 'small, 2*small' }),
    ];
    expect(of(...statements).volume).toBeCloseTo(6000 - CORNER * (4 + 16) * 10, 8);
    const more: Statement = ['variable', { name: 'small', value: '1.5' }];
    expect(of(...statements, more).volume).toBeCloseTo(6000 - CORNER * (2.25 + 9) * 10, 8);
    const radiusChanged = (value: string): Statement => [
      'step',
      { part: 'block', field: 'radius of each', value },
    ];
    expect(of(...statements, radiusChanged('3')).volume).toBeCloseTo(6000 - CORNER * (9 + 1) * 10, 8);
    expect(of(...statements, radiusChanged('')).volume).toBeCloseTo(6000 - CORNER * (1 + 1) * 10, 8);
  });

  test('what does not go together is refused', () => {
    const edges = ['top&front', 'bottom&back'];
    expect(refusalOf(block(10, 20, 30), fillet(edges, 1, { radii: '1, 2, 3' }))).toMatch(
      'There are 3 radii for 2 edges or rules.',
    );
    expect(refusalOf(block(10, 20, 30), fillet(edges, 1, { radii: '1, 2', to: 3 }))).toMatch('not both');
    expect(refusalOf(block(10, 20, 30), fillet(edges, 1, { radii: '1, 0' }))).toMatch(/more than (0|zero)/);
    expect(refusalOf(block(10, 20, 30), fillet(edges, 1, { radii: '1, 25' }))).toMatch(
      /The largest radius, with the radii of single edges in the same proportion, that fits here is about 0\.(79|8)\d* mm/,
    );
  });
});

test('every number and choice of a step is changed by its name', () => {
  const start: Statement[] = [block(10, 20, 30), chamfer('top&front', 2)];
  const set = (field: string, value: string): Statement => ['step', { part: 'block', field, value }];
  expect(of(...start, set('Second width', '3')).volume).toBeCloseTo(6000 - ((2 * 3) / 2) * 10, 8);
  expect(of(...start, set('angle', '30°')).volume).toBeCloseTo(
    6000 - ((2 * 2 * Math.tan(Math.PI / 6)) / 2) * 10,
    8,
  );
  expect(refusalOf(...start, set('second', '-1'))).toMatch('This must be 0 or more');
  expect(refusalOf(...start, set('thickness', '1'))).toMatch(
    'This step has no thickness; it has width, second width, angle.',
  );
  expect(refusalOf(...start, ['step', { part: 'block', field: 'angle' }])).toMatch('Say what angle becomes.');
  expect(refusalOf(...start, ['step', { part: 'block', value: '3' }])).toMatch('Say which of its numbers');
});

// The kernel calls this sound, since it has allowed its corners as much room as they are off.
test('a chamfer whose edges would be off its faces is refused, there where they are', () => {
  const folded: Statement[] = [
    ['prism', { as: 'block', sides: 5, width: 54.01, height: 27.42 }],
    ['reshape', { part: 'block', places: [{ at: 'bottom&side1&side5' }], by: [4.6, 2.03, -0.72] }],
  ];
  const document = builtBy(kernel, [...folded, chamfer('all', 1.67)]);
  const problem = kernel.problemOf(document, idOf(document, 'block'))!;
  expect(`${problem.reason} ${problem.remedy}`).toMatch(/\d mm off their faces.*fewer edges/);
  expect(problem.places[0]![2]).toBeLessThan(3);
  // The sides alone are well.
  expect(of(...folded, chamfer('around top', 1.67)).watertight).toBe(true);
});

test('a fillet of which the edges are only nearly on their faces says so, until they are cut off', () => {
  const noticesOf = (...statements: Statement[]) => {
    const document = builtBy(kernel, statements);
    return kernel.noticesFor(document, idOf(document, 'block'));
  };
  const cut: Statement[] = [
    ['sphere', { as: 'ball', diameter: 40 }],
    ['box', { as: 'lid', size: [50, 50, 20], at: [-25, -25, 5] }],
    ['subtract', { as: 'block', from: 'ball', parts: ['lid'] }],
  ];
  const words = /^Some edges are only within 0[.]0000\d+ mm of their faces[.]$/;
  const loose = [{ what: 'loose', words: expect.stringMatching(words) as string }];
  expect(noticesOf(block(10, 20, 30), fillet('all', 1))).toEqual([]);
  expect(noticesOf(...cut, fillet('all', 2))).toMatchObject(loose);
  const below: Statement = ['trim-solid', { parts: ['block'], plane: 'plan', at: '-5', keep: 'behind' }];
  expect(noticesOf(...cut, fillet('all', 2), below)).toEqual([]);
  // The corners and edges of chamfers have more room than they need.
  const wedge: Statement = ['wedge', { as: 'block', size: [40, 30, 20] }];
  expect(noticesOf(wedge, chamfer('all', 1))).toEqual([]);
  const drilled: Statement[] = [
    ['box', { as: 'lid', size: [40, 30, 20] }],
    ['chamfer', { part: 'lid', edges: 'all', width: 2 }],
    ['cylinder', { as: 'drill', diameter: 8, height: 60, at: [20, 15, -10] }],
    ['subtract', { as: 'block', from: 'lid', parts: ['drill'] }],
  ];
  expect(noticesOf(...drilled)).toEqual([]);
});

test('growing along an edge', () => {
  const made = of(block(10, 20, 30), fillet('front&right', 2, { to: 4 }));
  // The section grows with the square of a radius that grows evenly: its mean is (r² + r·R + R²)/3, were the ball’s circle square to
  // the edge; it leans by the growth of the radius, so that a little more is taken off.
  const taken = CORNER * ((4 + 8 + 16) / 3) * 30;
  expect((6000 - made.volume) / taken).toBeGreaterThan(1);
  expect((6000 - made.volume) / taken).toBeLessThan(1.02);
});

test.each([
  ['a box open at the top', [block(10, 20, 30), shell(2, 'top')], 6000 - 6 * 16 * 28],
  ['open at both ends', [block(10, 20, 30), shell(2, ['top', 'bottom'])], 6000 - 6 * 16 * 30],
  ['a closed hollow', [block(10, 20, 30), shell(2)], 6000 - 6 * 16 * 26],
  ['outward', [block(10, 20, 30), shell(2, 'top', { side: 'out' })], 14 * 24 * 32 - 6000],
  [
    'a cup',
    [['cylinder', { as: 'block', diameter: 20, height: 30 }] as Statement, shell(3, 'top')],
    Math.PI * (100 * 30 - 49 * 27),
  ],
  [
    'a ball',
    [['sphere', { as: 'block', diameter: 20 }] as Statement, shell(4)],
    (4 / 3) * Math.PI * (1000 - 216),
  ],
  [
    'a ring',
    [['torus', { as: 'block', diameter: 40, thickness: 10 }] as Statement, shell(2)],
    2 * Math.PI ** 2 * 20 * (25 - 9),
  ],
] as const)('a shell: %s', (_, statements, volume) => {
  const made = of(...(statements as readonly Statement[]));
  expect(made.volume / volume).toBeCloseTo(1, 8);
  expect(made.watertight).toBe(true);
});

// A regular polygon of n sides round a circle of radius a has the area n·a²·tan(π/n): moved in or out it is another such polygon.
// Own derivation: n triangles of the height a on sides of 2·a·tan(π/n).
describe('a shell of a prism with sixteen sides', () => {
  const [n, a, h, t] = [16, 20, 30, 3];
  const area = (radius: number) => n * radius ** 2 * Math.tan(Math.PI / n);
  const prism: Statement = ['prism', { as: 'block', sides: n, width: 2 * a, across: 'flats', height: h }];
  test.each([
    ['open at the top', ['top'], {}, area(a) * h - area(a - t) * (h - t), n + 2 + n + 1],
    ['open at both ends', ['top', 'bottom'], {}, (area(a) - area(a - t)) * h, n + 2 + n],
    ['closed', undefined, {}, area(a) * h - area(a - t) * (h - 2 * t), 2 * (n + 2)],
    ['outward', ['top'], { side: 'out' }, area(a + t) * (h + t) - area(a) * h, n + 2 + n + 1],
  ])('%s', (_, open, more, volume, faces) => {
    const made = of(prism, shell(t, open, more));
    expect(made.volume / volume).toBeCloseTo(1, 9);
    expect(made).toMatchObject({ watertight: true, solids: 1, faces });
  });

  test('has faces of the same names as that of a prism with few', () => {
    const namesOf = (sides: number, more = {}) => {
      const few: Statement = ['prism', { as: 'block', sides, width: 2 * a, across: 'flats', height: h }];
      const document = builtBy(kernel, [few, shell(t, ['top'], more)]);
      const facts = kernel.facts(document, idOf(document, 'block'));
      return new Set(faceNamesOf(facts).filter((name) => !/side/.test(name)));
    };
    for (const more of [{}, { side: 'out' }]) expect(namesOf(16, more)).toEqual(namesOf(6, more));
  });

  test('is refused where the hollow would not come to the open face, or would be none', () => {
    expect(refusalOf(prism, shell(21, ['top']))).toMatch(/largest thickness that fits here is about 19\.9/);
    expect(refusalOf(prism, shell(16))).toMatch(/largest thickness that fits here is about 14\.9/);
  });
});

// Near the bottom a wall that leans would stand below it: there none is due. Sides of a frustum move in by t·√(1 + slope²).
test('a shell of a pyramid, open at the bottom', () => {
  const spire: Statement = [
    'frustum',
    { as: 'block', sides: 4, width: 60, across: 'flats', top: 10, height: 15 },
  ];
  const [slope, t] = [25 / 15, 3];
  const inner = (z: number) => 2 * (30 - slope * z - t * Math.sqrt(1 + slope ** 2));
  const frustum = (a: number, b: number, height: number) => (height / 3) * (a * a + a * b + b * b);
  const wanted = frustum(60, 10, 15) - frustum(inner(0), inner(15 - t), 15 - t);
  expect(of(spire, shell(t, 'bottom')).volume / wanted).toBeCloseTo(1, 7);
});

// A side that leans moves in by t·√(1 + slope²) at every height. Own derivation.
test('a shell of a cone', () => {
  const cone: Statement = ['cone', { as: 'block', diameter: 30, top: 10, height: 20 }];
  const [low, high, h, t] = [15, 5, 20, 2];
  const slope = (low - high) / h;
  const inner = (z: number) => low - slope * z - t * Math.sqrt(1 + slope ** 2);
  const frustum = (a: number, b: number, height: number) => (Math.PI / 3) * height * (a * a + a * b + b * b);
  const wanted = frustum(low, high, h) - frustum(inner(0), inner(h - t), h - t);
  expect(of(cone, shell(t, 'bottom')).volume / wanted).toBeCloseTo(1, 7);
});

// The kernel marks what it was given where it comes to nothing: what is built on the same solid afterwards must not see it.
test('a step that does not go leaves no mark on what it was to be done to', () => {
  const [low, high, h] = [14.695, 10, 27.42];
  const cone: Statement = ['cone', { as: 'block', diameter: 2 * low, top: 2 * high, height: h }];
  const frustum = (a: number, b: number) => (Math.PI / 3) * h * (a * a + a * b + b * b);
  const wall = (t: number) => t * Math.sqrt(1 + ((low - high) / h) ** 2);
  const tube = (t: number) => frustum(low, high) - frustum(low - wall(t), high - wall(t));
  expect(refusalOf(cone, shell(4.15, ['side', 'top'], { side: 'out' }))).toMatch(/does not fit/);
  expect(of(cone, shell(2, ['bottom', 'top'])).volume / tube(2)).toBeCloseTo(1, 9);
  expect(of(cone, shell(5.74, ['bottom', 'top'])).volume / tube(5.74)).toBeCloseTo(1, 9);
  // Nor on what is tried next, smaller, to say what would fit.
  expect(refusalOf(cone, shell(12, ['bottom', 'top']))).toMatch(/largest thickness that fits here is about/);
  const settled = builtBy(kernel, [cone, ['settle', { part: 'block' }]]);
  expect(measured(kernel, settled, 'block').volume / frustum(low, high)).toBeCloseTo(1, 12);
});

// Moved in by t, a cone with a point is a smaller one of the same slope: its tip is lower by t·√(R² + h²)/R. Own derivation.
test.each([
  ['closed', undefined, 2],
  ['open at the bottom', 'bottom', 0],
])('a shell of a cone with a point, %s', (_, open, floor) => {
  const [radius, h, t] = [20, 50, 2];
  const inner = h - floor - (t * Math.hypot(radius, h)) / radius;
  const wanted = (Math.PI / 3) * (radius ** 2 * h - ((radius * inner) / h) ** 2 * inner);
  const cone: Statement = ['cone', { as: 'block', diameter: 2 * radius, height: h }];
  const made = of(cone, shell(t, open));
  expect(made.volume / wanted).toBeCloseTo(1, 9);
  expect(made.watertight).toBe(true);
});

test('a cone with a point moves in as a whole, and says how far it can', () => {
  const cone: Statement = ['cone', { as: 'block', diameter: 40, height: 50 }];
  const inward = (by: number): Statement => ['offset-solid', { part: 'block', by }];
  // The ball that touches all of it inside has the radius R·h / (R + √(R² + h²)).
  const most = (20 * 50) / (20 + Math.hypot(20, 50));
  const left = 1 - 3 / most;
  expect(of(cone, inward(-3)).volume / ((Math.PI / 3) * 400 * 50 * left ** 3)).toBeCloseTo(1, 9);
  const said = refusalOf(cone, inward(-20));
  expect(Number(/about ([\d.]+) mm/.exec(said)![1]) / most).toBeCloseTo(1, 1);
});

test.each([
  ['up', [block(10, 20, 30), push('top', 5)], 10 * 20 * 35],
  ['in', [block(10, 20, 30), push('front', -5)], 10 * 15 * 30],
  ['two at once', [block(10, 20, 30), push(['top', 'right'], 5)], 15 * 20 * 35],
  ['three of a corner', [block(10, 20, 30), push('top, right, back', -1)], 9 * 19 * 29],
  [
    'a round side',
    [['cylinder', { as: 'block', diameter: 20, height: 30 }] as Statement, push('side', 2)],
    Math.PI * 144 * 30,
  ],
  [
    'a bore, narrower',
    [['tube', { as: 'block', diameter: 20, bore: 10, height: 30 }] as Statement, push('bore', 2)],
    Math.PI * (100 - 9) * 30,
  ],
] as const)('a face moved: %s', (_, statements, volume) => {
  expect(of(...(statements as readonly Statement[])).volume / volume).toBeCloseTo(1, 9);
});

test('a face goes to a point, and keeps a distance from it', () => {
  const box: Statement = ['box', { as: 'box', size: [50, 40, 30], at: [0, 0, 0] }];
  const statements: Statement[] = [box, ['box', { as: 'block', size: [20, 40, 5], at: [2, 0, 30] }]];
  const to = { on: 'box', at: 'right&top&front' };
  expect(of(...statements, push('right', -0.2, { to })).volume).toBeCloseTo(47.8 * 40 * 5, 8);
  const bored: Statement[] = [['tube', { as: 'block', diameter: 30, bore: 10, height: 10, at: [0, 0, 0] }]];
  expect(of(...bored, push('bore', 0, { to: [9, 0, 0] })).volume / (Math.PI * (225 - 81) * 10)).toBeCloseTo(
    1,
    9,
  );
});

// Source: the prismatoid formula h/6 (A + 4·M + a); the sides of a frustum go on as they slope.
test.each([4, -6])('the top of a pyramid moved by %p', (by) => {
  const spire: Statement = [
    'frustum',
    { as: 'block', sides: 4, width: 30, across: 'flats', top: 18, height: 24 },
  ];
  const [height, top] = [24 + by, 30 - (12 * (24 + by)) / 24];
  const middle = (30 + top) / 2;
  const wanted = (height / 6) * (900 + 4 * middle ** 2 + top ** 2);
  expect(of(spire, push('top', by)).volume / wanted).toBeCloseTo(1, 9);
});

// Two of four rounded corners once kept a line where the face had been, and a fillet as high as the layer was refused.
test.each([
  ['bottom', 1],
  ['top', 2],
  ['top', -2],
])('a face beside rounded corners that moves leaves no line: %s by %p', (face, by) => {
  const steps = [block(40, 30, 20), fillet('along z', 4), push(face, by)];
  const made = of(...steps);
  expect(made).toMatchObject({ faces: 10, edges: 24 });
  expect(made.volume / ((1200 - CORNER * 4 * 16) * (20 + by))).toBeCloseTo(1, 9);
  const round = of(...steps, fillet(`around ${face}`, Math.abs(by)));
  expect(round).toMatchObject({ faces: 18, watertight: true });
});

/** A cylinder, a cone that leans in, and a bore down to a floor: what limits each rim is the middle of its disc. */
test.each([
  ['chamfer', ['cylinder', { as: 'block', diameter: 20, height: 30 }], 'top&side', '9.9'],
  ['chamfer', ['cone', { as: 'block', diameter: 40, top: 20, height: 30 }], 'top&side', '9.9'],
  ['fillet', ['cylinder', { as: 'block', diameter: 20, height: 30 }], 'top&side', '9.9'],
  // Source: a circle in an angle: it touches at r · tan(φ / 2), φ between the normals, of which tan φ = 3 here.
  ['fillet', ['cone', { as: 'block', diameter: 40, top: 20, height: 30 }], 'top&side', '13.8'],
] as const)('a %s goes no farther than to the middle of a disc: %j', (verb, solid, edges, most) => {
  const size = { [verb === 'fillet' ? 'radius' : 'width']: 14.3 };
  const said = refusalOf(solid, [verb, { part: 'block', edges, ...size }]);
  expect(said).toContain(`that fits here is about ${most}`);
});

test('and outside of a rim it does', () => {
  const document = builtBy(kernel, [
    block(60, 60, 20),
    ['cylinder', { as: 'drill', diameter: 10, height: 40, at: [30, 30, -10] }],
    ['subtract', { as: 'drilled', from: 'block', parts: ['drill'] }],
    ['chamfer', { part: 'drilled', edges: 'top&drill.side', width: 12 }],
  ]);
  // Source: Pappus, the second theorem: a triangle of 72 mm² whose middle runs round at 9 mm.
  const bore = Math.PI * 25 * 20 + 72 * 2 * Math.PI * 9;
  expect(measured(kernel, document, 'drilled').volume / (72_000 - bore)).toBeCloseTo(1, 9);
});

test('what does not fit says the largest that does', () => {
  expect(refusalOf(block(10, 20, 30), fillet('all', 5.5))).toMatch(
    /largest radius that fits here is about 4\.9\d* mm/,
  );
  expect(refusalOf(block(10, 20, 30), chamfer('all', 7))).toMatch(
    /largest width that fits here is about 4\.9\d* mm/,
  );
  expect(refusalOf(block(10, 20, 30), shell(6, 'top'))).toMatch(
    /largest thickness that fits here is about 4\.9\d* mm/,
  );
  expect(refusalOf(block(10, 20, 30), push('top', -40))).toMatch(
    /largest distance that fits here is about 29\.9\d* mm/,
  );
});

test.each([
  [fillet('lid&front', 1), 'There is no edge lid&front of block.'],
  [fillet('rim', 1), '“rim” is not an edge'],
  [fillet('inward', 1), 'There are no inward edges.'],
  [shell(1, 'lid'), 'There is no face lid of block.'],
  [shell(1, undefined, { side: 'out' }), 'A closed hollow has its wall inward'],
  [push('top', 0), 'A distance of 0 would change nothing.'],
])('%p is refused in words', (statement, words) => {
  expect(refusalOf(block(10, 20, 30), statement)).toContain(words);
});

describe('edges that run on from one', () => {
  const rounded: Statement[] = [block(20, 30, 10), fillet('along z', 4)];
  const base = (20 * 30 - (4 - Math.PI) * 16) * 10;
  // What a fillet of radius 1 takes: off straight edges, and by Pappus off the arcs, about the axis of the corner.
  const middle = 4 - 1 + 1 / 6 / CORNER;
  const rim = CORNER * (2 * (12 + 22) + 2 * Math.PI * middle);

  test('are rounded all the way round the rim, whatever its size is later', () => {
    const made = of(...rounded, fillet('on from top&front', 1));
    expect(made.volume).toBeCloseTo(base - rim, 7);
    const longer = of(...rounded, fillet('on from top&front', 1), [
      'change',
      { parts: ['block'], size: ['20', '40', '10'] },
    ]);
    expect(longer.volume).toBeCloseTo(base + 20 * 100 - rim - CORNER * 20, 7);
  });

  test('are that one alone where it ends at corners', () =>
    expect(of(block(10, 20, 30), fillet('on from top&front', 1)).volume).toBeCloseTo(6000 - CORNER * 10, 8));

  test('and none where there is no such edge', () =>
    expect(refusalOf(block(10, 20, 30), fillet('on from top&bottom', 1))).toMatch(/no edge top&bottom/));
});

describe('a step is given other edges or faces', () => {
  const rounded = [block(10, 20, 30), fillet('top&front', 2)];
  const choose = (more: object): Statement => ['choose-anew', { part: 'block', step: '1', ...more }];

  test('edges that it has taken itself among them', () => {
    expect(of(...rounded, choose({ edges: 'top&front, top&back' })).volume).toBeCloseTo(
      6000 - CORNER * 4 * 20,
      8,
    );
    expect(of(...rounded, choose({ edges: 'along z' })).volume).toBeCloseTo(6000 - CORNER * 4 * 120, 8);
  });

  test('faces of a shell, of parts made of several too', () => {
    const made: Statement[] = [
      ['box', { as: 'left', size: [10, 20, 10] }],
      ['box', { as: 'right', size: [10, 20, 10], at: [10, 0, 0] }],
      ['union', { as: 'block', parts: ['left', 'right'] }],
    ];
    const document = builtBy(kernel, made);
    const top = kernel
      .facts(document, idOf(document, 'block'))
      .snaps.names.find((name) => /^top\+[a-z0-9]+\.top$/.test(name))!;
    const hollow = of(
      ...made,
      shell(1, 'bottom'),
      choose({ faces: [{ on: 'block', at: top, near: [5, 5, 10] }] }),
    );
    expect(hollow.volume).toBeCloseTo(4000 - 18 * 18 * 9, 7);
  });

  test('a shell is told by its open faces first, and by its other faces where these are named', () => {
    const made: Statement[] = [block(20, 30, 40), shell(1, 'top', { other: 'left', thicknesses: '3' })];
    const document = builtBy(kernel, made);
    const step = document.items[idOf(document, 'block')]!.recipe.steps[0]!;
    expect(chosenOfStep(step, 'block')).toEqual({ faces: ['top'] });
    expect(of(...made, choose({ faces: 'front' })).volume).toBeCloseTo(24_000 - 16 * 29 * 38, 7);
    expect(of(...made, choose({ what: 'Other faces', faces: 'bottom' })).volume).toBeCloseTo(
      24_000 - 18 * 28 * 37,
      7,
    );
    expect(refusalOf(...made, choose({ what: 'lids', faces: 'bottom' }))).toMatch(/about no lids/);
  });

  test('what it cannot be about is said', () => {
    expect(refusalOf(...rounded, choose({ faces: 'top' }))).toMatch(/about no faces/);
    expect(refusalOf(...rounded, choose({}))).toMatch(/Say which/);
    expect(refusalOf(...rounded, choose({ edges: 'top&bottom' }))).toMatch(/no sharp edge between/i);
    expect(refusalOf(...rounded, choose({ edges: 'top&roof' }))).toMatch(/no edge top&roof/);
  });
});

describe('a wall of several thicknesses', () => {
  // The hollow of a box is a box: its sizes are those of the block less the walls on both sides.
  const own = { other: 'left, bottom', thicknesses: '3, 5' };
  test('behind single faces of a box, open or closed', () => {
    expect(of(block(20, 30, 40), shell(1, 'top', own)).volume).toBeCloseTo(24_000 - 16 * 28 * 35, 7);
    expect(of(block(20, 30, 40), shell(1, undefined, own)).volume).toBeCloseTo(24_000 - 16 * 28 * 34, 7);
    expect(of(block(20, 30, 40), shell(2, 'top', { other: 'left', thicknesses: '1' })).volume).toBeCloseTo(
      24_000 - 17 * 26 * 38,
      7,
    );
  });

  test('of the side of a cylinder, and of its bottom', () => {
    const can: Statement = ['cylinder', { as: 'block', diameter: 20, height: 30 }];
    const made = of(can, shell(1, 'top', { other: 'side, bottom', thicknesses: '2, 4' }));
    expect(made.volume / (Math.PI * (100 * 30 - 64 * 26))).toBeCloseTo(1, 9);
  });

  test('outward', () => {
    const made = of(block(20, 30, 40), shell(1, 'top', { side: 'out', other: 'left', thicknesses: '3' }));
    expect(made.volume).toBeCloseTo(24 * 32 * 41 - 24_000, 7);
  });

  // The hollow of a box whose upright edges are round by r has edges that are round by r − t; what a thicker wall takes of it is the area
  // between two chords of those circles, ∫√(ρ² − s²) ds in closed form.
  test('beside round edges: of the bottom, and of a side that runs into them', () => {
    const [r, t, height] = [5, 2, 20];
    const round = [block(40, 30, height), fillet('along z', r)];
    const within = (x: number, y: number, radius: number) => x * y - (4 - Math.PI) * radius ** 2;
    const [outer, hollow] = [within(40, 30, r), within(36, 26, r - t)];
    expect(of(...round, shell(t, 'top', { other: 'bottom', thicknesses: '4' })).volume).toBeCloseTo(
      outer * height - hollow * (height - 4),
      6,
    );
    const rho = r - t;
    const under = (s: number) => (s * Math.sqrt(rho ** 2 - s ** 2) + rho ** 2 * Math.asin(s / rho)) / 2;
    const layer = 36 * 2 - 2 * (2 * rho - (under(rho) - under(rho - 2)));
    expect(of(...round, shell(t, 'top', { other: 'front', thicknesses: '4' })).volume).toBeCloseTo(
      outer * height - (hollow - layer) * (height - t),
      6,
    );
  });

  // Below its step the hollow goes on past the upper side: what lies nearer to its plane is not all behind it.
  test('not where the hollow reaches past the face', () => {
    const stair: Statement[] = [
      ['box', { as: 'block', size: [50, 40, 15] }],
      ['box', { as: 'high', size: [25, 40, 40] }],
      ['union', { as: 'stair', parts: ['block', 'high'] }],
    ];
    const all = [...stair, fillet('along z', 5)].map(([verb, typed]): Statement =>
      verb === 'fillet' ? [verb, { ...typed, part: 'stair' }] : [verb, typed],
    );
    const thick = { part: 'stair', thickness: 2, open: 'bottom', thicknesses: '6' };
    const ended = builtBy(kernel, [...all, ['shell', { ...thick, other: 'right' }]]);
    expect(measured(kernel, ended, 'stair').watertight).toBe(true);
    const stepped = builtBy(kernel, [...all, ['shell', { ...thick, other: 'high.right' }]]);
    expect(kernel.problemOf(stepped, idOf(stepped, 'stair'))?.reason).toMatch(
      /another thickness does not fit/,
    );
  });

  test('a bottom that is round all along', () => {
    const round = [block(40, 30, 20), fillet('around bottom', 5)];
    const thick = (mm: string) => of(...round, shell(2, 'top', { other: 'bottom', thicknesses: mm }));
    // Above the round edges the hollow is a prism of 36 × 26.
    expect(thick('8').volume - thick('6').volume).toBeCloseTo(36 * 26 * 2, 6);
    expect(thick('4').watertight).toBe(true);
    expect(refusalOf(...round, shell(2, 'top', { other: 'bottom', thicknesses: '20' }))).toMatch(
      /another thickness does not fit/,
    );
    expect(refusalOf(...round, shell(2, 'top', { other: 'bottom', thicknesses: '1' }))).toMatch(
      /another thickness does not fit/,
    );
  });

  test('what does not fit, or is not said, is told', () => {
    const thick = { other: 'left', thicknesses: '25' };
    expect(refusalOf(block(20, 30, 40), shell(1, 'top', thick))).toMatch(/another thickness does not fit/);
    expect(refusalOf(block(20, 30, 40), shell(1, 'top', { other: 'left' }))).toMatch(/Say how thick/);
  });
});
