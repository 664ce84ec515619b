import { VERBS, emptyDocument, isRefusal, perform, type Base, type Verb } from '@kadrel/core';
import { ghostShape, type Stack } from './ghostShape.ts';

/** A made solid's base, by its verb. */
function baseOf(verb: Verb, typed: object): Base {
  const done = perform(verb, { at: ['0', '0', '0'], ...typed }, emptyDocument(), {
    newId: () => 'one',
    shapeOf: () => {
      throw new Error('Nothing is built here.');
    },
    ask: () => undefined,
  });
  if (isRefusal(done)) throw new Error(done.message);
  return done.document.items.one!.recipe.base;
}

const SIZES: Readonly<Record<string, object>> = {
  box: { size: ['40', '30', '20'] },
  wedge: { size: ['40', '30', '20'], top: '10' },
  cylinder: { diameter: '40', height: '20' },
  cone: { diameter: '40', top: '10', height: '20' },
  tube: { diameter: '40', bore: '20', height: '20' },
  sphere: { diameter: '40' },
  cap: { diameter: '40', height: '10' },
  torus: { diameter: '40', thickness: '10' },
  prism: { sides: '6', width: '40', height: '20' },
  frustum: { sides: '6', width: '40', top: '10', height: '20' },
  tiers: {
    levels: [
      { below: '40', above: '20', height: '10' },
      { below: '20', height: '10', outline: 'square' },
    ],
  },
};

/** Six times the volume within the bands and lids of a stack, by signed tetrahedra. */
function volumeOf({ rings, isLoop }: Stack): number {
  const at = (ring: number, corner: number) => {
    const { corners, scale, z } = rings[ring % rings.length]!;
    const [x, y] = corners[corner % corners.length]!;
    return [scale * x, scale * y, z] as const;
  };
  const count = rings[0]!.corners.length;
  const tetra = (a: readonly number[], b: readonly number[], c: readonly number[]) =>
    (a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) -
      a[1]! * (b[0]! * c[2]! - b[2]! * c[0]!) +
      a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!)) /
    6;
  let sum = 0;
  const bands = isLoop ? rings.length : rings.length - 1;
  for (let r = 0; r < bands; r++)
    for (let k = 0; k < count; k++)
      sum +=
        tetra(at(r, k), at(r, k + 1), at(r + 1, k + 1)) + tetra(at(r, k), at(r + 1, k + 1), at(r + 1, k));
  if (!isLoop)
    for (let k = 1; k + 1 < count; k++)
      sum +=
        tetra(at(0, 0), at(0, k + 1), at(0, k)) +
        tetra(at(rings.length - 1, 0), at(rings.length - 1, k), at(rings.length - 1, k + 1));
  return Math.abs(sum);
}

test('what is drawn by the pointer is seen about as large as it will be', () => {
  // Published formulas: of prisms, frusta, cylinders, cones, balls, caps (πh²(3r − h)/3) and rings (2π²Rr²).
  const wanted: Readonly<Record<string, number>> = {
    box: 24000,
    wedge: ((40 + 10) / 2) * 30 * 20,
    cylinder: Math.PI * 400 * 20,
    cone: (Math.PI * 20 * (400 + 100 + 25)) / 3,
    tube: Math.PI * 300 * 20,
    sphere: (4 / 3) * Math.PI * 8000,
    cap: (Math.PI * 100 * (60 - 10)) / 3,
    torus: 2 * Math.PI ** 2 * 20 * 25,
    prism: ((3 * Math.sqrt(3)) / 2) * 400 * 20,
    frustum: (((3 * Math.sqrt(3)) / 2) * (400 + 100 + 25) * 20) / 3,
    tiers: (Math.PI * 10 * (400 + 200 + 100)) / 3 + 400 * 10,
  };
  for (const verb of VERBS.filter(({ group, gesture }) => group === 'make' && gesture)) {
    const shape = ghostShape(baseOf(verb, SIZES[verb.id]!));
    expect([verb.id, shape === undefined]).toEqual([verb.id, false]);
    const volume = shape!.reduce((sum, stack) => sum + volumeOf(stack), 0);
    expect(volume / wanted[verb.id]!).toBeGreaterThan(0.95);
    expect(volume / wanted[verb.id]!).toBeLessThan(1.0001);
  }
});
