/** Solids of many flat and round faces, whose volume, area and centre follow from how they were made. */
import { carry, turnOfDegrees, type Pose, type Vec3 } from '@kadrel/core';
import { builtBy, idOf, type Statement } from '@kadrel/testing';
import { Evaluator } from '../evaluate.ts';
import { sharedLibraries } from '../node.ts';
import { copied, release, type Occt } from '../occt/occt.ts';
import { integralsOf, plainVolumeOf } from './integrals.ts';

let occt: Occt;
let evaluator: Evaluator;
beforeAll(async () => {
  const libraries = await sharedLibraries();
  ({ occt } = libraries);
  evaluator = new Evaluator(libraries);
});

const [WIDE, DEEP, TALL] = [200, 120, 10];
const plate: Statement = ['box', { as: 'plate', size: [WIDE, DEEP, TALL] }];
const pitch = 12;

/** What each hole takes from the plate: the area of its outline and its length, mm. */
interface Hole {
  readonly area: number;
  readonly round: number;
  /** Middle of the first one. */
  readonly middle: readonly [x: number, y: number];
  readonly columns: number;
  readonly rows: number;
}

const drilled = ({ columns, rows }: Hole, ...tool: readonly Statement[]): Statement[] => [
  plate,
  ...tool,
  ['grid', { as: 'tools', parts: ['tool'], columns, columnPitch: pitch, rows, rowPitch: pitch }],
  ['subtract', { as: 'made', from: 'plate', parts: ['tools'] }],
];

const RADIUS = 3;
const roundHole: Hole = {
  area: Math.PI * RADIUS ** 2,
  round: 2 * Math.PI * RADIUS,
  middle: [10, 15],
  columns: 9,
  rows: 7,
};
const round = drilled(roundHole, [
  'cylinder',
  { as: 'tool', diameter: 2 * RADIUS, height: 30, at: [10, 15, -5] },
]);
/** 8 × 6 mm, with rounded corners. */
const slot: Hole = {
  area: 48 - (4 - Math.PI) * 4,
  round: 28 - (8 - 2 * Math.PI) * 2,
  middle: [24, 13],
  columns: 4,
  rows: 2,
};
const slotted = drilled(
  slot,
  ['box', { as: 'tool', size: [8, 6, 30], at: [20, 10, -5] }],
  ['fillet', { part: 'tool', edges: 'along z', radius: 2 }],
);

function expected({ area, round: length, middle: [x, y], columns, rows }: Hole) {
  const count = columns * rows;
  const volume = (WIDE * DEEP - count * area) * TALL;
  const surface = 2 * (WIDE * DEEP - count * area) + 2 * (WIDE + DEEP) * TALL + count * length * TALL;
  const along = (size: number, first: number, steps: number) =>
    (WIDE * DEEP * (size / 2) - count * area * (first + ((steps - 1) * pitch) / 2)) * (TALL / volume);
  const centroid: Vec3 = [along(WIDE, x, columns), along(DEEP, y, rows), TALL / 2];
  return { volume, area: surface, centroid };
}

const POSES: readonly Pose[] = [
  { turn: turnOfDegrees([0, 0, 0]), shift: [0, 0, 0] },
  { turn: turnOfDegrees([0, 90, 0]), shift: [500, -40, 3] },
  { turn: turnOfDegrees([20, 35, -70]), shift: [-12, 1000, 77] },
];

test.each([
  ['round holes', round, roundHole],
  ['slots with rounded corners', slotted, slot],
] as const)('a plate with %s', (_, statements, hole) => {
  const document = builtBy(evaluator, statements);
  const shape = evaluator.shapeFor(document, idOf(document, 'made'));
  for (const pose of POSES) {
    const placed = copied(occt, shape, pose);
    const { volume, area, centroid } = integralsOf(occt, placed);
    const wanted = expected(hole);
    expect(volume / wanted.volume).toBeCloseTo(1, 11);
    expect(area / wanted.area).toBeCloseTo(1, 11);
    const middle = carry(pose, wanted.centroid);
    for (const axis of [0, 1, 2]) expect(centroid[axis]!).toBeCloseTo(middle[axis]!, 8);
    // The kernel's own rule is exact for these, too.
    expect(volume / plainVolumeOf(occt, placed)).toBeCloseTo(1, 11);
    release(occt, placed);
  }
});
