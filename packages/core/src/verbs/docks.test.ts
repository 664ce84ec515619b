/** Docks and joints where no kernel is asked: places by numbers. */
import fc from 'fast-check';
import {
  apart,
  applyEdit,
  column,
  distance,
  docksIn,
  docksOn,
  docksReport,
  documentSchema,
  dot,
  emptyDocument,
  isRefusal,
  jointFrame,
  perform,
  plainWorld,
  poseOf,
  starterPart,
  verbNamed,
  worldFromPart,
  type DockPlace,
  type KadrelDocument,
  type Vec3,
} from '../index.ts';
import { docksByNumbers } from '../docks/places.ts';
import { said, trials } from '@kadrel/testing';

const shapeOf = (document: KadrelDocument) => (part: string) => plainWorld(document, () => 'x').shapeOf(part);
const docks = (document: KadrelDocument): DockPlace[] => docksIn(document, shapeOf(document));
const idOf = (document: KadrelDocument, name: string) =>
  Object.values(document.items).find((item) => item.name === name)!.id;
const dockNamed = (document: KadrelDocument, part: string, name: string): DockPlace =>
  docksOn(document, idOf(document, part), shapeOf(document)).find(({ dock }) => dock.name === name)!;
const report = (document: KadrelDocument) => docksReport(document, shapeOf(document));

type Step = readonly [verb: string, typed: Record<string, unknown>];
const after = (steps: readonly Step[], from: KadrelDocument = emptyDocument()): KadrelDocument =>
  steps.reduce((document, [verb, typed]) => said(document, verb, typed).document, from);

const refusal = (document: KadrelDocument, verb: string, typed: Record<string, unknown>): string => {
  const done = perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => `r${Math.random()}`),
  );
  if (!isRefusal(done)) throw new Error('It was not refused.');
  return done.message;
};

/** A beam 100 long with a dock at either end. */
const beam = (name: string, at: Vec3 = [0, 0, 0]): Step[] => [
  ['box', { size: [100, 20, 10], at, as: name }],
  ['dock', { at: [at[0], at[1] + 10, at[2] + 5], part: name, out: '-x', kind: 'beam', called: 'start' }],
  ['dock', { at: [at[0] + 100, at[1] + 10, at[2] + 5], part: name, out: 'x', kind: 'beam', called: 'end' }],
];

const angle = fc.oneof(fc.constantFrom(0, 90, 180, 270), fc.double({ min: -360, max: 360, noNaN: true }));
const place = fc.double({ min: -3000, max: 3000, noNaN: true });
const three = (one: fc.Arbitrary<number>) => fc.tuple(one, one, one);
const direction = three(fc.double({ min: -1, max: 1, noNaN: true })).filter((d) => Math.hypot(...d) > 0.1);

test('joins place docks to 1e-9 mm, looking at each other to 1e-12', () => {
  fc.assert(
    fc.property(
      fc.tuple(three(place), three(angle), three(place), three(angle)),
      fc.tuple(direction, direction, angle, angle, three(place), three(place)),
      ([atA, turnA, atB, turnB], [outA, outB, rollA, rollB, dockA, dockB]) => {
        const document = after([
          ['box', { size: [10, 20, 30], at: atA, as: 'a' }],
          ['change', { parts: ['a'], turn: turnA }],
          ['box', { size: [30, 20, 10], at: atB, as: 'b' }],
          ['dock', { at: dockA, part: 'a', out: outA, roll: rollA, called: 'p' }],
          ['dock', { at: dockB, part: 'b', out: outB, roll: rollB, called: 'q' }],
          ['change', { parts: ['b'], turn: turnB }],
          ['join-docks', { dock: 'a: p', onto: 'b: q' }],
        ] as Step[]);
        const [p, q] = [dockNamed(document, 'a', 'p'), dockNamed(document, 'b', 'q')];
        expect(distance(p.pose.shift, q.pose.shift)).toBeLessThanOrEqual(1e-9);
        const [zp, zq] = [column(p.pose.turn, 2), column(q.pose.turn, 2)];
        expect(Math.hypot(...zp.map((n, i) => n + zq[i]!))).toBeLessThanOrEqual(1e-12);
        const [xp, xq] = [column(p.pose.turn, 0), column(q.pose.turn, 0)];
        expect(dot(xp, xq)).toBeGreaterThan(1 - 1e-12);
        expect(report(document).joints).toMatchObject([{ isClosed: true }]);
      },
    ),
    { numRuns: trials(1000), seed: 20261129, endOnFailure: true },
  );
});

