/** Unions of boxes by arithmetic: against a count of unit cubes, and against the kernel's own union. */
import { AT_ORIGIN, MERGED, carry, turnOfDegrees, type Vec3 } from '@kadrel/core';
import { numbers, trials } from '@kadrel/testing';
import { operate } from '../booleans/operation.ts';
import type { Content } from '../content/content.ts';
import { measureShape } from '../facts/measure.ts';
import type { NamedShape } from '../naming/named.ts';
import { sharedLibraries } from '../node.ts';
import { release, type Occt } from '../occt/occt.ts';
import { isSound } from '../occt/sound.ts';
import { buildBox } from './primitives/box.ts';
import { blocksOf, buildBlocks } from './blocks.ts';

type Combination = Extract<Content, { kind: 'combine' }>;
type Random = () => number;

let occt: Occt;
beforeAll(async () => {
  ({ occt } = await sharedLibraries());
});

const whole = (random: Random, from: number, to: number): number =>
  from + Math.floor(random() * (to - from + 1));

/** Boxes with whole numbers near one another, each turned by quarter turns. */
function union(random: Random): Combination {
  const three = (from: number, to: number) => [0, 1, 2].map(() => whole(random, from, to)) as unknown as Vec3;
  return {
    kind: 'combine',
    how: 'union',
    operands: Array.from({ length: whole(random, 2, 6) }, (_, i) => ({
      tag: i === 0 ? '' : `p${i}`,
      pose: { turn: turnOfDegrees(three(0, 3).map((n) => 90 * n) as unknown as Vec3), shift: three(0, 2) },
      content: { kind: 'box', size: three(2, 4) },
    })),
  };
}

const sizeOf = (content: Content): Vec3 => {
  if (content.kind !== 'box') throw new Error('There are boxes only.');
  return content.size;
};

/** Unit cubes that are filled, each by its least corner. */
function cubesOf({ operands }: Combination): Set<string> {
  const cubes = new Set<string>();
  for (const { pose, content } of operands) {
    const far = sizeOf(content);
    const [from, to] = [AT_ORIGIN.shift, far].map((corner) => carry(pose, corner)) as [Vec3, Vec3];
    const [min, max] = [Math.min, Math.max].map((of) => from.map((n, i) => of(n, to[i]!))) as [
      number[],
      number[],
    ];
    for (let x = min[0]!; x < max[0]!; x++)
      for (let y = min[1]!; y < max[1]!; y++)
        for (let z = min[2]!; z < max[2]!; z++) cubes.add([x, y, z].join());
  }
  return cubes;
}

/** Faces of cubes that no other cube lies against. */
const openFaces = (cubes: ReadonlySet<string>): number =>
  [...cubes].reduce((sum, cube) => {
    const at = cube.split(',').map(Number);
    const beside = [0, 1, 2].flatMap((axis) =>
      [-1, 1].map((by) => at.map((n, i) => (i === axis ? n + by : n)).join()),
    );
    return sum + beside.filter((one) => !cubes.has(one)).length;
  }, 0);

/** Names of faces, those that are joined one by one, in order. */
const namesOf = ({ faceNames }: NamedShape): string[] =>
  faceNames.map((name) => name.split(MERGED).sort().join(MERGED)).sort();

test('boxes that meet come to the cubes that they fill, with the names that the kernel carries', () => {
  const random = numbers(41);
  let made = 0;
  const count = trials(400);
  for (let i = 0; i < count; i++) {
    const content = union(random);
    const blocks = blocksOf(content);
    const built = blocks && buildBlocks(occt, blocks);
    if (!built) continue;
    made += 1;
    const cubes = cubesOf(content);
    const { volume, area } = measureShape(occt, built.shape);
    expect(blocks.volume).toBe(cubes.size);
    expect(volume).toBeCloseTo(cubes.size, 9);
    expect(area).toBeCloseTo(openFaces(cubes), 9);
    expect(isSound(occt, built.shape)).toBe(true);
    const operands = content.operands.map((one) => ({ ...one, ...buildBox(occt, sizeOf(one.content)) }));
    const general = operate(occt, { how: 'union', operands });
    expect(namesOf(built)).toEqual(namesOf(general));
    for (const { shape } of [built, general, ...operands]) release(occt, shape);
  }
  expect(made).toBeGreaterThan(count / 3);
});

/** Boxes by their least corners and sizes. */
const unionOf = (...boxes: readonly (readonly [at: Vec3, size: Vec3])[]): Combination => ({
  kind: 'combine',
  how: 'union',
  operands: boxes.map(([shift, size], i) => ({
    tag: i === 0 ? '' : `p${i}`,
    pose: { ...AT_ORIGIN, shift },
    content: { kind: 'box', size },
  })),
});

test('a hollow that boxes close in stays hollow', () => {
  const chest = unionOf(
    [
      [0, 0, 0],
      [6, 5, 1],
    ],
    [
      [0, 0, 3],
      [6, 5, 1],
    ],
    [
      [0, 0, 1],
      [6, 1, 2],
    ],
    [
      [0, 4, 1],
      [6, 1, 2],
    ],
    [
      [0, 1, 1],
      [1, 3, 2],
    ],
    [
      [5, 1, 1],
      [1, 3, 2],
    ],
  );
  const made = buildBlocks(occt, blocksOf(chest)!)!;
  expect(measureShape(occt, made.shape)).toMatchObject({ solids: 1, closed: true });
  expect(measureShape(occt, made.shape).volume).toBeCloseTo(6 * 5 * 4 - 4 * 3 * 2, 9);
  expect(isSound(occt, made.shape)).toBe(true);
  release(occt, made.shape);
});

test.each<[string, Combination]>([
  [
    'touch along an edge',
    unionOf(
      [
        [0, 0, 0],
        [1, 1, 1],
      ],
      [
        [1, 1, 0],
        [1, 1, 1],
      ],
    ),
  ],
  [
    'touch at a corner',
    unionOf(
      [
        [0, 0, 0],
        [1, 1, 1],
      ],
      [
        [1, 1, 1],
        [1, 1, 1],
      ],
    ),
  ],
  [
    'nearly touch',
    unionOf(
      [
        [0, 0, 0],
        [1, 1, 1],
      ],
      [
        [1 + 1e-7, 0, 0],
        [1, 1, 1],
      ],
    ),
  ],
])('boxes that %s are left to the general way', (_, content) => {
  expect(blocksOf(content)).toBeUndefined();
});
