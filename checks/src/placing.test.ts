/** Placing against trigonometry, standards and mensuration, and resized solids against an independent library. */
import { carry, worldFromPart, type KadrelDocument, type Vec3 } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import Module from 'manifold-3d';
import { built, idOf, measured, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const cornerOf = (document: KadrelDocument, name: string, corner: Vec3): Vec3 =>
  carry(worldFromPart(document, idOf(document, name)), corner);
const cube: Statement = ['box', { as: 'cube', size: [10, 10, 10] }];

test('quarter turns permute coordinates and change no bit of them', () => {
  // Source: trigonometry; the 24 rotations of a cube are signed permutations of the axes.
  const odd: Statement = ['box', { as: 'odd', size: ['0.1', '1/3 in', '2.7'], at: ['0.3', '-0.7', '1.1'] }];
  for (const about of ['x', 'y', 'z'])
    for (const angle of ['90', '180', '270', '360', '-450']) {
      const turn: Statement = [
        'turn',
        { parts: ['odd'], angle, about, centre: 'point', at: ['0', '0', '0'] },
      ];
      const document = built([odd, turn]);
      const start = cornerOf(built([odd]), 'odd', [0, 0, 0])
        .map(Math.abs)
        .sort();
      expect(cornerOf(document, 'odd', [0, 0, 0]).map(Math.abs).sort()).toEqual(start);
    }
});

test('a cube turned to the isometric position stands on its corner', () => {
  // Source: ISO 5456-3, isometric axonometry: 45° and atan(1/√2) = 35.2644°; edges are foreshortened by √(2/3).
  const document = built([
    cube,
    ['turn', { parts: ['cube'], angle: '45', about: 'z' }],
    ['turn', { parts: ['cube'], angle: 'atan(sqrt(2))', about: 'y' }],
  ]);
  const from = cornerOf(document, 'cube', [0, 0, 0]);
  const edges = [
    [10, 0, 0],
    [0, 10, 0],
    [0, 0, 10],
  ].map((corner) => cornerOf(document, 'cube', corner as unknown as Vec3).map((n, i) => n - from[i]!));
  for (const [x, y, z] of edges) {
    expect(Math.abs(z!)).toBeCloseTo(10 * Math.sqrt(1 / 3), 9);
    expect(Math.hypot(x!, y!)).toBeCloseTo(10 * Math.sqrt(2 / 3), 9);
  }
});

test('a ramp of 1:12 rises 1 in 12 and is 4.7636° steep', () => {
  // Source: trigonometry, atan(1/12) = 4.7636°, 8.333 %.
  const document = built([
    ['box', { as: 'ramp', size: [1200, 100, 10] }],
    ['turn', { parts: ['ramp'], angle: '1:12', about: '-y' }],
  ]);
  const [x, , z] = cornerOf(document, 'ramp', [1200, 0, 0]);
  expect(z / x).toBeCloseTo(1 / 12, 12);
  expect((Math.atan2(z, x) * 180) / Math.PI).toBeCloseTo(4.7636, 4);
});

describe('stretched solids', () => {
  test('an elliptic cylinder and an ellipsoid have the volumes of the formulas', () => {
    // Source: mensuration, V = π a b h and V = 4/3 π a b c.
    const document = built([
      ['cylinder', { as: 'c', diameter: 14, height: 9 }],
      ['resize', { parts: ['c'], by: ['1.5', '0.4', '2'] }],
      ['sphere', { as: 's', diameter: 10, at: [50, 0, 0] }],
      ['resize', { parts: ['s'], by: ['3', '0.5', '1.25'] }],
    ]);
    expect(measured(kernel, document, 'c').volume / (Math.PI * 10.5 * 2.8 * 18) - 1).toBeCloseTo(0, 9);
    expect(measured(kernel, document, 's').volume / ((4 / 3) * Math.PI * 15 * 2.5 * 6.25) - 1).toBeCloseTo(
      0,
      9,
    );
  });

  test('a stretched and mirrored part is what an independent library makes of its facets', async () => {
    // Source: manifold-3d, which stretches and mirrors the facets of the part as it was made.
    const wasm = await Module();
    wasm.setup();
    const made: Statement[] = [
      ['box', { as: 'plate', size: [60, 40, 10] }],
      ['cylinder', { as: 'bore', diameter: 18, height: 30, at: [20, 15, -10] }],
      ['turn', { parts: ['bore'], angle: '20', about: 'y' }],
      ['subtract', { as: 'part', from: 'plate', parts: ['bore'] }],
    ];
    const before = built(made);
    const after = built([
      ...made,
      ['resize', { parts: ['part'], by: ['-1.5', '0.7', '2.2'], in: 'world', about: 'point', at: [0, 0, 0] }],
    ]);
    const { snaps } = kernel.facts(before, idOf(before, 'part'));
    const mesh = new wasm.Mesh({
      numProp: 3,
      vertProperties: snaps.positions,
      triVerts: snaps.triangles,
    });
    mesh.merge();
    const theirs = wasm.Manifold.ofMesh(mesh).scale([-1.5, 0.7, 2.2]);
    const ours = measured(kernel, after, 'part');
    expect(ours.watertight).toBe(true);
    // Facets lie within the round bore by the chord tolerance, so that they leave a little more of the plate.
    expect(Math.abs(theirs.volume() / ours.volume - 1)).toBeLessThan(2e-3);
    const { min, max } = theirs.boundingBox();
    for (const i of [0, 1, 2]) {
      expect(min[i]).toBeCloseTo(ours.box.min[i]!, 4);
      expect(max[i]).toBeCloseTo(ours.box.max[i]!, 4);
    }
  });
});