test('four quarter turns are none, bit for bit, about each axis of a joint', () => {
  const plain = after([...beam('a'), ...beam('b', [0, 300, 0])]);
  const joined = (turns: Record<string, number>) =>
    said(plain, 'join-docks', { dock: 'b: start', onto: 'a: end', ...turns }).document.items;
  const none = joined({});
  const id = Object.keys(none)[1]!;
  for (const blank of ['turn', 'tiltX', 'tiltY'])
    expect(joined({ [blank]: 4 * 90 })[id]!.placement).toEqual(none[id]!.placement);
  expect(joined({ turn: 90 })[id]!.placement).not.toEqual(none[id]!.placement);
  expect(jointFrame({ turn: 360, tilt: [-720, 360], offset: 0 })).toEqual(
    jointFrame({ turn: 0, tilt: [0, 0], offset: 0 }),
  );
});

test('a run of n pieces of length L is n·L long', () => {
  const seven = after([...beam('a'), ['run', { end: 'a: end', start: 'a', count: 7 }]]);
  const xs = Object.keys(seven.items).map((id) => worldFromPart(seven, id).shift[0]);
  expect(xs).toEqual([0, 100, 200, 300, 400, 500, 600]);
  for (const { placement } of Object.values(seven.items)) expect(placement.turn).toEqual([0, 0, 0]);
  const ends = docks(seven).map(({ pose }) => pose.shift[0]);
  expect(Math.max(...ends) - Math.min(...ends)).toBe(700);
  const filled = after([...beam('a'), ['run', { end: 'a: end', start: 'a: start', length: 749 }]]);
  expect(Object.keys(filled.items)).toHaveLength(7);
  const spaced = after([...beam('a'), ['run', { end: 'a: end', start: 'a', length: 310, offset: 5 }]]);
  expect(Object.keys(spaced.items)).toHaveLength(3);
  expect(refusal(after(beam('a')), 'run', { end: 'a: end', start: 'a', length: 150 })).toMatch(/two pieces/);
});

test('a mirrored part has mirrored docks, and a resized one keeps them on their places', () => {
  const document = after([
    ['box', { size: [100, 40, 20], as: 'a' }],
    ['dock', { at: [100, 10, 5], part: 'a', out: 'x', roll: 30, called: 'p' }],
    ['mirror', { parts: ['a'], across: 'x', centre: 'point', at: [100, 0, 0] }],
  ]);
  const p = dockNamed(document, 'a', 'p');
  expect(p.pose.shift).toEqual([100, 10, 5]);
  expect(column(p.pose.turn, 2)).toEqual([-1, 0, 0]);
  const twice = after(
    [['mirror', { parts: ['a'], across: 'x', centre: 'point', at: [100, 0, 0] }]],
    document,
  );
  expect(apart(dockNamed(twice, 'a', 'p').pose, poseOf([100, 10, 5], [0, 0, 0])).gap).toBeLessThan(1e-9);
  const wide = after([
    ['box', { size: [100, 40, 20], as: 'a' }],
    ['dock', { at: [100, 10, 5], part: 'a', out: 'x', called: 'p' }],
    ['resize', { parts: ['a'], by: ['2', '1', '1'], about: 'point', at: [0, 0, 0] }],
  ]);
  expect(dockNamed(wide, 'a', 'p').pose.shift).toEqual([200, 10, 5]);
});

/** Six pieces round a corner of 60° each: a hexagon; of five the ends miss one another by one side. */
test.each([
  [6, 0],
  [5, 100],
])('a loop of %i pieces misses by %f mm', (count, gap) => {
  const steps: Step[] = [
    ['box', { size: [100, 20, 10], as: 'a' }],
    ['dock', { at: [0, 0, 0], part: 'a', out: '-x', called: 'start' }],
    // Looking 60° to the left of straight on: the next piece turns by as much.
    [
      'dock',
      { at: [100, 0, 0], part: 'a', out: [Math.cos(Math.PI / 3), Math.sin(Math.PI / 3), 0], called: 'end' },
    ],
    ['run', { end: 'a: end', start: 'a: start', count, kind: 'independent', held: 'held' }],
  ];
  const open = after(steps);
  const last = Object.values(open.items).at(-1)!.name;
  const closed = said(open, 'join-docks', {
    dock: `${last}: end`,
    onto: 'a: start',
    moves: 'nothing',
  }).document;
  const { joints } = report(closed);
  expect(joints).toHaveLength(count);
  expect(joints.at(-1)!.gap).toBeCloseTo(gap, 8);
  expect(joints.at(-1)!.isClosed).toBe(gap === 0);
});

