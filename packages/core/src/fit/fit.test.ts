/** The report without a kernel: what facts come to, in which order, and what mends it. */
import { emptyDocument } from '../document/items.ts';
import type { KadrelDocument } from '../document/schema.ts';
import type { PairFacts, StandingSolid } from '../questions/fitFacts.ts';
import { perform } from '../statement/perform.ts';
import { isRefusal } from '../statement/declare.ts';
import { plainWorld } from '../statement/world.ts';
import { verbNamed } from '../verbs/index.ts';
import type { Finding } from './finding.ts';
import { fitReport } from './report.ts';
import { reportPages } from './reportFiles.ts';
import { textWidth } from '../sheets/marks.ts';
import { nearBoxes } from './nearBoxes.ts';
import { USUAL_SCOPE, surveyFit, type Asking, type Surveyed } from './survey.ts';
import { nearestHolder, nearestOfTriangles } from './triangles.ts';

type Said = readonly [verb: string, typed: Record<string, unknown>];

function document(...statements: readonly Said[]): KadrelDocument {
  let now = emptyDocument();
  let ids = 0;
  for (const [verb, typed] of statements) {
    const done = perform(
      verbNamed(verb)!,
      typed,
      now,
      plainWorld(now, () => `p${++ids}`),
    );
    if (isRefusal(done)) throw new Error(done.message);
    now = done.document;
  }
  return now;
}

const refusal = (before: KadrelDocument, verb: string, typed: Record<string, unknown>): string => {
  const done = perform(
    verbNamed(verb)!,
    typed,
    before,
    plainWorld(before, () => 'new'),
  );
  return isRefusal(done) ? done.message : '';
};

const two = document(
  ['box', { as: 'a', size: [10, 10, 10] }],
  ['box', { as: 'b', size: [10, 10, 10], at: [20, 0, 0] }],
);
const solid = (tag: string, low: number): StandingSolid => ({
  tag,
  item: tag,
  member: '',
  volume: 1000,
  box: { min: [0, 0, low], max: [10, 10, low + 10] },
  centroid: [5, 5, low + 5],
});
const apart: PairFacts = { gap: 10, from: [10, 0, 0], to: [20, 0, 0] };
const surveyed = (facts: PairFacts, more: Partial<Surveyed> = {}): Surveyed => ({
  solids: [solid('p1', 0), solid('p2', 0)],
  unbuilt: [],
  pairs: [{ pair: ['p1', 'p2'], facts }],
  falls: {},
  plays: {},
  fits: [],
  measures: [],
  ...more,
});
const reportFor = (facts: PairFacts, of = two) =>
  fitReport(of, surveyed(facts), USUAL_SCOPE).findings.map(({ kind, state, words }) => [kind, state, words]);

test('pairs are told by what they do: apart, touching, overlapping, one in the other, twice the same, in doubt', () => {
  const overlap = { volume: 5, box: { min: [0, 0, 0], max: [1, 1, 1] }, at: [0, 0, 0] } as const;
  expect(reportFor(apart)).toEqual([['clearance', 'fine', '10 mm apart.']]);
  expect(
    reportFor({ ...apart, gap: 0, contact: { kind: 'edge', area: 0, at: [0, 0, 0], normal: [0, 0, 1] } }),
  ).toEqual([['contact', 'fine', 'They touch along an edge.']]);
  expect(reportFor({ ...apart, overlap })).toEqual([['overlap', 'fault', 'They share 5.000 mm³.']]);
  expect(reportFor({ ...apart, overlap, within: 'second' })).toEqual([
    ['inside', 'fault', 'b lies wholly within the other: 5.000 mm³.'],
  ]);
  expect(reportFor({ ...apart, overlap, within: 'both' })).toEqual([
    ['double', 'fault', 'The same solid in the same place.'],
  ]);
  expect(reportFor({ ...apart, doubt: 'Why.' })[0]).toEqual([
    'doubt',
    'fault',
    'Whether they overlap cannot be told: Why.',
  ]);
});

