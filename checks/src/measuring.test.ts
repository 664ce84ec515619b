/** What measures come to along directions and by mass, variables that are set from them, free play and sites: by construction, no source. */
import {
  USUAL_SCOPE,
  isRefusal,
  itemsIn,
  perform,
  verbNamed,
  type Finding,
  type KadrelDocument,
  type Scope,
  type Vec3,
} from '@kadrel/core';
import { Evaluator, fitReportOf, worldOf } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { builtBy, idOf, measured, numbers, type Statement, trials } from '@kadrel/testing';

const kernel = new Evaluator(await sharedLibraries());

const findingsOf = async (document: KadrelDocument, kind: Finding['kind'], scope: Partial<Scope> = {}) =>
  (await fitReportOf(kernel, document, { ...USUAL_SCOPE, ...scope })).findings.filter(
    (one) => one.kind === kind,
  );

const sizeAlong = (document: KadrelDocument, name: string, axis: number) => {
  const { min, max } = measured(kernel, document, name).box;
  return max[axis]! - min[axis]!;
};

/** A statement that is carried out after others, or refused. */
function tried(document: KadrelDocument, [verb, typed]: Statement) {
  let ids = 0;
  return perform(
    verbNamed(verb)!,
    typed,
    document,
    worldOf(document, kernel, () => `q${++ids}`),
  );
}

function after(document: KadrelDocument, ...statements: Statement[]): KadrelDocument {
  return statements.reduce((now, statement, i) => {
    const [verb, typed] = statement;
    const done = perform(
      verbNamed(verb)!,
      typed,
      now,
      worldOf(now, kernel, () => `r${i}-${itemsIn(now).length}`),
    );
    if (isRefusal(done)) throw new Error(`${verb}: ${done.message}`);
    return done.document;
  }, document);
}

test('gaps along any direction: balls reach their radius to every side', async () => {
  const random = numbers(18);
  for (let i = 0; i < trials(10); i++) {
    const at = [20 + random() * 20, random() * 30, random() * 30] as const;
    const towards = [0.2 + random(), random(), random()] as const;
    const size = Math.hypot(...towards);
    const document = builtBy(kernel, [
      ['sphere', { as: 'a', diameter: 10 }],
      ['sphere', { as: 'b', diameter: 6, at }],
      ['measure', { from: 'a', to: 'b', what: 'along', along: towards }],
      ['measure', { from: at, to: 'a', what: 'along', along: towards }],
    ]);
    const between = at.reduce((sum, n, k) => sum + (n * towards[k]!) / size, 0);
    const found = (await findingsOf(document, 'measure')).map((one) => one.size);
    for (const [k, wanted] of [between - 8, between - 5].entries())
      expect(Math.abs(found[k]! - wanted)).toBeLessThan(1e-9);
  }
});

