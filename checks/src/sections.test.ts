/** Section planes against formulas, and against slices by an independent facet library. */
import { filledArea, pathsOf, worldFromPart, type KadrelDocument, type Replies } from '@kadrel/core';
import { Evaluator } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { built, builtBy, idOf, numbers, type Statement, trials } from '@kadrel/testing';

const libraries = await sharedLibraries();

const factsOf = (document: KadrelDocument, name: string): Replies['section'] =>
  new Evaluator(libraries).answer(document, {
    ask: 'section',
    part: idOf(document, name),
  }) as Replies['section'];

/** Of triangles, nine numbers each. */
function facetArea(corners: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < corners.length; i += 9) {
    const [u, v] = [3, 6].map((to) => [0, 1, 2].map((k) => corners[i + to + k]! - corners[i + k]!)) as [
      number[],
      number[],
    ];
    sum +=
      Math.hypot(
        u[1]! * v[2]! - u[2]! * v[1]!,
        u[2]! * v[0]! - u[0]! * v[2]!,
        u[0]! * v[1]! - u[1]! * v[0]!,
      ) / 2;
  }
  return sum;
}

/** The area that a section plane cuts of the only part. */
function areaOf(part: Statement, plane: Statement[1]): number {
  const document = built([part, ['section', { as: 'cut', ...plane }]]);
  return factsOf(document, 'cut').items.reduce((sum, { area }) => sum + area, 0);
}

/** Through a point, with its normal leaning from Z towards X, degrees. */
function leaning([x, y, z]: readonly [number, number, number], degrees: number): Statement[1] {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return {
    on: {
      points: [
        [x, y, z],
        [x + c, y, z - s],
        [x, y + 1, z],
      ],
    },
  };
}

const expectWithin = (found: number, expected: number, relative = 1e-9) =>
  expect(Math.abs(found / expected - 1)).toBeLessThan(relative);

test('a plane through the middle of a hole, by its name: the widest cut of the hole', () => {
  const kernel = new Evaluator(libraries);
  const drilled: readonly Statement[] = [
    ['box', { as: 'plate', size: [60, 40, 10] }],
    ['cylinder', { as: 'drill', diameter: 9, height: 30, at: [22.7, 13.3, -5] }],
    ['subtract', { as: 'drilled', from: 'plate', parts: ['drill'] }],
  ];
  const through = { on: 'drilled', at: 'top&drill.side', snap: 'centre' };
  const document = builtBy(kernel, [...drilled, ['section', { as: 'cut', on: 'front', through }]]);
  expectWithin(factsOf(document, 'cut').items[0]!.area, (60 - 9) * 10);
  const beside = builtBy(kernel, [...drilled, ['section', { as: 'cut', on: 'side', through, offset: 2 }]]);
  const chord = 2 * Math.sqrt(4.5 ** 2 - 2 ** 2);
  expectWithin(factsOf(beside, 'cut').items[0]!.area, (40 - chord) * 10);
});