test('what is meant is listed apart, with its reason; only what it is about', () => {
  const overlap = { volume: 5, box: { min: [0, 0, 0], max: [1, 1, 1] }, at: [0, 0, 0] } as const;
  const glued = document(
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['box', { as: 'b', size: [10, 10, 10] }],
    ['meant', { parts: ['a', 'b'], why: 'glued' }],
  );
  const { findings, faults } = fitReport(glued, surveyed({ ...apart, overlap }), USUAL_SCOPE);
  expect([faults, findings[0]!.state, findings[0]!.why]).toEqual([0, 'meant', 'glued']);
  const onlyOne = document(
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['box', { as: 'b', size: [10, 10, 10] }],
    ['meant', { parts: ['a'], why: 'hangs' }],
  );
  expect(fitReport(onlyOne, surveyed({ ...apart, overlap }), USUAL_SCOPE).faults).toBe(1);
  // A group stands for all that is in it, and what cannot be determined is not meant.
  const grouped = document(
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['box', { as: 'b', size: [10, 10, 10] }],
    ['group', { as: 'both', parts: ['a'] }],
    ['meant', { parts: ['both', 'b'], why: 'glued' }],
  );
  const finding = fitReport(grouped, surveyed({ ...apart, overlap }), USUAL_SCOPE).findings[0]!;
  expect([finding.state, finding.mark]).toEqual(['meant', 'Meant 1']);
  expect(fitReport(grouped, surveyed({ ...apart, doubt: 'Why.' }), USUAL_SCOPE).faults).toBe(1);
});

test('what floats or is sunk is told with what seats it', () => {
  const { findings } = fitReport(
    two,
    surveyed(apart, {
      solids: [solid('p1', -0.5), solid('p2', 7)],
      falls: { p2: { by: 3, onto: 'p1' } },
    }),
    USUAL_SCOPE,
  );
  expect(findings.slice(0, 2).map(({ kind, words, remedies }) => [kind, words, remedies[0]])).toEqual([
    [
      'below',
      'Reaches 0.5 mm below the bed.',
      { label: 'Lift it onto the bed', verb: 'seat', typed: { parts: ['p1'], onto: 'bed' } },
    ],
    [
      'floating',
      'Nothing carries it: it would fall 3 mm onto a.',
      { label: 'Seat it', verb: 'seat', typed: { parts: ['p2'], onto: 'first' } },
    ],
  ]);
});

test('what cannot be built is told, not passed over', () => {
  const { findings, faults } = fitReport(
    two,
    surveyed(apart, { solids: [solid('p1', 0)], unbuilt: ['p2'] }),
    USUAL_SCOPE,
  );
  expect(faults).toBe(1);
  expect(findings[0]).toMatchObject({
    kind: 'doubt',
    what: 'b',
    words: 'It cannot be built, so how it stands is not known.',
  });
});

test('what stands on another is not let fall; what merely touches a side is', async () => {
  const asked: string[] = [];
  const contact = (normal: readonly [number, number, number]) =>
    ({ kind: 'area', area: 1, at: [0, 0, 0], normal }) as const;
  const ask = ((question: { ask: string; solids?: readonly string[] }) => {
    if (question.ask === 'nearby')
      return Promise.resolve({
        unbuilt: [],
        solids: [solid('p1', 0), solid('p2', 10), solid('p3', 10)],
        pairs: [
          ['p1', 'p2'],
          ['p2', 'p3'],
        ],
      });
    if (question.ask === 'pairs')
      return Promise.resolve([
        { ...apart, gap: 0, contact: contact([0, 0, 1]) },
        { ...apart, gap: 0, contact: contact([1, 0, 0]) },
      ]);
    asked.push(...(question.solids ?? []));
    return Promise.resolve([{ by: 10, onto: 'p1' }]);
  }) as unknown as Asking;
  const found = await surveyFit(two, USUAL_SCOPE, { ask });
  expect(asked).toEqual(['p3']);
  expect(found.falls).toEqual({ p3: { by: 10, onto: 'p1' } });
});

test('verbs of checks refuse what has no meaning, and say what to do', () => {
  expect(refusal(two, 'measure', { from: 'a' })).toContain('between two');
  expect(refusal(two, 'measure', { from: 'a', to: 'b', what: 'volume' })).toContain('one thing alone');
  expect(refusal(two, 'measure', { from: 'a', what: 'volume', least: '5 mm' })).toContain('a volume belongs');
  expect(refusal(two, 'measure', { from: 'a', to: 'b', least: '5', greatest: '3' })).toContain(
    'exchange them',
  );
  expect(refusal(two, 'measure', { from: 'c', to: 'b' })).toContain('no part named c');
  expect(refusal(two, 'wanted-fit', { from: 'a', to: 'b' })).toContain('how much clearance');
  expect(refusal(two, 'wanted-fit', { from: 'a', to: 'b', kind: 'iso', grades: 'H7' })).toContain(
    'hole/shaft',
  );
  const kept = document(
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['measure', { from: 'a', to: '0, 0, 50', least: '10' }],
  );
  expect(refusal(kept, 'change-check', { of: 'M1', greatest: '5' })).toContain('exchange them');
  expect(refusal(two, 'forget-check', { of: 'M1' })).toContain('no measure or wanted fit named M1');
});