describe('distances along a path', () => {
  const paths = async (...statements: Statement[]) =>
    (await findingsOf(builtBy(kernel, statements), 'measure')).map((one) => one.size);

  test('of legs add up, from foot to foot, whichever way and wherever it is picked', async () => {
    const legs = [
      { dx: 30, dy: 0 },
      { dx: 0, dy: 40 },
      { dx: -10, dy: 0 },
    ];
    const run = { what: 'path', path: 'walk' };
    expect(
      await paths(
        ['traverse', { as: 'walk', legs, at: [0, 0, 0] }],
        ['sphere', { as: 'ball', diameter: 4, at: [36, 12, 0] }],
        ['measure', { from: [0, 0, 0], to: [20, 40, 0], ...run }],
        ['measure', { from: [25, 45, 9], to: [8, -3, 0], ...run }],
        ['measure', { from: [0, 0, 0], to: 'ball', ...run }],
      ),
    ).toEqual([80, 67, 42].map((mm) => expect.closeTo(mm, 9) as number));
  });

  test('of a closed one go the shorter way round', async () => {
    const found = await paths(
      ['circle', { as: 'ring', diameter: 20, at: [0, 0, 0] }],
      ['measure', { from: [10, 0, 0], to: [0, -10, 0], what: 'path', path: 'ring' }],
      ['measure', { from: [-30, 1e-9, 0], to: [30, 0, 0], what: 'path', path: 'ring' }],
    );
    expect(found[0]).toBeCloseTo(5 * Math.PI, 9);
    expect(found[1]).toBeCloseTo(10 * Math.PI, 6);
  });

  test('of an ellipse are its quarters, by the arithmetic-geometric mean', async () => {
    // Source: NIST Digital Library of Mathematical Functions, 19.8.5 and 19.8.6, with 19.9.9 for the perimeter; from memory.
    const perimeter = (a: number, b: number) => {
      let [mean, root, sum] = [1, b / a, (1 - (b / a) ** 2) / 2];
      for (let n = 1; n < 8; n++) {
        const c = (mean - root) / 2;
        [mean, root] = [(mean + root) / 2, Math.sqrt(mean * root)];
        sum += 2 ** (n - 1) * c * c;
      }
      return (2 * Math.PI * a * (1 - sum)) / mean;
    };
    const [quarter] = await paths(
      ['ellipse', { as: 'ring', width: 60, height: 20, at: [0, 0, 0] }],
      ['measure', { from: [30, 0, 0], to: [0, 10, 0], what: 'path', path: 'ring' }],
    );
    expect(quarter).toBeCloseTo(perimeter(30, 10) / 4, 8);
  });

  test('follow an edge of a solid that is resized, and refuse what is no path', async () => {
    const document = builtBy(kernel, [
      ['cylinder', { as: 'post', diameter: 20, height: 30, at: [0, 0, 0] }],
      ['measure', { from: [50, 0, 30], to: [0, 50, 30], what: 'path', path: 'post: top&side' }],
    ]);
    expect((await findingsOf(document, 'measure'))[0]!.size).toBeCloseTo(5 * Math.PI, 9);
    const wider = after(document, ['change', { parts: ['post'], diameter: 40 }]);
    expect((await findingsOf(wider, 'measure'))[0]!.size).toBeCloseTo(10 * Math.PI, 9);
    const box = builtBy(kernel, [
      ['box', { as: 'a', size: [10, 10, 10] }],
      ['measure', { from: [0, 0, 0], to: [9, 0, 0], what: 'path', path: 'a' }],
    ]);
    expect((await findingsOf(box, 'measure'))[0]).toMatchObject({ state: 'fault' });
  });

  test('run on without a bend round a plate whose corners are round, and stop at sharp ones', async () => {
    const plate: Statement = ['box', { as: 'plate', size: [60, 40, 5] }];
    const along = (from: Vec3, to: Vec3): Statement => [
      'measure',
      { from, to, what: 'path', path: 'plate: top&front' },
    ];
    const rounded = builtBy(kernel, [
      plate,
      ['fillet', { part: 'plate', edges: 'z', radius: 10 }],
      along([30, 0, 5], [30, 40, 5]),
      along([10, 0, 5], [60, 10, 5]),
    ]);
    const sizes = (await findingsOf(rounded, 'measure')).map(({ size }) => size);
    // The rim is 2·40 + 2·20 + 2π·10 long; half of it leads from the middle of one side to that of the other.
    expect(sizes[0]).toBeCloseTo(60 + 10 * Math.PI, 9);
    expect(sizes[1]).toBeCloseTo(40 + 5 * Math.PI, 9);
    const [sharp] = await findingsOf(builtBy(kernel, [plate, along([10, 0, 5], [60, 30, 5])]), 'measure');
    expect(sharp!.size).toBeCloseTo(50, 9);
  });
});