describe('areas by formula', () => {
  test('a box, level and along its diagonal', () => {
    const box: Statement = ['box', { as: 'a', size: [40, 30, 20] }];
    expectWithin(areaOf(box, { on: 'plan', offset: 7 }), 40 * 30);
    // A plane that leans by 20° cuts a strip as long as the box is wide, by 1/cos.
    expectWithin(areaOf(box, leaning([20, 0, 10], 20)), (40 * 30) / Math.cos(Math.PI / 9));
  });

  // Source: an oblique section of a cylinder is an ellipse, πr²/cos θ; from memory.
  test.each([10, 30, 45, 60])('a cylinder at %d°', (degrees) => {
    const area = areaOf(['cylinder', { as: 'a', diameter: 20, height: 200 }], leaning([0, 0, 100], degrees));
    expectWithin(area, (Math.PI * 100) / Math.cos((degrees * Math.PI) / 180));
  });

  // Source: x² + y² = z² tan² α cut by x sin φ + z cos φ = d, worked out by completing the square; the projected ellipse has the
  // semi-axes kd/q and kd/√q, where k = tan α / cos φ and q = 1 − k² sin² φ.
  test('a cone, aslant', () => {
    const [height, radius, phi] = [100, 60, Math.PI / 9];
    const document: Statement = ['cone', { as: 'a', diameter: 2 * radius, top: 0, height }];
    // The apex is at the top: the depth below it is counted downward.
    const depth = 50;
    const area = areaOf(document, leaning([0, 0, height - depth], (phi * 180) / Math.PI));
    const d = depth * Math.cos(phi);
    const k = radius / height / Math.cos(phi);
    const q = 1 - (k * Math.sin(phi)) ** 2;
    expectWithin(area, (Math.PI * (k * d) ** 2) / q ** 1.5 / Math.cos(phi));
  });

  test('a ball, level, aslant and beside its centre', () => {
    const ball: Statement = ['sphere', { as: 'a', diameter: 50, at: [0, 0, 0] }];
    expectWithin(areaOf(ball, { on: 'plan', offset: 7 }), Math.PI * (625 - 49));
    // The plane through (0, 0, 10) that leans by 35° is 10 cos 35° from the centre.
    const d = 10 * Math.cos((35 * Math.PI) / 180);
    expectWithin(areaOf(ball, leaning([0, 0, 10], 35)), Math.PI * (625 - d * d));
  });

  describe('a ring of R = 30, r = 10', () => {
    const ring: Statement = ['torus', { as: 'a', diameter: 60, thickness: 20, at: [0, 0, 0] }];
    test('level: an annulus', () => {
      const half = Math.sqrt(100 - 36);
      expectWithin(
        areaOf(ring, { on: 'plan', offset: 6 }),
        Math.PI * ((30 + half) ** 2 - (30 - half) ** 2),
        1e-8,
      );
    });
    test('upright through its axis: two circles', () => {
      expectWithin(areaOf(ring, { on: 'front' }), 2 * Math.PI * 100);
    });
    // Source: Villarceau’s theorem: the plane through the centre that leans by arcsin r/R cuts two circles of radius R, whose centres
    // are r to either side. What lies within the ring is what one of the circles holds, and not both: 2πR² less twice their lens.
    test('touching it twice: Villarceau’s circles', () => {
      const area = areaOf(ring, leaning([0, 0, 0], (Math.asin(1 / 3) * 180) / Math.PI));
      const lens = 2 * 900 * Math.acos(1 / 3) - 10 * Math.sqrt(3600 - 400);
      expectWithin(area, 2 * Math.PI * 900 - 2 * lens, 1e-6);
    });
  });
});

test('slices come nearer to the volume as the square of the pitch', () => {
  // Source: Cavalieri’s principle; the midpoint rule is of second order.
  const volume = (4 / 3) * Math.PI * 25 ** 3;
  const errors = [10, 5, 2.5].map((pitch) => {
    const heights = Array.from({ length: 50 / pitch }, (_, i) => -25 + (i + 0.5) * pitch);
    const document = built([
      ['sphere', { as: 'a', diameter: 50, at: [0, 0, 0] }],
      ...heights.map((offset, i): Statement => ['section', { as: `cut ${i}`, on: 'plan', offset }]),
    ]);
    const sum = heights.reduce((all, _, i) => all + factsOf(document, `cut ${i}`).items[0]!.area, 0);
    return Math.abs(sum * pitch - volume);
  });
  for (const i of [1, 2]) expectWithin(errors[i - 1]! / errors[i]!, 4, 1e-6);
});

