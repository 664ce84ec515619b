/** Cones, tubes, tori and prisms against closed formulas, as made, as changed and as stretched. */
import { isRefusal, locatePoint } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const near = (found: number, wanted: number, relative = 1e-9) =>
  expect(Math.abs(found - wanted)).toBeLessThan(relative * Math.max(1, Math.abs(wanted)));
const { PI } = Math;

/** Area of a regular n-gon with corner radius R. Source: trigonometry, n/2 · R² sin(360°/n). */
const polygonArea = (n: number, radius: number) => (n / 2) * radius ** 2 * Math.sin((2 * PI) / n);

interface Case {
  readonly make: Statement;
  readonly volume: number;
  readonly area: number;
  readonly faces: number;
  readonly source: string;
}

const frustum = (R: number, r: number, h: number) => ({
  volume: ((PI * h) / 3) * (R ** 2 + R * r + r ** 2),
  area: PI * (R + r) * Math.hypot(R - r, h) + PI * R ** 2 + PI * r ** 2,
});

const CASES: Readonly<Record<string, Case>> = {
  'a cone': {
    make: ['cone', { as: 'it', diameter: 60, height: 40 }],
    ...frustum(30, 0, 40),
    faces: 2,
    source: 'Euclid XII: a third of the cylinder; lateral area πR√(R² + h²)',
  },
  'a frustum': {
    make: ['cone', { as: 'it', diameter: 60, top: 25, height: 40 }],
    ...frustum(30, 12.5, 40),
    faces: 3,
    source: 'πh/3 (R² + Rr + r²), any handbook of mensuration',
  },
  'a frustum that widens upward': {
    make: ['cone', { as: 'it', diameter: 10, top: 50, height: 8 }],
    ...frustum(5, 25, 8),
    faces: 3,
    source: 'the same',
  },
  'a tube': {
    make: ['tube', { as: 'it', diameter: 50, bore: 30, height: 70 }],
    volume: PI * (25 ** 2 - 15 ** 2) * 70,
    area: 2 * PI * (25 ** 2 - 15 ** 2) + 2 * PI * (25 + 15) * 70,
    faces: 4,
    source: 'the difference of two cylinders',
  },
  'a torus': {
    make: ['torus', { as: 'it', diameter: 80, thickness: 20 }],
    volume: 2 * PI ** 2 * 40 * 10 ** 2,
    area: 4 * PI ** 2 * 40 * 10,
    faces: 1,
    source: 'Pappus and Guldin: V = 2π²Rr², A = 4π²Rr',
  },
  'a hexagonal prism across corners': {
    make: ['prism', { as: 'it', sides: 6, width: 40, height: 15 }],
    volume: polygonArea(6, 20) * 15,
    area: 2 * polygonArea(6, 20) + 6 * 20 * 15,
    faces: 8,
    source: 'n/2 · R² sin(360°/n)',
  },
  'a hexagonal nut blank across flats, M8': {
    make: ['prism', { as: 'it', sides: 6, width: 13, across: 'flats', height: 6.8 }],
    volume: polygonArea(6, 6.5 / Math.cos(PI / 6)) * 6.8,
    area: 2 * polygonArea(6, 6.5 / Math.cos(PI / 6)) + 6 * ((2 * 6.5) / Math.sqrt(3)) * 6.8,
    faces: 8,
    source: 'ISO 4032, M8: 13 across flats, 6.8 high (from memory)',
  },
  'a triangular prism by its side': {
    make: ['prism', { as: 'it', sides: 3, width: 10, across: 'side', height: 10 }],
    volume: (Math.sqrt(3) / 4) * 100 * 10,
    area: 2 * (Math.sqrt(3) / 4) * 100 + 3 * 100,
    faces: 5,
    source: '√3/4 · a²',
  },
};

test.each(Object.entries(CASES))('%s has the volume and the area of its formula', (_, one) => {
  const document = built([one.make]);
  const found = measured(kernel, document, 'it');
  near(found.volume, one.volume);
  near(found.area, one.area);
  expect([found.faces, found.watertight, found.solids]).toEqual([one.faces, true, 1]);
  // Every face has a name of its own.
  const { snaps } = kernel.facts(document, idOf(document, 'it'));
  expect(new Set([...snaps.faceName].map((i) => snaps.names[i]!)).size).toBe(one.faces);
});