test('masses by volume and density; limits of areas, volumes and masses', async () => {
  const document = builtBy(kernel, [
    ['box', { as: 'beam', size: [1000, 100, 50] }],
    ['measure', { from: 'beam', what: 'mass', material: 'steel', greatest: '39000' }],
    ['measure', { from: 'beam', what: 'volume', least: '5 dm * 1 dm * 1 dm' }],
    ['measure', { from: 'beam: top', what: 'area', least: '0.2 m * 1 m' }],
    ['measure', { from: 'beam', what: 'mass', material: 'softwood', greatest: '2150' }],
  ]);
  const found = await findingsOf(document, 'measure');
  const reported = found.map(({ what, state, size }) => [what, state, Number(size.toFixed(6))]);
  expect(reported.sort()).toEqual([
    // 5,000 cm³ at 7.85 g/cm³.
    ['M1', 'fault', 39_250],
    ['M2', 'fine', 5e6],
    ['M3', 'fault', 1e5],
    ['M4', 'fine', 2150],
  ]);
});

test('a measure says what it needs, and nothing that it does not', () => {
  const document = builtBy(kernel, [['box', { as: 'a', size: [10, 10, 10] }]]);
  for (const [typed, code] of [
    [{ what: 'mass' }, 'missing.material'],
    [{ to: [50, 0, 0], what: 'along' }, 'missing.along'],
    [{ to: [50, 0, 0], along: 'x' }, 'along-only'],
    [{ to: [50, 0, 0], what: 'path' }, 'missing.path'],
    [{ to: [50, 0, 0], path: 'a: top&front' }, 'along-only'],
    [{ what: 'area', least: '3 mm' }, 'dimension.belongs'],
  ] as const)
    expect(tried(document, ['measure', { from: 'a: top', ...typed }])).toMatchObject({ code });
});

test('a variable that is set from a measure follows it, through what it moves in turn', () => {
  const two = builtBy(kernel, [
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['box', { as: 'b', size: [10, 10, 10], at: [30, 0, 0] }],
    ['measure', { from: 'a', to: 'b', called: 'bee space' }],
    ['variable', { name: 'gap', value: 'measure("bee space")' }],
    ['variable', { name: 'bar', value: '2 * gap + 1 mm' }],
    ['box', { as: 'c', size: ['bar', 5, 5], at: [0, 50, 0] }],
    ['measure', { from: 'c: right', to: [100, 52, 2], called: 'rest' }],
    ['variable', { name: 'left_over', value: 'measure(“rest”)' }],
    ['box', { as: 'd', size: [5, 'left_over', 5], at: [0, 80, 0] }],
  ]);
  expect(sizeAlong(two, 'c', 0)).toBeCloseTo(41, 9);
  expect(sizeAlong(two, 'd', 1)).toBeCloseTo(59, 9);
  const moved = after(two, ['move', { parts: ['b'], by: [5, 0, 0] }]);
  expect(sizeAlong(moved, 'c', 0)).toBeCloseTo(51, 9);
  expect(sizeAlong(moved, 'd', 1)).toBeCloseTo(49, 9);
  const named = after(moved, ['change', { parts: ['a'], size: [15, 10, 10] }]);
  expect(sizeAlong(named, 'c', 0)).toBeCloseTo(41, 9);
});

test('what would follow itself is refused, and so is a measure that is not there', () => {
  const document = builtBy(kernel, [
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['measure', { from: 'a: top', what: 'area', called: 'lid' }],
    ['measure', { from: 'a: left', to: 'a: right', called: 'width' }],
    ['variable', { name: 'w', value: '12 mm' }],
    ['change', { parts: ['a'], size: ['w', 10, 10] }],
  ]);
  expect(tried(document, ['variable', { name: 'w', value: 'measure("width") + 1 mm' }])).toMatchObject({
    code: 'measure-circle',
  });
  expect(tried(document, ['variable', { name: 'v', value: 'measure("depth")' }])).toMatchObject({
    code: 'no-measure',
  });
  // Itself plus nothing stands still: it may be said.
  expect(isRefusal(tried(document, ['variable', { name: 'w', value: 'measure("width")' }]))).toBe(false);
});

