/** Docks that follow the names of built solids. Elementary geometry throughout; no source. */
import {
  USUAL_SCOPE,
  column,
  docksReport,
  partNamed,
  type DockPlace,
  type KadrelDocument,
} from '@kadrel/core';
import { Evaluator, fitReportOf, worldOf } from '@kadrel/kernel';
import { sharedLibraries } from '@kadrel/kernel/node';
import { builtBy, numbers, type Statement } from '@kadrel/testing';

let kernel: Evaluator;
beforeAll(async () => {
  kernel = new Evaluator(await sharedLibraries());
});

const built = (...statements: Statement[]) => builtBy(kernel, statements);

function reportOf(document: KadrelDocument) {
  const world = worldOf(document, kernel, () => '');
  return docksReport(document, (part, variant) => world.shapeOf(part, variant));
}

/** Points and directions of open docks, rounded away from noise. */
const shown = ({ pose, dock, lost }: DockPlace) => ({
  dock: dock.name,
  at: pose.shift.map((n) => Math.round(n * 1e6) / 1e6 + 0),
  out: column(pose.turn, 2).map((n) => Math.round(n * 1e6) / 1e6 + 0),
  ...(lost === undefined ? {} : { lost }),
});
const docksOf = (document: KadrelDocument, part: string) =>
  reportOf(document)
    .open.filter((place) => place.part === partNamed(document, part)!.id)
    .map(shown);

test('a dock looks out of a face, along the axis of a round edge, and out of a corner along its middle', () => {
  const document = built(
    ['box', { as: 'block', size: [60, 40, 20] }],
    ['dock', { at: { on: 'block', at: 'right' }, called: 'face' }],
    ['dock', { at: { on: 'block', at: 'top&front&right' }, called: 'corner' }],
    ['tube', { as: 'pipe', diameter: 40, bore: 34, height: 200, at: [0, 100, 0] }],
    ['dock', { at: { on: 'pipe', at: 'top&side', snap: 'centre' }, called: 'upper' }],
    ['dock', { at: { on: 'pipe', at: 'bottom&side', snap: 'centre' }, called: 'lower' }],
  );
  const third = 1 / Math.sqrt(3);
  const near = (n: number) => Math.round(n * 1e6) / 1e6;
  expect(docksOf(document, 'block')).toEqual([
    { dock: 'face', at: [60, 20, 10], out: [1, 0, 0] },
    { dock: 'corner', at: [60, 0, 20], out: [near(third), near(-third), near(third)] },
  ]);
  expect(docksOf(document, 'pipe')).toEqual([
    { dock: 'upper', at: [0, 100, 200], out: [0, 0, 1] },
    { dock: 'lower', at: [0, 100, 0], out: [0, 0, -1] },
  ]);
});

test('docks follow their names when sizes change, and the joint is then told to be open', () => {
  const steps: Statement[] = [
    ['box', { as: 'a', size: [60, 40, 20] }],
    ['dock', { at: { on: 'a', at: 'right' }, called: 'p' }],
    ['box', { as: 'b', size: [60, 40, 20], at: [0, 200, 0] }],
    ['dock', { at: { on: 'b', at: 'left' }, called: 'q' }],
    ['join-docks', { dock: 'b: q', onto: 'a: p' }],
  ];
  expect(reportOf(built(...steps)).joints).toMatchObject([{ isClosed: true }]);
  const longer: Statement = ['change', { parts: ['a'], size: ['100', 'now', 'now'] }];
  const [joint] = reportOf(built(...steps, longer)).joints;
  expect(joint!.gap).toBeCloseTo(40, 9);
  const again = built(...steps, longer, ['close-joints', {}]);
  expect(reportOf(again).joints).toMatchObject([{ isClosed: true }]);
  expect(partNamed(again, 'b')!.placement.origin[0]).toBe(100);
});

