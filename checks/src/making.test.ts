/** Whether parts can be made: by construction, and by formulas. Elementary geometry throughout; no source. */
import {
  USUAL_LIMITS,
  visibleParts,
  type Finding,
  type KadrelDocument,
  type MakeFacts,
  type MakeLimits,
  type Nearby,
} from '@kadrel/core';
import { Evaluator, makeReportOf } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { builtBy, numbers, type Statement, trials } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = new Evaluator(await sharedLibraries());
});

/** mm: what thicknesses are held to. */
const EXACT_MM = 1e-6;

function factsIn(document: KadrelDocument, overhang = 45): MakeFacts {
  const parts = visibleParts(document).map(({ id }) => id);
  const { solids } = kernel.answer(document, { ask: 'nearby', parts, reach: 0 }) as Nearby;
  return kernel.answer(document, { ask: 'making', solid: solids[0]!.tag, overhang }) as MakeFacts;
}
const built = (statements: Statement[]) => builtBy(kernel, statements);
const factsOf = (...statements: Statement[]) => factsIn(built(statements));

/** Turned about two axes and moved away. */
const anyhow = (as: string, random: () => number): Statement[] => [
  ['turn', { parts: [as], angle: 360 * random(), about: 'x' }],
  ['turn', { parts: [as], angle: 360 * random(), about: 'y' }],
  ['move', { parts: [as], by: [100 * random(), -50 * random(), 30 * random()] }],
];

const wallOf = (...statements: Statement[]) => factsOf(...statements).wall!.size;

test('walls of plates, tubes, pockets and shells are as thick as they were made, however they are turned', () => {
  const random = numbers(180);
  for (let i = 0; i < trials(5); i++) {
    const t = 0.2 + 3 * random();
    const plate: Statement = ['box', { as: 'a', size: [40 + 20 * random(), 30, t] }];
    expect(Math.abs(wallOf(plate, ...anyhow('a', random)) - t)).toBeLessThan(EXACT_MM);
    const bore = 8 + 10 * random();
    const tube: Statement = ['tube', { as: 'a', diameter: bore + 2 * t, bore, height: 25 }];
    expect(Math.abs(wallOf(tube, ...anyhow('a', random)) - t)).toBeLessThan(EXACT_MM);
    const pocket: Statement[] = [
      ['box', { as: 'block', size: [40, 30, 20] }],
      ['box', { as: 'hollow', size: [40 - 2 * t - 6, 24, 30], at: [t, 3, t + 3] }],
      ['subtract', { as: 'a', from: 'block', parts: ['hollow'] }],
    ];
    expect(Math.abs(wallOf(...pocket, ...anyhow('a', random)) - Math.min(t, 3))).toBeLessThan(EXACT_MM);
    const ball: Statement[] = [
      ['sphere', { as: 'outside', diameter: 30 }],
      ['sphere', { as: 'inside', diameter: 30 - 2 * t }],
      ['subtract', { as: 'a', from: 'outside', parts: ['inside'] }],
    ];
    expect(Math.abs(wallOf(...ball, ...anyhow('a', random)) - t)).toBeLessThan(EXACT_MM);
  }
});

test('a bore that is off its axis is thinnest where it comes nearest to the side', () => {
  const random = numbers(181);
  for (let i = 0; i < trials(5); i++) {
    const off = 1 + 3 * random();
    const facts = factsOf(
      ['cylinder', { as: 'bar', diameter: 30, height: 40 }],
      ['cylinder', { as: 'drill', diameter: 18, height: 60, at: [off, 0, -10] }],
      ['subtract', { as: 'a', from: 'bar', parts: ['drill'] }],
    );
    // Found within the distance of two samples: a thirtieth of the turn.
    expect(facts.wall!.size).toBeGreaterThan(6 - off - EXACT_MM);
    expect(facts.wall!.size).toBeLessThan(6 - off + 0.02);
    expect(facts.bore).toMatchObject({ diameter: 18 });
    expect(facts.pin).toMatchObject({ diameter: 30 });
  }
});

test('slots are as wide as they were cut, and the tip of a wedge is no wall', () => {
  const random = numbers(182);
  for (let i = 0; i < trials(5); i++) {
    const wide = 0.1 + random();
    const facts = factsOf(
      ['box', { as: 'block', size: [40, 30, 20] }],
      ['box', { as: 'saw', size: [wide, 50, 15], at: [10 + 10 * random(), -10, 8] }],
      ['subtract', { as: 'a', from: 'block', parts: ['saw'] }],
      ...anyhow('a', random),
    );
    expect(Math.abs(facts.gap!.size - wide)).toBeLessThan(EXACT_MM);
  }
  const wedge = factsOf(['wedge', { as: 'a', size: [30, 20, 25] }]);
  expect(wedge.wall!.size).toBeGreaterThan(15);
});