test('measures and fits are named in order, changed and forgotten', () => {
  const base: Said[] = [
    ['box', { as: 'a', size: [10, 10, 10] }],
    ['box', { as: 'b', size: [10, 10, 10], at: [20, 0, 0] }],
    ['measure', { from: 'a', to: 'b', least: '1 cm' }],
    ['measure', { from: '0, 0, 0', to: 'b' }],
    ['wanted-fit', { from: 'a', to: 'b', kind: 'apart' }],
  ];
  const made = document(
    ...base,
    ['change-check', { of: 'M1', least: 'none', greatest: '12', called: 'gap' }],
    ['forget-check', { of: 'M2' }],
  );
  expect(Object.values(made.measures).map(({ name, least, greatest }) => [name, least, greatest])).toEqual([
    ['gap', undefined, 12],
  ]);
  expect(Object.values(made.fits).map(({ name, kind }) => [name, kind])).toEqual([['F1', 'apart']]);
  expect(document(...base).measures.p3).toMatchObject({
    name: 'M1',
    least: 10,
    from: { part: 'p1' },
    to: { part: 'p2' },
  });
});

test('nearest points of triangles: across, over a corner, and where they cross', () => {
  const flat = Float64Array.from([0, 0, 0, 10, 0, 0, 0, 10, 0]);
  const found = nearestHolder();
  const to = (...corners: number[]) => {
    nearestOfTriangles(flat, Float64Array.from(corners), found);
    return Math.sqrt(found.square);
  };
  expect(to(1, 1, 4, 9, 9, 5, 2, 2, 9)).toBeCloseTo(4, 12);
  expect(to(13, 4, 0, 20, 4, 0, 20, 9, 0)).toBeCloseTo(7 / Math.SQRT2, 9);
  expect(to(2, 2, -1, 2, 2, 1, 3, 3, 1)).toBe(0);
});

test('pairs of boxes that come near are found, each once', () => {
  const boxes = Array.from(
    { length: 200 },
    (_, i) => ({ min: [12 * i, 0, 0], max: [12 * i + 10, 10, 10] }) as const,
  );
  expect(nearBoxes(boxes, 2)).toEqual(Array.from({ length: 199 }, (_, i) => [i, i + 1]));
  expect(nearBoxes(boxes, 1)).toEqual([]);
});

test('the report as pages: every finding once, in its columns, on as many pages as it takes', () => {
  const one: Finding = {
    id: 'x',
    kind: 'clearance',
    state: 'fine',
    items: [],
    what: 'Lid and a_name_that_is_far_too_long_to_stand_in_one_line_of_its_column',
    words: '',
    size: 0,
    box: { min: [0, 0, 0], max: [0, 0, 0] },
    remedies: [],
  };
  const findings = Array.from({ length: 70 }, (_, i): Finding => ({
    ...one,
    words: `Number ${i}, and words enough that these must be told in two lines of the last column, as they are long.`,
    state: i === 3 ? 'fault' : 'fine',
  }));
  const pages = reportPages({ title: 'Box: fit report', findings });
  expect(pages.length).toBeGreaterThan(3);
  const texts = pages.flatMap(({ marks }) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark] : [])));
  for (let i = 0; i < 70; i++)
    expect(texts.filter(({ text }) => text.startsWith(`Number ${i}, `))).toHaveLength(1);
  for (const { at, text, height, align } of texts)
    if (align === 'start') expect(at[0] + textWidth(text, height)).toBeLessThan(197);
  expect(Math.min(...texts.map(({ at }) => at[1]))).toBeGreaterThan(10);
  expect(texts.filter(({ tone }) => tone === 'warning').map(({ text }) => text)).toContain(
    'Clearance, fault',
  );
  expect(texts.filter(({ text }) => text === `1 of ${pages.length}`)).toHaveLength(1);
  expect(reportPages({ title: 'Empty', findings: [] })).toHaveLength(1);
});
