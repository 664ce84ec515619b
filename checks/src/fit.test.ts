/** How solids stand to one another: by formulas, against facets of an independent library, and by planted faults. */
import { USUAL_SCOPE, visibleParts, type KadrelDocument, type PairFacts, type Replies } from '@kadrel/core';
import { Evaluator, fitReportOf } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { built, builtBy, numbers, type Statement, trials } from '@kadrel/testing';
import { PLANTED_KINDS, tryAssembly, tryPlanted, type Libraries } from './torture/assemblies.ts';
import { loadFacets } from './torture/facets.ts';

let libraries: Libraries;
let kernel: Evaluator;
beforeAll(async () => {
  libraries = await sharedLibraries();
  kernel = new Evaluator(libraries);
});

const turned = (as: string, turn: readonly number[]): Statement[] =>
  turn.flatMap((angle, i): Statement[] =>
    angle === 0 ? [] : [['turn', { parts: [as], angle, about: 'xyz'[i] }]],
  );

function factsOf(document: KadrelDocument): PairFacts {
  const [a, b] = visibleParts(document).map(({ id }) => id);
  const [facts] = kernel.answer(document, {
    ask: 'pairs',
    pairs: [[a!, b!]],
    reach: 1e4,
  }) as Replies['pairs'];
  return facts!;
}

const gapOf = (...statements: Statement[]) => factsOf(built(statements)).gap;

/** mm: what distances by formula are held to. */
const EXACT_MM = 1e-7;
const isExactly = (found: number, wanted: number) => expect(Math.abs(found - wanted)).toBeLessThan(EXACT_MM);

// Elementary geometry; no source.
test('distances by formula: balls, a ball in a bore, crossing cylinders, plates at an angle, a ring and a pin', () => {
  const random = numbers(18);
  for (let i = 0; i < trials(10); i++) {
    const at = [random() * 30 + 12, random() * 30, random() * 30];
    isExactly(
      gapOf(['sphere', { as: 'a', diameter: 10 }], ['sphere', { as: 'b', diameter: 6, at }]),
      Math.hypot(...at) - 8,
    );
    const off = random() * 4;
    isExactly(
      gapOf(
        ['tube', { as: 'a', diameter: 40, bore: 30, height: 40 }],
        ['sphere', { as: 'b', diameter: 20, at: [off, 0, 20] }],
      ),
      15 - 10 - off,
    );
    const [aside, tilt] = [10 + random() * 10, 20 + random() * 140];
    isExactly(
      gapOf(
        ['cylinder', { as: 'a', diameter: 10, height: 200, at: [0, 0, -100] }],
        ['cylinder', { as: 'b', diameter: 6, height: 200, at: [aside, 0, 0] }],
        ...turned('b', [tilt, 0, 0]),
        [
          'move',
          {
            parts: ['b'],
            by: [0, 100 * Math.sin((tilt * Math.PI) / 180), -100 * Math.cos((tilt * Math.PI) / 180)],
          },
        ],
      ),
      aside - 8,
    );
    const lean = 5 + random() * 40;
    isExactly(
      gapOf(
        ['box', { as: 'a', size: [40, 40, 4], at: [0, 0, 0] }],
        ['box', { as: 'b', size: [40, 40, 4], at: [0, 0, 10] }],
        ...turned('b', [0, -lean, 0]),
      ),
      6,
    );
    const pin = 4 + random() * 20;
    isExactly(
      gapOf(
        ['torus', { as: 'a', diameter: 40, thickness: 6 }],
        ['cylinder', { as: 'b', diameter: pin, height: 40, at: [0, 0, -20] }],
      ),
      20 - 3 - pin / 2,
    );
  }
});

test('contact over an area, along an edge and in a point, and what two share', () => {
  const box = (as: string, at: readonly number[]): Statement => ['box', { as, size: [10, 10, 10], at }];
  const contact = (at: readonly number[]) => factsOf(built([box('a', [0, 0, 0]), box('b', at)])).contact!;
  expect(contact([3, 4, 10])).toMatchObject({ kind: 'area', normal: [0, 0, 1] });
  expect(contact([3, 4, 10]).area).toBeCloseTo(42, 9);
  expect(contact([10, 4, 10]).kind).toBe('edge');
  expect(contact([10, 10, 10]).kind).toBe('point');
  const pressed = factsOf(
    built([
      ['tube', { as: 'a', diameter: 40, bore: 25, height: 20 }],
      ['cylinder', { as: 'b', diameter: 25, height: 30, at: [0, 0, -5] }],
    ]),
  );
  expect(pressed.contact!.area).toBeCloseTo(Math.PI * 25 * 20, 6);
  const lying: Statement[] = [
    ['box', { as: 'a', size: [40, 40, 10] }],
    ['cylinder', { as: 'b', diameter: 6, height: 20, at: [5, 20, 13] }],
    ...turned('b', [0, 90, 0]),
  ];
  expect(factsOf(built(lying)).contact!.kind).toBe('edge');
  const ball = factsOf(built([box('a', [0, 0, 0]), ['sphere', { as: 'b', diameter: 2, at: [5, 5, 5] }]]));
  expect(ball).toMatchObject({ within: 'second', gap: 0 });
  expect(ball.overlap!.volume).toBeCloseTo((4 / 3) * Math.PI, 9);
  // Two balls: the lens of MathWorld "Sphere-Sphere Intersection", from memory.
  const lens = factsOf(
    built([
      ['sphere', { as: 'a', diameter: 20 }],
      ['sphere', { as: 'b', diameter: 20, at: [12, 0, 0] }],
    ]),
  );
  expect(lens.overlap!.volume).toBeCloseTo((Math.PI * (40 + 12) * (20 - 12) ** 2) / 12, 6);
});