test('mirrored parts, operands and members of patterns have their docks where they are', () => {
  const arm: Statement[] = [
    ['box', { as: 'arm', size: [80, 20, 20] }],
    ['dock', { at: { on: 'arm', at: 'right' }, called: 'p' }],
  ];
  const mirrored = built(...arm, ['mirror', { parts: ['arm'], across: 'x', centre: 'point', at: [0, 0, 0] }]);
  expect(docksOf(mirrored, 'arm')).toEqual([{ dock: 'p', at: [-80, 10, 10], out: [-1, 0, 0] }]);
  const cut = built(
    ...arm,
    ['cylinder', { as: 'drill', diameter: 6, height: 40, at: [40, 10, -5] }],
    ['subtract', { as: 'drilled', from: 'arm', parts: ['drill'] }],
    ['move', { parts: ['drilled'], by: [0, 0, 100] }],
  );
  expect(docksOf(cut, 'drilled')).toEqual([{ dock: 'p', at: [80, 10, 110], out: [1, 0, 0] }]);
  const row = built(...arm, ['along', { parts: ['arm'], along: 'y', count: 3, pitch: 50 }]);
  const [pattern] = Object.values(row.items).filter(({ recipe }) => recipe.base.kind === 'pattern');
  expect(docksOf(row, pattern!.name).map(({ at }) => at)).toEqual([
    [80, 10, 10],
    [80, 60, 10],
    [80, 110, 10],
  ]);
  const ring = built(...arm, ['reflect', { parts: ['arm'], across: 'x', at: [100, 0, 0] }]);
  const [reflected] = Object.values(ring.items).filter(({ recipe }) => recipe.base.kind === 'pattern');
  expect(docksOf(ring, reflected!.name)).toEqual([
    { dock: 'p', at: [80, 10, 10], out: [1, 0, 0] },
    { dock: 'p', at: [120, 10, 10], out: [-1, 0, 0] },
  ]);
});

test('a dock on a face of an operand stays there when the operand is renamed', () => {
  const steps: Statement[] = [
    ['box', { as: 'plate', size: [60, 40, 20] }],
    ['cylinder', { as: 'drill', diameter: 8, height: 40, at: [20, 20, -5] }],
    ['subtract', { as: 'drilled', from: 'plate', parts: ['drill'] }],
    ['dock', { at: { on: 'drilled', at: 'top&drill.side', snap: 'centre' }, called: 'mouth' }],
  ];
  const wanted = [{ dock: 'mouth', at: [20, 20, 20], out: [0, 0, 1] }];
  expect(docksOf(built(...steps), 'drilled')).toEqual(wanted);
  const renamed = built(...steps, ['rename', { part: 'drill', to: 'hole' }]);
  expect(docksOf(renamed, 'drilled')).toEqual(wanted);
});

test('what is held goes along when the size of what it hangs on changes, and what hangs on that in turn', () => {
  const block = (as: string, at: number[]): Statement[] => [
    ['box', { as, size: [60, 40, 20], at }],
    ['dock', { at: { on: as, at: 'left' }, called: 'from' }],
    ['dock', { at: { on: as, at: 'right' }, called: 'to' }],
  ];
  const steps: Statement[] = [
    ...block('a', [0, 0, 0]),
    ...block('b', [0, 200, 0]),
    ...block('c', [0, 400, 0]),
    ['join-docks', { dock: 'b: from', onto: 'a: to', held: 'held' }],
    ['join-docks', { dock: 'c: from', onto: 'b: to', held: 'held', offset: 2 }],
  ];
  const x = (document: KadrelDocument, part: string) => partNamed(document, part)!.placement.origin[0];
  const closed = (document: KadrelDocument) => reportOf(document).joints.every(({ isClosed }) => isClosed);
  const longer = (part: string): Statement => ['change', { parts: [part], size: ['100', '60', 'now'] }];
  // Of the first: both others go along, by its length and by half of its width.
  const first = built(...steps, longer('a'));
  expect([x(first, 'b'), x(first, 'c'), closed(first)]).toEqual([100, 162, true]);
  expect(partNamed(first, 'c')!.placement.origin[1]).toBe(10);
  // Of the one between: it stays where it hangs, and the last goes along.
  const middle = built(...steps, longer('b'));
  expect([x(middle, 'a'), x(middle, 'b'), x(middle, 'c'), closed(middle)]).toEqual([0, 60, 162, true]);
  expect(partNamed(middle, 'b')!.placement.origin[1]).toBe(-10);
  // A locked one stays, and is reported.
  const locked = built(...steps, ['change', { parts: ['b'], locked: 'yes' }], longer('a'));
  expect(reportOf(locked).joints.map(({ isClosed }) => isClosed)).toEqual([false, true]);
  // A clearance by a variable.
  const byVariable: Statement[] = [
    ...steps.slice(0, -1),
    ['variable', { name: 'gap', value: '2' }],
    ['join-docks', { dock: 'c: from', onto: 'b: to', held: 'held', offset: 'gap' }],
  ];
  const wider = built(...byVariable, ['variable', { name: 'gap', value: '5' }]);
  expect([x(wider, 'c'), closed(wider)]).toEqual([125, true]);
});