test('what is cut of each part, with its border and its middle, and nothing of what is left whole', () => {
  const document = built([
    ['box', { as: 'wood', size: [40, 30, 20] }],
    ['cylinder', { as: 'bolt', diameter: 6, height: 40, at: [60, 15, -10] }],
    ['sphere', { as: 'far', diameter: 10, at: [0, 0, 100] }],
    ['section', { as: 'cut', on: 'front', offset: -15 }],
    ['section', { as: 'saving', on: 'front', offset: -15, whole: ['bolt'] }],
  ]);
  const { items, overlaps } = factsOf(document, 'cut');
  expect(overlaps).toEqual([]);
  expect(items.map(({ item }) => document.items[item]!.name)).toEqual(['wood', 'bolt']);
  expectWithin(items[0]!.area, 800);
  expectWithin(items[0]!.border, 120);
  items[0]!.centroid.forEach((n, i) => expect(n).toBeCloseTo([20, 15, 10][i]!, 9));
  expectWithin(items[1]!.area, 6 * 40);
  expect(factsOf(document, 'saving').items.map(({ item }) => document.items[item]!.name)).toEqual(['wood']);
});

test('parts that fill the same place are told, and gaps are none', () => {
  const document = built([
    ['box', { as: 'a', size: [40, 30, 20] }],
    ['box', { as: 'b', size: [40, 30, 20], at: [30, 0, 5] }],
    ['box', { as: 'touching', size: [10, 30, 20], at: [70, 0, 5] }],
    ['section', { as: 'cut', on: 'front', offset: -15 }],
  ]);
  const { overlaps } = factsOf(document, 'cut');
  expect(overlaps).toHaveLength(1);
  expect(overlaps[0]!.items.map((id) => document.items[id]!.name)).toEqual(['a', 'b']);
  expectWithin(overlaps[0]!.area, 10 * 15);
});

/** What profiles fill together, mm². */
const filled = (document: KadrelDocument, ids: readonly string[]) =>
  ids.reduce((sum, id) => sum + filledArea(pathsOf(document, id)), 0);

test('parts that are alike and lie on one another are told, each by its own name', () => {
  const box = (as: string): Statement => ['box', { as, size: [40, 30, 20] }];
  const document = built([box('a'), box('b'), box('c'), ['section', { as: 'cut', on: 'plan', offset: 7 }]]);
  const { items, overlaps } = factsOf(document, 'cut');
  expect(items.map(({ item }) => document.items[item]!.name)).toEqual(['a', 'b', 'c']);
  for (const { area } of [...items, ...overlaps]) expectWithin(area, 1200);
  // What is shown of an overlap are facets that fill it.
  for (const { corners } of overlaps) expectWithin(facetArea(corners), 1200, 1e-6);
  expect(overlaps).toHaveLength(3);
});

test('a kept cut is what the section plane cuts, hole and all', () => {
  const kernel = new Evaluator(libraries);
  const document = builtBy(kernel, [
    ['tube', { as: 'pipe', diameter: 40, bore: 30, height: 50 }],
    ['box', { as: 'block', size: [10, 10, 50], at: [40, 0, 0] }],
    ['section', { as: 'cut', ...leaning([0, 0, 25], 30) }],
    ['keep-cut', { section: 'cut', parts: ['pipe'] }],
  ]);
  const kept = Object.values(document.items).filter(({ name }) => name.startsWith('cut through'));
  expect(kept.map(({ name }) => name)).toEqual(['cut through pipe']);
  expectWithin(filled(document, [kept[0]!.id]), (Math.PI * (400 - 225)) / Math.cos(Math.PI / 6));
  // It lies where it was cut.
  const { turn, shift } = worldFromPart(document, kept[0]!.id);
  expect([turn, shift]).toEqual(Object.values(worldFromPart(document, idOf(document, 'cut'))));
});