test('distances and overlaps of random solids are those of an independent facet library', async () => {
  const facets = await loadFacets();
  const verdicts = Array.from({ length: trials(30) }, (_, seed) =>
    tryAssembly(libraries, facets, seed + 1),
  ).flat();
  expect(verdicts.filter(({ outcome }) => outcome === 'wrong')).toEqual([]);
  expect(verdicts.filter(({ outcome }) => outcome === 'refused').length).toBeLessThan(verdicts.length / 50);
});

test('planted faults are found, and nothing in clean assemblies', async () => {
  for (let seed = 1; seed <= 2; seed++)
    for (const fault of PLANTED_KINDS) {
      const { clean, found } = await tryPlanted(libraries, seed, fault);
      expect({ seed, fault, clean }).toEqual({ seed, fault, clean: [] });
      expect({ seed, kinds: found.map(({ kind }) => kind) }).toEqual({ seed, kinds: [fault] });
    }
});

test('what is measured of one thing: sizes and walls by construction', async () => {
  const document = builtBy(kernel, [
    ['tube', { as: 'bush', diameter: 40, bore: 25, height: 20 }],
    ['box', { as: 'plate', size: [60, 30, 3], at: [100, 0, 0] }],
    ['measure', { from: 'bush: side', what: 'thickness', least: '7.5' }],
    ['measure', { from: 'plate: top', what: 'thickness', greatest: '2.9' }],
    ['measure', { from: 'bush: bore', what: 'radius' }],
    ['measure', { from: 'plate: top&left', what: 'length' }],
    ['measure', { from: 'plate: top', to: 'plate: left', what: 'angle' }],
    ['measure', { from: 'bush', to: 'plate', what: 'x' }],
    ['measure', { from: 'plate: top', what: 'area' }],
    ['measure', { from: 'plate', what: 'volume' }],
    // The side of this cone falls at 45°: a point is as far from it as from the line x + z = 10.
    ['cone', { as: 'cone', diameter: 20, top: 0, height: 10, at: [0, 200, 0] }],
    ['sphere', { as: 'ball', diameter: 4, at: [15, 200, 10] }],
    ['measure', { from: 'cone: side', to: 'ball' }],
    ['along', { as: 'balls', parts: ['ball'], along: 'y', count: 3, pitch: 9 }],
    ['measure', { from: 'balls', to: 'cone: side' }],
  ]);
  const { findings } = await fitReportOf(kernel, document, USUAL_SCOPE);
  const words = findings
    .filter(({ kind }) => kind === 'measure')
    .map(({ what, state, size }) => [what, state, Number(size.toFixed(9))]);
  expect(words.sort()).toEqual([
    ['M1', 'fine', 7.5],
    ['M10', 'fine', Number((15 / Math.SQRT2 - 2).toFixed(9))],
    ['M2', 'fault', 3],
    ['M3', 'fine', 12.5],
    ['M4', 'fine', 30],
    ['M5', 'fine', 90],
    ['M6', 'fine', 80],
    ['M7', 'fine', 1800],
    ['M8', 'fine', 5400],
    ['M9', 'fine', Number((15 / Math.SQRT2 - 2).toFixed(9))],
  ]);
});

test('wanted fits are met or missed by exact geometry', async () => {
  const pair = (bore: number, pin: number, aside: number): Statement[] => [
    ['tube', { as: 'bush', diameter: 40, bore, height: 20 }],
    ['cylinder', { as: 'pin', diameter: pin, height: 20, at: [aside, 0, 0] }],
    ['wanted-fit', { from: 'bush: bore', to: 'pin: side', kind: 'iso', grades: 'H7/g6' }],
    ['wanted-fit', { from: 'bush: bore', to: 'pin: side', kind: 'coaxial' }],
    ['wanted-fit', { from: 'bush', to: 'pin', kind: 'clearance', least: '0.005', greatest: '0.01' }],
    ['wanted-fit', { from: 'bush: top', to: 'pin: top', kind: 'flush' }],
  ];
  const states = async (...sizes: [number, number, number]) => {
    const { findings } = await fitReportOf(kernel, builtBy(kernel, pair(...sizes)), USUAL_SCOPE);
    return findings
      .filter(({ kind }) => kind === 'fit')
      .sort((a, b) => (a.what < b.what ? -1 : 1))
      .map(({ state }) => state);
  };
  expect(await states(25.01, 24.99, 0)).toEqual(['fine', 'fine', 'fine', 'fine']);
  expect(await states(25.01, 24.99, 0.001)).toEqual(['fine', 'fault', 'fine', 'fine']);
  expect(await states(25.03, 24.99, 0)).toEqual(['fault', 'fine', 'fault', 'fine']);
});
