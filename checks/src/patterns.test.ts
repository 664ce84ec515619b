/** Patterns as solids, against closed formulas and facts of geometry. */
import { buildName, placedOf, variantsOf, type KadrelDocument } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { built, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const near = (found: number, wanted: number, relative = 1e-9) =>
  expect(Math.abs(found - wanted)).toBeLessThan(relative * Math.max(1, Math.abs(wanted)));

describe('a ring of touching blocks', () => {
  // Source: trigonometry. Wedges of a regular n-gon touch along their sides; so do blocks whose inner edges meet.
  const n = 12;
  const [depth, height] = [20, 15];
  const inner = 100;
  const width = 2 * inner * Math.tan(Math.PI / n);
  const ring: Statement[] = [
    ['box', { as: 'block', size: [depth, `${width}`, height], at: [inner, `${-width / 2}`, 0] }],
    ['around', { as: 'ring', parts: ['block'], count: n, at: [0, 0, 0] }],
  ];

  test('measures the sum of its members', () => {
    const document = built(ring);
    const { volume, solids, box } = measured(kernel, document, 'ring');
    near(volume, n * depth * width * height);
    expect(solids).toBe(n);
    near(box.max[0], inner + depth);
    near(box.min[1], -(inner + depth));
  });

  test('joined into one solid, it has the volume of its parts', () => {
    const document = built([...ring, ['union', { as: 'joined', parts: ['ring'] }]]);
    near(measured(kernel, document, 'joined').volume, n * depth * width * height);
  });
});

describe('holes', () => {
  const disc: Statement = ['cylinder', { as: 'disc', diameter: 200, height: 10 }];
  const drill: Statement = ['cylinder', { as: 'drill', diameter: 12, height: 20, at: [80, 0, -5] }];
  const ring = (count: number): Statement => [
    'around',
    { as: 'ring', parts: ['drill'], count, at: [0, 0, 0] },
  ];

  test.each([3, 8, 12])('a ring of %i holes leaves π(R² − n·r²)h', (count) => {
    const document = built([disc, drill, ring(count), ['subtract', { from: 'disc', parts: ['ring'] }]]);
    // Source: area of the circle.
    near(measured(kernel, document, 'disc').volume, Math.PI * (100 ** 2 - count * 6 ** 2) * 10);
    const { faces } = measured(kernel, document, 'disc');
    expect(faces).toBe(3 + count);
  });

  test('the count is changed afterwards, and the volume follows', () => {
    const document = built([
      disc,
      drill,
      ring(12),
      ['subtract', { from: 'disc', parts: ['ring'] }],
      ['pattern', { parts: ['ring'], count: '8' }],
      ['omit', { part: 'ring', members: '3, 7' }],
    ]);
    near(measured(kernel, document, 'disc').volume, Math.PI * (100 ** 2 - 6 * 6 ** 2) * 10);
  });

  test('a grid through a plate is the same solid, with the same names, built either way', () => {
    const plate = (more: Statement[], parts: string[]) =>
      built([
        ['box', { as: 'plate', size: [90, 60, 8] }],
        ['cylinder', { as: 'drill', diameter: 6, height: 20, at: [15, 15, -5] }],
        ['grid', { as: 'holes', parts: ['drill'], columns: 4, columnPitch: 20, rows: 3, rowPitch: 15 }],
        ...more,
        ['subtract', { from: 'plate', parts: ['holes', ...parts] }],
      ]);
    const quick = plate([], []);
    // One tool more, which meets nothing, takes it the general way.
    const general = plate([['box', { as: 'far', size: [1, 1, 1], at: [500, 0, 0] }]], ['far']);
    const look = (document: KadrelDocument) => {
      const { measures, snaps } = kernel.facts(document, idOf(document, 'plate'));
      return { measures, names: [...snaps.faceName].map((i) => snaps.names[i]!).sort() };
    };
    const [a, b] = [look(quick), look(general)];
    near(a.measures.volume, 90 * 60 * 8 - 12 * Math.PI * 9 * 8);
    near(a.measures.volume, b.measures.volume);
    near(a.measures.area, b.measures.area);
    expect(a.names).toEqual(b.names);
    expect(a.names.filter((name) => name.includes('2x3'))).toHaveLength(1);
  });
});

test('growing steps: the volume is an arithmetic series', () => {
  const document = built([
    ['box', { as: 'step', size: [100, 30, 20] }],
    ['along', { as: 'stair', parts: ['step'], along: 'y', count: 10, pitch: 30, growth: [0, 0, 20] }],
  ]);
  // Source: 1 + 2 + … + n = n(n + 1)/2.
  near(measured(kernel, document, 'stair').volume, 100 * 30 * 20 * 55);
  expect(measured(kernel, document, 'stair').box.max).toEqual([100, 300, 200]);
  expect(variantsOf(placedOf(document, idOf(document, 'stair'))).size).toBe(10);
});

test('a mirrored pair has twice the volume, and its middle on the plane', () => {
  const document = built([
    ['box', { as: 'block', size: [30, 20, 10] }],
    ['cylinder', { as: 'drill', diameter: 8, height: 30, at: [9, 6, -5] }],
    ['subtract', { from: 'block', parts: ['drill'] }],
    ['reflect', { as: 'pair', parts: ['block'], at: [40, 0, 0] }],
  ]);
  const { volume, centroid, box, watertight } = measured(kernel, document, 'pair');
  near(volume, 2 * (30 * 20 * 10 - Math.PI * 16 * 10));
  near(centroid[0], 40);
  expect([box.min[0], box.max[0], watertight]).toEqual([0, 80, true]);
  // The image by itself: positive volume, centre of mass mirrored.
  const image = placedOf(document, idOf(document, 'pair'))[1]!;
  const { measures } = kernel.facts(document, image.leaf, image);
  near(measures.volume, 30 * 20 * 10 - Math.PI * 16 * 10);
  const own = kernel.facts(document, image.leaf).measures;
  near(measures.centroid[0], -own.centroid[0]);
  expect(buildName(image)).not.toBe(image.leaf);
});

test('a ring of balls: the box is exact however they are turned', () => {
  const document = built([
    ['sphere', { as: 'ball', diameter: 20, at: [50, 0, 0] }],
    ['around', { as: 'ring', parts: ['ball'], count: 7, at: [0, 0, 0] }],
  ]);
  const { box } = measured(kernel, document, 'ring');
  const turned = (i: number) => (2 * Math.PI * i) / 7;
  near(box.max[0], 60);
  near(box.max[1], 50 * Math.max(...[0, 1, 2, 3, 4, 5, 6].map((i) => Math.sin(turned(i)))) + 10);
  near(box.min[0], 50 * Math.min(...[0, 1, 2, 3, 4, 5, 6].map((i) => Math.cos(turned(i)))) - 10);
});

test('finger joints leave nothing over: four boards fill the walls of their box', () => {
  const [length, width, height, wall] = [460, 380, 240, 20];
  const finger = height / 6;
  const document = built([
    ['box', { as: 'front', size: [length, wall, height] }],
    ['box', { as: 'front notch', size: [wall + 1, wall + 2, finger], at: [-1, -1, 0] }],
    ['along', { as: 'notches', parts: ['front notch'], along: 'z', count: 3, pitch: 2 * finger }],
    ['reflect', { as: 'front notches', parts: ['notches'], at: [length / 2, 0, 0] }],
    ['subtract', { from: 'front', parts: ['front notches'] }],
    ['box', { as: 'side', size: [wall, width, height] }],
    ['box', { as: 'side notch', size: [wall + 2, wall + 1, finger], at: [-1, -1, finger] }],
    ['along', { as: 'more notches', parts: ['side notch'], along: 'z', count: 3, pitch: 2 * finger }],
    ['reflect', { as: 'side notches', parts: ['more notches'], across: 'y', at: [0, width / 2, 0] }],
    ['subtract', { from: 'side', parts: ['side notches'] }],
    ['duplicate', { as: 'back', parts: ['front'], kind: 'linked' }],
    ['duplicate', { as: 'other side', parts: ['side'], kind: 'linked' }],
    ['turn', { parts: ['back', 'other side'], angle: 180, centre: 'point', at: [length / 2, width / 2, 0] }],
    ['group', { as: 'walls', parts: ['front', 'side', 'back', 'other side'] }],
  ]);
  const hollow = (length * width - (length - 2 * wall) * (width - 2 * wall)) * height;
  near(measured(kernel, document, 'walls').volume, hollow);
});