test('overhangs: the ceiling of a table, a cone on its point, and nothing of a box or of what leans less', () => {
  const table = factsOf(
    ['box', { as: 'foot', size: [10, 10, 20], at: [15, 15, 0] }],
    ['box', { as: 'top', size: [40, 40, 5], at: [0, 0, 20] }],
    ['union', { as: 'a', parts: ['foot', 'top'] }],
  );
  expect(table.overhang!.area).toBeCloseTo(1600 - 100, 6);
  expect(table.overhang!.steepest).toBeCloseTo(90, 6);
  expect(table.overhang!.better).toMatchObject({ angle: 180, area: 0 });
  expect(factsOf(['box', { as: 'a', size: [10, 20, 30] }]).overhang).toBeUndefined();
  // Its side leans by atan(15 / 10) from upright, and is π (5 + 20) √(15² + 10²).
  const cone = built([['cone', { as: 'a', diameter: 10, top: 40, height: 10 }]]);
  const side = Math.PI * 25 * Math.hypot(15, 10);
  expect(Math.abs(factsIn(cone).overhang!.area / side - 1)).toBeLessThan(0.003);
  expect(factsIn(cone, 57).overhang).toBeUndefined();
});

test('islands: pins that hang from a table, a ball on a post, and none of what stands', () => {
  const table: Statement[] = [
    ['box', { as: 'foot', size: [10, 10, 20], at: [15, 15, 0] }],
    ['box', { as: 'top', size: [40, 40, 5], at: [0, 0, 20] }],
    ['cylinder', { as: 'pin', diameter: 4, height: 8, at: [5, 5, 13] }],
    ['cone', { as: 'tip', diameter: 4, top: 0, height: 6, at: [35, 35, 20] }],
    // Its point hangs down.
    ['turn', { parts: ['tip'], angle: 180, about: 'x', centre: 'point', at: [35, 35, 20] }],
    ['union', { as: 'a', parts: ['foot', 'top', 'pin', 'tip'] }],
  ];
  const places = factsOf(...table).islands.map(([x, y, z]) => [Math.round(x), Math.round(y), z]);
  expect(places).toHaveLength(2);
  const heights = places.map(([, , z]) => z!).sort((a, b) => a - b);
  expect(heights[0]).toBeCloseTo(13, 4);
  expect(heights[1]).toBeCloseTo(14, 4);
  expect(factsOf(...table.slice(0, 2), ['union', { as: 'a', parts: ['foot', 'top'] }]).islands).toEqual([]);
  // What is hollow from above has low places that lie on something.
  expect(
    factsOf(
      ['box', { as: 'block', size: [40, 30, 20] }],
      ['sphere', { as: 'ball', diameter: 16, at: [20, 15, 20] }],
      ['subtract', { as: 'a', from: 'block', parts: ['ball'] }],
    ).islands,
  ).toEqual([]);
});

test('what stands and what falls over, by how much', () => {
  expect(factsOf(['box', { as: 'a', size: [10, 20, 30] }]).footing.margin).toBeCloseTo(5, 6);
  const crane = (reach: number) =>
    factsOf(
      ['box', { as: 'mast', size: [10, 10, 40] }],
      ['box', { as: 'arm', size: [reach, 10, 10], at: [10, 0, 30] }],
      ['union', { as: 'a', parts: ['mast', 'arm'] }],
    ).footing.margin;
  // The centre of mass along X, by moments, against the edge of the mast.
  const centre = (reach: number) => (4000 * 5 + 100 * reach * (10 + reach / 2)) / (4000 + 100 * reach);
  expect(crane(10)).toBeCloseTo(Math.min(5, 10 - centre(10)), 6);
  expect(crane(30)).toBeCloseTo(10 - centre(30), 6);
  expect(crane(30)).toBeLessThan(0);
  expect(factsOf(['sphere', { as: 'a', diameter: 10 }]).footing.margin).toBeLessThanOrEqual(0);
});

test('sheets are cut along their outlines, and what is no sheet is not', () => {
  const facts = factsOf(
    ['box', { as: 'plate', size: [60, 40, 3] }],
    ['cylinder', { as: 'drill', diameter: 10, height: 20, at: [20, 20, -5] }],
    ['subtract', { as: 'a', from: 'plate', parts: ['drill'] }],
  );
  expect(facts.sheet!.thickness).toBeCloseTo(3, 9);
  expect(facts.sheet!.cut).toBeCloseTo(200 + 10 * Math.PI, 6);
  expect(factsOf(['wedge', { as: 'a', size: [60, 40, 3] }]).sheet).toBeUndefined();
});