test('a kept measure that a variable is set from is neither forgotten nor lost by its new name', () => {
  const document = builtBy(kernel, [
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['measure', { from: 'a: left', to: 'a: right', called: 'width' }],
    ['variable', { name: 'w', value: 'measure("width")' }],
  ]);
  expect(tried(document, ['forget-check', { of: 'width' }])).toMatchObject({ code: 'measure-used' });
  const renamed = after(document, ['change-check', { of: 'width', called: 'breadth' }]);
  expect(renamed.variables.w).toBe('measure("breadth")');
});

test('free play of a block in a pocket, of a pin in a bore, and of what lies in the open', async () => {
  const pocket = (play: number, deep: number): Statement[] => [
    ['box', { as: 'tray', size: [60, 60, 30] }],
    ['box', { as: 'room', size: [40, 30, 20], at: [10, 15, 10] }],
    ['subtract', { from: 'tray', parts: ['room'], as: 'tray 2' }],
    ['box', { as: 'block', size: [40 - play, 30 - 2 * play, 5], at: [10 + play / 4, 15 + play, 10 + deep] }],
  ];
  const [block] = await findingsOf(builtBy(kernel, pocket(0.4, 3)), 'play');
  expect(block).toMatchObject({ what: 'block', words: 'Until it touches: X 0.4 mm, Y 0.8 mm, Z open.' });
  const document = builtBy(kernel, [
    ['tube', { as: 'bush', diameter: 40, bore: 25, height: 20 }],
    ['cylinder', { as: 'pin', diameter: 24.6, height: 20, at: [0.1, 0, 0] }],
  ]);
  const [pin] = await findingsOf(document, 'play');
  // Off its axis by a tenth, it has a shorter way across.
  const across = 2 * Math.sqrt(0.2 ** 2 - 0.1 ** 2);
  expect(pin!.words).toContain('X 0.4 mm');
  expect(pin!.words).toContain(`Y ${Number(across.toFixed(4))} mm`);
  expect(await findingsOf(builtBy(kernel, pocket(0.4, 40)), 'play')).toEqual([]);
});

test('what reaches beyond the site is told, and moved back inside', async () => {
  const document = builtBy(kernel, [
    ['box', { as: 'in', size: [10, 10, 10] }],
    ['box', { as: 'over', size: [30, 10, 10], at: [85, 40, 0] }],
    ['cylinder', { as: 'high', diameter: 10, height: 60, at: [30, 30, 0] }],
    ['box', { as: 'before', size: [10, 10, 10], at: [-4, -2, 0] }],
  ]);
  const site = [100, 80, 50] as const;
  const found = await findingsOf(document, 'outside', { site });
  expect(found.map(({ what, size }) => [what, Number(size.toFixed(9))]).sort()).toEqual([
    ['before', 4],
    ['high', 10],
    ['over', 15],
  ]);
  const remedies = found.flatMap((one) => one.remedies.map(({ verb, typed }): Statement => [verb, typed]));
  expect(remedies).toHaveLength(2);
  const mended = after(document, ...remedies);
  expect((await findingsOf(mended, 'outside', { site })).map(({ what }) => what)).toEqual(['high']);
  expect(await findingsOf(document, 'outside')).toEqual([]);
});

test('of chosen groups only pairs of two of them are looked at', async () => {
  const document = builtBy(kernel, [
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['box', { as: 'b', size: [10, 10, 10], at: [11, 0, 0] }],
    ['box', { as: 'c', size: [10, 10, 10], at: [22, 0, 0] }],
    ['box', { as: 'd', size: [10, 10, 10], at: [33, 0, 0] }],
    ['group', { as: 'pair', parts: ['a', 'b'] }],
  ]);
  const standing = (...names: string[]) => names.map((name) => idOf(document, name));
  const found = await findingsOf(document, 'clearance', { between: [standing('a', 'b'), standing('c')] });
  expect(found.map(({ what }) => what)).toEqual(['b and c']);
});