// An affine map multiplies volumes by its determinant.
test.each(Object.entries(CASES))('%s, stretched and turned, stays exact', (_, { make, volume }) => {
  const document = built([
    make,
    ['resize', { parts: ['it'], by: ['2', '0.5', '1.5'], about: 'point', at: [1, 2, 3] }],
    ['turn', { parts: ['it'], angle: 30, about: 'y' }],
  ]);
  near(measured(kernel, document, 'it').volume, volume * 1.5);
});

test.each(Object.entries(CASES))(
  '%s, mirrored, is a proper solid of the same size',
  (_, { make, volume, faces }) => {
    const document = built([
      make,
      ['mirror', { parts: ['it'], across: 'x', centre: 'point', at: [100, 0, 0] }],
    ]);
    const found = measured(kernel, document, 'it');
    near(found.volume, volume);
    near(found.centroid[0], 200);
    expect([found.faces, found.watertight]).toEqual([faces, true]);
  },
);

test('the box is known from the recipe: a side of a prism faces the front', () => {
  const square = measured(
    kernel,
    built([['prism', { as: 'it', sides: 4, width: 10, across: 'flats', height: 3 }]]),
    'it',
  );
  expect(square.box).toEqual({ min: [-5, -5, 0], max: [5, 5, 3] });
  const hexagon = measured(kernel, built([['prism', { as: 'it', sides: 6, width: 20, height: 3 }]]), 'it');
  near(hexagon.box.max[0], 10);
  near(hexagon.box.min[1], -10 * Math.cos(PI / 6));
});

test('faces have the names of where they are', () => {
  const at = (make: Statement, face: string) => {
    const document = built([make]);
    const named = { on: 'it', at: face, snap: 'centre' };
    const shape = kernel.facts(document, idOf(document, 'it'));
    const found = locatePoint(shape.snaps, named, document);
    if (isRefusal(found)) throw new Error(found.message);
    return [...found];
  };
  const upright: Statement = ['cone', { as: 'it', diameter: 60, top: 25, height: 40 }];
  near(at(upright, 'bottom')[2]!, 0);
  near(at(upright, 'top')[2]!, 40);
  const pipe: Statement = ['tube', { as: 'it', diameter: 50, bore: 30, height: 70 }];
  near(at(pipe, 'bottom')[2]!, 0);
  near(at(pipe, 'top')[2]!, 70);
  const nut: Statement = ['prism', { as: 'it', sides: 6, width: 20, across: 'flats', height: 10 }];
  // side1 at the front, the others counter-clockwise seen from above.
  for (let i = 0; i < 6; i++) {
    const angle = (-90 + 60 * i) * (PI / 180);
    const [x, y] = at(nut, `side${i + 1}`) as [number, number];
    near(x, 10 * Math.cos(angle));
    near(y, 10 * Math.sin(angle));
  }
});

test('sizes are changed by name, also by arithmetic on what is there', () => {
  const document = built([
    ['tube', { as: 'pipe', diameter: 50, bore: 30, height: 70 }],
    ['change', { parts: ['pipe'], bore: 'now + 5', height: '2 * now' }],
    ['prism', { as: 'nut', sides: 6, width: 13, across: 'flats', height: 6.8 }],
    ['change', { parts: ['nut'], sides: '8' }],
    ['cone', { as: 'funnel', diameter: 40, top: 10, height: 30 }],
    ['change', { parts: ['funnel'], top: '0', radius: '15' }],
    ['torus', { as: 'ring', diameter: 80, thickness: 20 }],
    ['change', { parts: ['ring'], thickness: '1 cm' }],
  ]);
  near(measured(kernel, document, 'pipe').volume, PI * (25 ** 2 - 17.5 ** 2) * 140);
  near(measured(kernel, document, 'nut').volume, polygonArea(8, 6.5 / Math.cos(PI / 8)) * 6.8);
  near(measured(kernel, document, 'funnel').volume, frustum(15, 0, 30).volume);
  near(measured(kernel, document, 'ring').volume, 2 * PI ** 2 * 40 * 5 ** 2);
});

test('a countersunk hole: a frustum joined to a bore, taken out of a plate', () => {
  const document = built([
    ['box', { as: 'plate', size: [40, 40, 10] }],
    ['cylinder', { as: 'bore', diameter: 6, height: 20, at: [20, 20, -5] }],
    ['cone', { as: 'sink', diameter: 6, top: 12, height: 3, at: [20, 20, 7] }],
    ['subtract', { from: 'plate', parts: ['bore', 'sink'] }],
  ]);
  const taken = PI * 9 * 7 + frustum(3, 6, 3).volume;
  near(measured(kernel, document, 'plate').volume, 40 * 40 * 10 - taken, 1e-8);
});