test('slices at a pitch, and as many as are said, hold what the solids hold', () => {
  const kernel = new Evaluator(libraries);
  const wedge: Statement = ['wedge', { as: 'roof', size: [60, 40, 30] }];
  const profilesOf = (document: KadrelDocument) =>
    Object.values(document.items).filter(({ recipe }) => recipe.base.kind === 'profile');
  const volume = 0.5 * 60 * 40 * 30;
  // Areas fall off along a line: cuts in the middle of layers hold exactly as much. Source: the midpoint rule, exact for lines.
  const byPitch = builtBy(kernel, [wedge, ['slices', { parts: ['roof'], pitch: 2 }]]);
  expect(profilesOf(byPitch)).toHaveLength(15);
  expectWithin(
    2 *
      filled(
        byPitch,
        profilesOf(byPitch).map(({ id }) => id),
      ),
    volume,
  );
  const byCount = builtBy(kernel, [wedge, ['slices', { parts: ['roof'], count: 7, at: 'bottom' }]]);
  const heights = profilesOf(byCount).map(({ id }) => worldFromPart(byCount, id).shift[2]);
  heights.forEach((height, i) => expect(height).toBeCloseTo((30 / 7) * i, 9));
  // A pitch counts from the plane, wherever the part stands: the layer from 2 to 4 has its bottom below the part.
  const raised = builtBy(kernel, [
    ['box', { as: 'a', size: [10, 10, 5], at: [0, 0, 3] }],
    ['slices', { parts: ['a'], pitch: 2, at: 'bottom' }],
  ]);
  expect(profilesOf(raised).map(({ id }) => worldFromPart(raised, id).shift[2])).toEqual([4, 6]);
});

/** Random solids: whole, bored, united, and a row of them. */
function sceneOf(random: () => number): Statement[] {
  const between = (min: number, max: number) => Math.round(min + random() * (max - min));
  const at = () => [between(-20, 20), between(-20, 20), between(-20, 20)];
  const turn = () => [between(0, 180), between(0, 180), between(0, 180)];
  const solid = (as: string): Statement[] => [
    random() < 0.5
      ? ['box', { as, size: [between(10, 50), between(10, 50), between(10, 50)], at: at() }]
      : random() < 0.5
        ? ['cylinder', { as, diameter: between(10, 40), height: between(10, 60), at: at() }]
        : ['torus', { as, diameter: between(40, 60), thickness: between(6, 18), at: at() }],
    ['change', { parts: [as], turn: turn() }],
  ];
  const how = ['union', 'subtract'][between(0, 1)]!;
  const operands = how === 'union' ? { parts: ['a', 'b'] } : { from: 'a', parts: ['b'] };
  return [...solid('a'), ...solid('b'), [how, { as: 'made', ...operands }]];
}

test('random combinations, against slices of their facets by an independent library', () => {
  const wasm = libraries.facetter;
  let compared = 0;
  for (let seed = 1; compared < trials(30) && seed < 60; seed++) {
    const random = numbers(seed);
    const offset = Math.round(random() * 30 - 15) + 0.37;
    let document: KadrelDocument;
    try {
      document = built([...sceneOf(random), ['section', { as: 'cut', on: 'plan', offset }]]);
      const kernel = new Evaluator(libraries);
      const problem = kernel.problemOf(document, idOf(document, 'made'));
      if (problem) continue;
      const { items } = kernel.answer(document, {
        ask: 'section',
        part: idOf(document, 'cut'),
      }) as Replies['section'];
      const { snaps } = kernel.facts(document, idOf(document, 'made'));
      const mesh = new wasm.Mesh({
        numProp: 3,
        vertProperties: snaps.positions,
        triVerts: snaps.triangles,
      });
      mesh.merge();
      const facets = new wasm.Manifold(mesh);
      // The part’s own frame is that of the world, but for where it stands.
      const { shift } = worldFromPart(document, idOf(document, 'made'));
      const slice = facets.slice(offset - shift[2]);
      const expected = slice.area();
      const cut = items.find(({ item }) => item === idOf(document, 'made')) ?? { area: 0, border: 0 };
      // Facets lie within some chords of the true surface, which the plane may meet at a slant.
      const slack = 10 * snaps.chordMm * cut.border + 1e-6;
      expect(Math.abs(cut.area - expected)).toBeLessThan(slack);
      for (const one of [slice, facets]) one.delete();
      compared += 1;
    } catch (error) {
      throw new Error(`seed ${seed}`, { cause: error });
    }
  }
  expect(compared).toBe(trials(30));
});