const FACES = ['left', 'right', 'front', 'back', 'top', 'bottom'];

/** Six blocks of any size, each held by the one that it hangs on; every face takes one. */
function randomTree(random: () => number): Statement[] {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const free: string[] = [];
  return [0, 1, 2, 3, 4, 5].flatMap((i): Statement[] => {
    const own = pick(FACES);
    const joined: Statement[] = [];
    if (i > 0) {
      const [onto] = free.splice(Math.floor(random() * free.length), 1);
      joined.push(['join-docks', { dock: `b${i}: ${own}`, onto, held: 'held', turn: pick([0, 90, 37]) }]);
    }
    free.push(...FACES.filter((face) => face !== own).map((face) => `b${i}: ${face}`));
    return [
      ['box', { as: `b${i}`, size: sizeOf(random), at: [0, 200 * i, 0] }],
      ...FACES.map((at): Statement => ['dock', { at: { on: `b${i}`, at }, called: at }]),
      ...joined,
    ];
  });
}

const sizeOf = (random: () => number) => [0, 1, 2].map(() => Math.round(10 + 90 * random()));

test('random trees of held blocks stay closed whatever size is changed', () => {
  const random = numbers(1);
  for (let run = 0; run < 5; run++) {
    const tree = randomTree(random);
    const changes = [0, 1, 2].map((): Statement => [
      'change',
      { parts: [`b${Math.floor(random() * 6)}`], size: sizeOf(random) },
    ]);
    const { joints } = reportOf(built(...tree, ...changes));
    expect(joints.map(({ isClosed }) => isClosed)).toEqual(Array(5).fill(true));
  }
});

test('docks of operands follow their faces in what these have become', () => {
  const steps: Statement[] = [
    ['box', { as: 'plate', size: [60, 40, 20] }],
    ['box', { as: 'arm', size: [30, 20, 10], at: [60, 10, 5] }],
    ['dock', { at: { on: 'arm', at: 'right' }, called: 'tip' }],
    ['dock', { at: { on: 'plate', at: 'left' }, called: 'root' }],
    ['union', { as: 'bracket', parts: ['plate', 'arm'] }],
  ];
  const changed = built(
    ...steps,
    ['change', { parts: ['arm'], size: ['50', 'now', 'now'] }],
    ['move', { parts: ['bracket'], by: [0, 0, 7] }],
  );
  expect(docksOf(changed, 'bracket')).toEqual([
    { dock: 'root', at: [0, 20, 17], out: [-1, 0, 0] },
    { dock: 'tip', at: [110, 20, 17], out: [1, 0, 0] },
  ]);
  // Cut away by another: where it was put.
  const cut = built(
    ...steps,
    ['box', { as: 'knife', size: [20, 60, 60], at: [80, -10, -10] }],
    ['subtract', { as: 'short', from: 'bracket', parts: ['knife'] }],
  );
  expect(docksOf(cut, 'short')[1]).toEqual({ dock: 'tip', at: [90, 20, 10], out: [1, 0, 0] });
  // The right of the first is cut away, and another operand has a right of its own: that is not meant.
  const first = built(
    ['box', { as: 'plate', size: [60, 40, 20] }],
    ['dock', { at: { on: 'plate', at: 'right' }, called: 'end' }],
    ['box', { as: 'knife', size: [60, 60, 60], at: [30, -10, -10] }],
    ['subtract', { as: 'half', from: 'plate', parts: ['knife'] }],
    ['box', { as: 'far', size: [10, 40, 20], at: [200, 0, 0] }],
    ['union', { as: 'both', parts: ['half', 'far'] }],
  );
  expect(docksOf(first, 'both')).toEqual([{ dock: 'end', at: [60, 20, 10], out: [1, 0, 0] }]);
});

test('a name that is gone is told, and nothing is joined by it', () => {
  const document = built(
    ['box', { as: 'a', size: [60, 40, 20] }],
    ['dock', { at: { on: 'a', at: 'top&front&right' }, called: 'corner' }],
    ['chamfer', { part: 'a', edges: ['right&front'], width: '3' }],
  );
  const [gone] = reportOf(document).lost;
  expect(gone!.dock.name).toBe('corner');
  expect(gone!.lost).toMatch(/no endpoint/);
});

const PIPE = 'pipe 40';

