import { degreesOfTurn, vectorOf, worldFromPart, type KadrelDocument, type Vec3 } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { runLedger } from './ledger.ts';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = await loadKernel();
});

const run = (...ledger: object[]) => runLedger({ kadrel: 1, ledger }, kernel).document;
const named = (document: KadrelDocument, name: string) =>
  Object.values(document.items).find((item) => item.name === name)!;
const centroid = (document: KadrelDocument, name: string): Vec3 =>
  kernel.measure(document, named(document, name).id).centroid;
const ball = { verb: 'sphere', as: 'Ball', diameter: 100, at: [0, 0, 50] };
const knob = (as: string, at: readonly number[]) => ({ verb: 'cylinder', as, diameter: 6, height: 10, at });

describe('landing', () => {
  test('each on the surface under itself, turned out of it: on a ball the way from its centre', () => {
    const parts = ['a', 'b', 'c'];
    const document = run(ball, knob('a', [0, 0, 200]), knob('b', [30, 0, 200]), knob('c', [-24, 18, 200]), {
      verb: 'land',
      parts,
      facing: 'z',
    });
    // The ball's surface over (x, y): z = 50 + √(50² − x² − y²).
    expect(vectorOf(named(document, 'a').placement.origin)).toEqual([0, 0, 100]);
    const b = vectorOf(named(document, 'b').placement.origin);
    [30, 0, 90].forEach((n, i) => expect(b[i]).toBeCloseTo(n, 9));
    const c = vectorOf(named(document, 'c').placement.origin);
    [-24, 18, 90].forEach((n, i) => expect(c[i]).toBeCloseTo(n, 9));
    for (const [x, y, z] of parts.map((name) => centroid(document, name)))
      expect(Math.hypot(x, y, z - 50)).toBeCloseTo(55, 9);
  });

  test('along a direction, with a gap, keeping the attitude', () => {
    const document = run(
      { verb: 'box', as: 'Wall', size: [10, 100, 100], at: [60, -50, 0] },
      knob('a', [0, 0, 40]),
      { verb: 'land', parts: ['a'], along: 'x', gap: '2.5' },
    );
    expect(vectorOf(named(document, 'a').placement.origin)).toEqual([57.5, 0, 40]);
    expect(degreesOfTurn(worldFromPart(document, named(document, 'a').id).turn)).toEqual([0, 0, 0]);
  });

  test('where nothing is that way, it says so and nothing moves', () => {
    expect(() => run(knob('a', [0, 0, 40]), { verb: 'land', parts: ['a'], along: 'x' })).toThrow(
      /no surface that way from a/,
    );
  });

  test('a move turns an axis to the way outward where it lands, and asks for both', () => {
    const move = { verb: 'move', parts: ['Knob'], from: [150, 0, 0], to: [30, 0, 90], facing: '-z' };
    const document = run(ball, knob('Knob', [150, 0, 0]), { ...move, normal: [0.6, 0, 0.8] });
    // Its own −Z points outward: the middle lies 5 inside the surface.
    const [x, y, z] = centroid(document, 'Knob');
    [27, 0, 86].forEach((n, i) => expect([x, y, z][i]).toBeCloseTo(n, 9));
    expect(() => run(ball, knob('Knob', [150, 0, 0]), move)).toThrow(/way outward/);
  });
});

describe('sight and lock', () => {
  const three = [
    { verb: 'box', as: 'a', size: [1, 1, 1] },
    { verb: 'box', as: 'b', size: [1, 1, 1], at: [5, 0, 0] },
    { verb: 'box', as: 'c', size: [1, 1, 1], at: [9, 0, 0] },
  ];
  const seen = (...more: object[]) =>
    Object.values(run(...three, ...more).items)
      .filter(({ visible }) => visible)
      .map(({ name }) => name);
  test('hide, show only these, show all', () => {
    expect(seen({ verb: 'hide', parts: ['b'] })).toEqual(['a', 'c']);
    expect(seen({ verb: 'show', which: 'only', parts: ['b'] })).toEqual(['b']);
    expect(seen({ verb: 'hide', parts: ['a', 'b'] }, { verb: 'show', which: 'these', parts: ['a'] })).toEqual(
      ['a', 'c'],
    );
    expect(seen({ verb: 'hide', parts: ['a', 'b'] }, { verb: 'show' })).toEqual(['a', 'b', 'c']);
    expect(() => seen({ verb: 'show', which: 'only' })).toThrow(/which parts/);
  });
  test('what is locked stays, until it is free', () => {
    const locked = { verb: 'lock', parts: ['a'] };
    const move = { verb: 'move', parts: ['a'], by: [1, 0, 0] };
    expect(() => run(...three, locked, move)).toThrow(/locked/);
    expect(() => run(...three, locked, { ...locked, state: 'free' }, move)).not.toThrow();
  });
});