test('held joints carry along what hangs on them, and a free one is told to have drifted', () => {
  const document = after([
    ...beam('a'),
    ...beam('b', [0, 100, 0]),
    ...beam('c', [0, 200, 0]),
    ['join-docks', { dock: 'b: start', onto: 'a: end', held: 'held' }],
    ['join-docks', { dock: 'c: start', onto: 'b: end' }],
    ['turn', { parts: ['a'], angle: 30, centre: 'point', at: [0, 0, 0] }],
  ]);
  expect(report(document).joints.map(({ isClosed }) => isClosed)).toEqual([true, false]);
  const again = said(document, 'close-joints', {}).document;
  expect(report(again).joints.map(({ isClosed }) => isClosed)).toEqual([true, true]);
  const moved = said(again, 'move', { parts: ['b'], by: [0, 0, 40] }).document;
  const [ab] = report(moved).joints;
  expect(ab).toMatchObject({ isClosed: false });
  expect(ab!.gap).toBeCloseTo(40, 9);
});

test('open docks, ill-matched ones, and what a join of parts alone takes', () => {
  const document = after([
    ...beam('a'),
    ...beam('b', [0, 300, 0]),
    ['dock', { at: [50, 300, 0], part: 'b', kind: 'foot', role: 'plug', called: 'foot' }],
    ['dock', { at: [50, 0, 0], part: 'a', kind: 'foot', role: 'plug', called: 'foot' }],
    ['join-docks', { dock: 'b', onto: 'a: end' }],
  ]);
  expect(Object.values(document.joints)).toHaveLength(1);
  expect(report(document).open.map(({ dock, part }) => `${document.items[part]!.name} ${dock.name}`)).toEqual(
    ['a start', 'a foot', 'b start', 'b foot'],
  );
  expect(refusal(document, 'join-docks', { dock: 'b: foot', onto: 'b: start' })).toMatch(/of one part/);
  expect(refusal(document, 'join-docks', { dock: 'b: knee', onto: 'a: end' })).toMatch(
    /no dock named knee; it has start, end, foot/,
  );
  const ill = said(document, 'join-docks', { dock: 'b: foot', onto: 'a: foot' }).document;
  expect(report(ill).joints.at(-1)!.misfit).toBe('plug on plug');
});

test('every free dock of a kind gets a copy', () => {
  const brackets: Step[] = [0, 1, 2, 3].flatMap((i): Step[] => [
    ['box', { size: [60, 60, 5], at: [i * 200, 0, 0], as: `bracket ${i}` }],
    [
      'dock',
      { at: [i * 200 + 30, 30, 5], part: `bracket ${i}`, kind: 'post', role: 'socket', called: 'seat' },
    ],
  ]);
  const document = after([
    ...brackets,
    ['box', { size: [40, 40, 800], at: [0, 500, 0], as: 'post' }],
    ['dock', { at: [20, 520, 0], part: 'post', out: '-z', kind: 'post', role: 'plug', called: 'foot' }],
    ['join-all', { parts: ['post'] }],
  ]);
  const posts = Object.values(document.items).filter(({ name }) => name.startsWith('post'));
  expect(posts.map(({ placement }) => placement.origin)).toEqual([
    [0, 500, 0],
    ...[0, 1, 2, 3].map((i) => [i * 200 + 10, 10, 5]),
  ]);
  expect(report(document).joints.every(({ isClosed }) => isClosed)).toBe(true);
});

test('a copied group has the joints that are within it', () => {
  const document = after([
    ...beam('a'),
    ...beam('b', [0, 100, 0]),
    ['join-docks', { dock: 'b: start', onto: 'a: end' }],
    ['group', { parts: ['a', 'b'], as: 'pair' }],
    ['duplicate', { parts: ['pair'], by: [0, 500, 0] }],
  ]);
  const { joints } = report(document);
  expect(joints.map(({ joint, isClosed }) => [joint.name, isClosed])).toEqual([
    ['J1', true],
    ['J2', true],
  ]);
  expect(joints[1]!.onto!.pose.shift).toEqual([100, 510, 5]);
});