test('remedies of wanted fits mend them: one axis, flush, and both sizes of an ISO 286 fit', async () => {
  const start = builtBy(kernel, [
    ['tube', { as: 'bush', diameter: 40, bore: 25.1, height: 20 }],
    ['cylinder', { as: 'pin', diameter: 24.8, height: 30, at: [0.3, -0.2, -4] }],
    ['wanted-fit', { from: 'bush: bore', to: 'pin: side', kind: 'iso', grades: 'H7/g6' }],
    ['wanted-fit', { from: 'bush: bore', to: 'pin: side', kind: 'coaxial' }],
    ['wanted-fit', { from: 'bush: top', to: 'pin: top', kind: 'flush' }],
  ]);
  // A bore of 25.1 is taken for one of 25.1: what is meant is said by another one first.
  let document = after(start, ['offset-face', { part: 'bush', faces: ['bore'], by: 0.04 }]);
  for (let i = 0; i < 6; i++) {
    const missed = (await findingsOf(document, 'fit')).find(({ state }) => state === 'fault');
    if (!missed) break;
    const [remedy] = missed.remedies;
    expect(remedy).toBeDefined();
    document = after(document, [remedy!.verb, remedy!.typed]);
  }
  expect((await findingsOf(document, 'fit')).map(({ state }) => state)).toEqual(['fine', 'fine', 'fine']);
});

test('a peg that is too thick for its hole is given room by a remedy, of the overlap or of the wanted fit', async () => {
  const start = builtBy(kernel, [
    ['box', { as: 'block', size: [40, 40, 20], at: [-20, -20, 0] }],
    ['cylinder', { as: 'peg', diameter: 12, height: 40, at: [0, 0, 5] }],
    ['wanted-fit', { from: 'peg', to: 'block', kind: 'clearance', least: '0.2', greatest: '0.4' }],
  ]);
  for (const kind of ['overlap', 'fit'] as const) {
    const [missed] = await findingsOf(start, kind);
    expect(missed?.state).toBe('fault');
    const remedy = missed!.remedies.find(({ typed }) => typed.by === idOf(start, 'peg'));
    expect(remedy).toMatchObject({ verb: 'cut-by', typed: { keep: 'behind' } });
    const mended = after(start, [remedy!.verb, remedy!.typed]);
    expect((await findingsOf(mended, 'fit')).map(({ state, size }) => [state, size])).toEqual([
      ['fine', expect.closeTo(0.3, 7)],
    ]);
    expect(await findingsOf(mended, 'overlap')).toEqual([]);
    // Source: a hole of radius 6.3 with a floor that is cut 0.3 deeper, its rim rounded by 0.3 (Pappus–Guldin).
    const rim = 2 * Math.PI * (6 + (4 * 0.3) / (3 * Math.PI)) * ((Math.PI * 0.3 ** 2) / 4);
    const hole = Math.PI * (6.3 ** 2 * 15 + 6 ** 2 * 0.3) + rim;
    expect(measured(kernel, mended, 'block').volume).toBeCloseTo(32_000 - hole, 5);
  }
});

test('what a variable is measured from is not deleted from under it; once the variable is a number, it is', () => {
  const document = builtBy(kernel, [
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['box', { as: 'b', size: [10, 10, 10], at: [30, 0, 0] }],
    ['measure', { from: 'a', to: 'b', called: 'gap' }],
    ['variable', { name: 'g', value: 'measure("gap")' }],
  ]);
  expect(tried(document, ['delete', { parts: ['b'] }])).toMatchObject({ code: 'no-measure' });
  const freed = after(document, ['variable', { name: 'g', value: '20 mm' }], ['delete', { parts: ['b'] }]);
  expect(Object.values(freed.measures).map(({ value }) => value)).toEqual([undefined]);
  expect(isRefusal(tried(freed, ['move', { parts: ['a'], by: [1, 0, 0] }]))).toBe(false);
});