const pipe = (as: string, height: number, at: number[]): Statement[] => [
  ['tube', { as, diameter: 40, bore: 34, height, at }],
  ['dock', { at: { on: as, at: 'bottom&side', snap: 'centre' }, called: 'A', kind: PIPE }],
  ['dock', { at: { on: as, at: 'top&side', snap: 'centre' }, called: 'B', kind: PIPE }],
];

/** A quarter of a ring, 60 from its axis. */
const elbow = (as: string): Statement[] => [
  ['circle', { as: `${as} outside`, on: 'front', diameter: 40, at: [60, 0, 0] }],
  ['circle', { as: `${as} inside`, on: 'front', diameter: 34, at: [60, 0, 0] }],
  [
    'revolve',
    {
      as,
      profiles: [`${as} outside`, `${as} inside`],
      through: [
        [0, 0, 0],
        [0, 0, 1],
      ],
      angle: 90,
    },
  ],
  ['dock', { at: [60, 0, 0], part: as, out: '-y', called: 'A', kind: PIPE }],
  ['dock', { at: [0, 60, 0], part: as, out: '-x', called: 'B', kind: PIPE }],
];

const tee = (as: string): Statement[] => [
  ['cylinder', { as: `${as} through`, diameter: 40, height: 120, at: [0, 0, -60] }],
  ['cylinder', { as: `${as} branch`, diameter: 40, height: 60 }],
  ['turn', { parts: [`${as} branch`], angle: 90, about: 'y', centre: 'point', at: [0, 0, 0] }],
  ['union', { as: `${as} body`, parts: [`${as} through`, `${as} branch`] }],
  ['cylinder', { as: `${as} bore`, diameter: 34, height: 130, at: [0, 0, -65] }],
  ['cylinder', { as: `${as} side bore`, diameter: 34, height: 65 }],
  ['turn', { parts: [`${as} side bore`], angle: 90, about: 'y', centre: 'point', at: [0, 0, 0] }],
  ['subtract', { as, from: `${as} body`, parts: [`${as} bore`, `${as} side bore`] }],
  ['dock', { at: [0, 0, -60], part: as, out: '-z', called: 'A', kind: PIPE }],
  ['dock', { at: [0, 0, 60], part: as, out: 'z', called: 'B', kind: PIPE }],
  ['dock', { at: [60, 0, 0], part: as, out: 'x', called: 'C', kind: PIPE }],
];

test('a pipe run with two elbows and a tee is closed, and its parts touch on rings and nowhere overlap', async () => {
  const document = built(
    ...pipe('riser', 300, [0, 0, 0]),
    ...elbow('first'),
    ...pipe('branch', 120, [300, 0, 0]),
    ...tee('tee'),
    ...pipe('drop', 200, [600, 0, 0]),
    ...elbow('second'),
    ['join-docks', { dock: 'first: A', onto: 'riser: B' }],
    ['join-docks', { dock: 'branch: A', onto: 'first: B', turn: 90 }],
    ['join-docks', { dock: 'tee: C', onto: 'branch: B', turn: 270 }],
    ['join-docks', { dock: 'drop', onto: 'tee: A' }],
    ['join-docks', { dock: 'second: B', onto: 'drop', turn: 45 }],
  );
  const { joints } = reportOf(document);
  expect(joints.map(({ isClosed, misfit }) => [isClosed, misfit])).toEqual(Array(5).fill([true, undefined]));
  const { findings } = await fitReportOf(kernel, document, USUAL_SCOPE);
  expect(findings.filter(({ kind }) => kind === 'overlap')).toEqual([]);
  // Each pair meets on the ring between bore and outside: π (20² − 17²) = 348.72.
  const contacts = findings.filter(({ kind }) => kind === 'contact').map(({ words }) => words);
  expect(contacts).toEqual(Array(5).fill('They touch over 348.72 mm².'));
});

test('docks are points, directions and frames for every other verb', () => {
  const document = built(
    ...pipe('riser', 300, [10, 20, 0]),
    ['box', { as: 'cap', size: [40, 40, 5] }],
    ['move', { parts: ['cap'], from: [20, 20, 0], to: { on: 'riser', dock: 'B' } }],
    ['move', { parts: ['cap'], by: [0, 0, 7], in: { on: 'riser', dock: 'A' } }],
  );
  // A looks down: seven along its Z is seven down.
  expect(kernel.measure(document, partNamed(document, 'cap')!.id).box.min[2]).toBeDefined();
  const { origin } = partNamed(document, 'cap')!.placement;
  expect(origin).toEqual([-10, 0, 293]);
});