const STEPS: readonly ((a: string, b: string, n: number) => Step)[] = [
  (a, b, n) => [
    'join',
    { dock: `${a}: start`, onto: `${b}: end`, turn: 30 * n, offset: n, held: n % 2 ? 'held' : 'free' },
  ],
  (a, b, n) => ['join-docks', { dock: a, onto: b, moves: n % 2 ? 'copy' : 'linked' }],
  (a, _, n) => [
    'run',
    { end: `${a}: end`, start: a, count: 2 + (n % 3), kind: n % 2 ? 'linked' : 'independent', held: 'held' },
  ],
  (a, b) => ['join-all', { parts: [a], to: [b], go: 'each' }],
  () => ['close-joints', {}],
  (a) => ['unjoin', { parts: [a] }],
  (a) => ['remove-dock', { part: a, dock: 'start' }],
  (_a, _b, n) => ['change-joint', { joint: `J${n + 1}`, tiltX: 90 * n }],
  (a, _, n) => ['move', { parts: [a], by: [n, 2 * n, 0] }],
  (a, _, n) => ['turn', { parts: [a], angle: 15 * n }],
  (a, _, n) => ['mirror', { parts: [a], across: 'y', centre: 'point', at: [0, n, 0] }],
  (a, b) => ['group', { parts: [a, b] }],
  (_a, _b, n) => [
    'take',
    { part: starterPart(n % 2 ? 'Steel angle' : 'Pipe 40 elbow'), at: [n * 50, -300, 0] },
  ],
  (a, _, n) => ['change-taken', { part: a, values: n % 2 ? { long: 100 + n } : { bend: 50 + n } }],
  (a, b) => ['arrange', { parts: [a], into: b }],
  (a) => ['duplicate', { parts: [a], by: [0, 0, 500] }],
  (a) => ['ungroup', { parts: [a] }],
  (a) => ['delete', { parts: [a] }],
  (a, b) => ['subtract', { from: a, parts: [b] }],
  (a, _, n) => ['along', { parts: [a], count: 2 + (n % 2), pitch: 40 }],
];

test('any sequence of joins and undo keeps the document and its joints sound', () => {
  const step = fc.tuple(fc.nat(STEPS.length - 1), fc.nat(9), fc.nat(9), fc.nat(5));
  fc.assert(
    fc.property(fc.array(step, { minLength: 5, maxLength: 20 }), (steps) => {
      let ids = 0;
      let document = after([...beam('a'), ...beam('b', [0, 100, 0]), ...beam('c', [0, 200, 0])]);
      for (const [which, a, b, n] of steps) {
        const names = Object.values(document.items).map(({ name }) => name);
        const pick = (i: number) => names[i % names.length] ?? 'none';
        const [verb, typed] = STEPS[which]!(pick(a), pick(b), n);
        const done = perform(
          verbNamed(verb)!,
          typed,
          document,
          plainWorld(document, () => `q${ids++}`),
        );
        if (isRefusal(done)) continue;
        documentSchema.parse(done.document);
        expect(applyEdit(done.document, { patches: done.inverses })).toEqual(document);
        for (const { moved, onto } of Object.values(done.document.joints))
          for (const { of, dock } of [moved, onto])
            expect(done.document.items[of]?.docks?.[dock]).toBeDefined();
        document = done.document;
        if (Object.keys(document.items).length > 60) return;
      }
    }),
    { numRuns: trials(250), seed: 20261129, endOnFailure: true },
  );
});

test('where nothing is built, a dock that follows a face stands where it was made', () => {
  const plain = after([['box', { as: 'a', size: [10, 10, 10], at: [5, 0, 0] }]]);
  const id = idOf(plain, 'a');
  const dock = {
    id: 'd',
    name: 'end',
    order: 1,
    kind: '',
    origin: [10, 5, 5] as [number, number, number],
    turn: [0, 90, 0] as [number, number, number],
    on: { at: 'right' },
  };
  const document = {
    ...plain,
    items: { ...plain.items, [id]: { ...plain.items[id]!, docks: { d: dock } } },
  };
  const [place] = docksByNumbers(document, id);
  expect(place!.pose.shift).toEqual([15, 5, 5]);
  expect(place!.lost).toBeUndefined();
});