const report = async (statements: Statement[], limits: Partial<MakeLimits> = {}) =>
  makeReportOf(kernel, built(statements), { limits: { ...USUAL_LIMITS, ...limits } });
const findingOf = (findings: readonly Finding[], kind: Finding['kind']) =>
  findings.find((one) => one.kind === kind);

test('a round cutter does not reach into the inner corners of a sheet, until they are rounded', async () => {
  const angle: Statement[] = [
    ['box', { as: 'plate', size: [60, 40, 3] }],
    ['box', { as: 'notch', size: [30, 20, 9], at: [30, 20, -3] }],
    ['subtract', { as: 'a', from: 'plate', parts: ['notch'] }],
    ['turn', { parts: ['a'], angle: 30, about: 'x' }],
  ];
  const turned = ([x, y, z]: readonly number[]) => {
    const [c, s] = [Math.sqrt(3) / 2, 0.5];
    return [x!, y! * c - z! * s, y! * s + z! * c];
  };
  const { radius, at } = factsOf(...angle).inner!;
  expect(radius).toBe(0);
  turned([30, 20, 1.5]).forEach((n, i) => expect(at[i]).toBeCloseTo(n, 6));

  const drilled: Statement[] = [
    ...angle,
    ['fillet', { part: 'a', edges: 'inward', radius: 5 }],
    ['cylinder', { as: 'drill', diameter: 8, height: 60, at: [15, 15, -30] }],
    ['turn', { parts: ['drill'], angle: 30, about: 'x', at: [0, 0, 0] }],
    ['subtract', { as: 'b', from: 'a', parts: ['drill'] }],
  ];
  expect(factsOf(...drilled).inner!.radius).toBeCloseTo(4, 9);
  expect(factsOf(['box', { as: 'a', size: [60, 40, 3] }]).inner).toBeUndefined();

  expect(findingOf((await report(angle)).findings, 'inner')).toBeUndefined();
  const found = findingOf((await report(angle, { cutter: 6 })).findings, 'inner')!;
  expect(found).toMatchObject({
    state: 'fault',
    words: expect.stringContaining('leaves a radius of 3 mm') as string,
  });
  const [{ verb, typed }] = found.remedies as [Finding['remedies'][number]];
  const mended = await report([...angle, [verb, { ...typed, part: 'a' }]], { cutter: 6 });
  expect(findingOf(mended.findings, 'inner')).toMatchObject({ state: 'fine', size: 3 });
});

test('the report names what is wrong by its limits, and its remedies mend it', async () => {
  const lid: Statement[] = [
    ['box', { as: 'block', size: [40, 30, 20] }],
    ['box', { as: 'hollow', size: [36, 26, 30], at: [2, 2, 0.5] }],
    ['subtract', { as: 'a', from: 'block', parts: ['hollow'] }],
  ];
  const { findings } = await report(lid);
  const thin = findingOf(findings, 'wall')!;
  expect(thin).toMatchObject({ state: 'fault' });
  expect(thin.size).toBeCloseTo(0.5, 6);
  const [remedy] = thin.remedies;
  const mended = await report([...lid, [remedy!.verb, remedy!.typed]]);
  expect(findingOf(mended.findings, 'wall')).toMatchObject({ state: 'fine' });
  expect(findingOf(mended.findings, 'wall')!.size).toBeCloseTo(0.8, 6);

  const table: Statement[] = [
    ['box', { as: 'foot', size: [10, 10, 20], at: [15, 15, 0] }],
    ['box', { as: 'top', size: [40, 40, 5], at: [0, 0, 20] }],
    ['union', { as: 'a', parts: ['foot', 'top'] }],
  ];
  const hanging = findingOf((await report(table)).findings, 'overhang')!;
  const turned = await report([...table, [hanging.remedies[0]!.verb, hanging.remedies[0]!.typed]]);
  expect(findingOf(turned.findings, 'overhang')).toBeUndefined();

  const tall: Statement[] = [['box', { as: 'a', size: [50, 60, 300] }]];
  const high = findingOf((await report(tall, { bed: [320, 200, 250] })).findings, 'bed')!;
  expect(high.state).toBe('fault');
  const flat = await report([...tall, [high.remedies[0]!.verb, high.remedies[0]!.typed]], {
    bed: [320, 200, 250],
  });
  expect(findingOf(flat.findings, 'bed')).toMatchObject({ state: 'fine' });
});

// 7.85 g/cm³ is EN 1991-1-1:2002, table A.4, 77.0 kN/m³ (from memory).
test('mass is volume times density', async () => {
  const { findings } = await report([['box', { as: 'a', size: [100, 100, 10] }]], { material: 'steel' });
  expect(findingOf(findings, 'mass')!.size).toBeCloseTo(785, 9);
});
