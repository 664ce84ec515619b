import fc from 'fast-check';
import { emptyDocument } from '../document/items.ts';
import { perform } from '../statement/perform.ts';
import { isRefusal } from '../statement/declare.ts';
import { verbNamed } from '../verbs/index.ts';
import { plainWorld } from '../statement/world.ts';
import { project } from '../space/camera.ts';
import { carry, poseOf } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import { snapScene } from '../snapping/scene.ts';
import { BAY, boxShape, corner, instance, looking } from '../snapping/shapes.fixture.ts';
import { DoubleFinder, partsLeftOut, partsLike, partsNamed, type Likely } from './alike.ts';
import { contains, encloses, meetsSegment, type Point, type Region } from './outline.ts';
import { partsInRegion, type RegionRule } from './region.ts';

function doublesAmong(parts: readonly Likely[]): Likely[][] {
  const finder = new DoubleFinder();
  for (const one of parts) finder.add(one);
  return finder.found();
}

const plan = looking(0, 90);
const slanted = looking(30, 30, 'perspective');
const two = snapScene([
  instance(boxShape([40, 20, 10]), 'a'),
  instance(boxShape([40, 20, 10]), 'b', poseOf([60, 0, 0], [0, 0, 0])),
]);
const seen = (camera: typeof plan, point: Vec3): Point => {
  const [x, y] = project(camera, point);
  return [x, y];
};
const taken = (region: Region, rule: RegionRule, scene = two, camera = plan, onlySeen = false) =>
  partsInRegion({ scene, camera, region, rule, onlySeen });
const around = (min: Vec3, max: Vec3): Region => {
  const [a, b] = [seen(plan, min), seen(plan, max)];
  return { kind: 'rectangle', left: a[0], right: b[0], top: b[1], bottom: a[1] };
};

describe('regions', () => {
  test('a rectangle takes what it encloses, or what it touches, also from inside a face', () => {
    expect(taken(around([-5, -5, 0], [70, 25, 0]), 'enclosed')).toEqual(['a']);
    expect(taken(around([-5, -5, 0], [70, 25, 0]), 'touching')).toEqual(['a', 'b']);
    expect(taken(around([10, 5, 0], [12, 6, 0]), 'touching')).toEqual(['a']);
    expect(taken(around([45, 5, 0], [55, 6, 0]), 'touching')).toEqual([]);
  });

  test('a circle touches a corner by its own radius, not by its box', () => {
    // From (-3, -4) to the corner (0, 0) it is 5.
    const [x, y] = seen(plan, [-3, -4, 0]);
    const px = seen(plan, [1, 0, 0])[0] - seen(plan, [0, 0, 0])[0];
    expect(taken({ kind: 'circle', centre: [x, y], radius: 5.01 * px }, 'touching')).toEqual(['a']);
    expect(taken({ kind: 'circle', centre: [x, y], radius: 4.99 * px }, 'touching')).toEqual([]);
    const middle = seen(plan, [20, 10, 0]);
    // Half the diagonal of 40 × 20 is √500.
    expect(taken({ kind: 'circle', centre: middle, radius: 22.37 * px }, 'enclosed')).toEqual(['a']);
    expect(taken({ kind: 'circle', centre: middle, radius: 22.35 * px }, 'enclosed')).toEqual([]);
  });

  test('a fence with a bay does not enclose what reaches into the bay', () => {
    const fence = (corners: readonly Vec3[]): Region => ({
      kind: 'polygon',
      corners: corners.map((point) => seen(plan, point)),
    });
    expect(taken(fence(BAY), 'touching')).toEqual(['a']);
    expect(taken(fence(BAY), 'enclosed')).toEqual([]);
    const plain = BAY.filter(([x]) => x !== 20);
    expect(taken(fence(plain), 'enclosed')).toEqual(['a']);
  });

  test('a brush takes what its width reaches', () => {
    const px = seen(plan, [1, 0, 0])[0] - seen(plan, [0, 0, 0])[0];
    const stroke = (radius: number): Region => ({
      kind: 'brush',
      path: [seen(plan, [-20, -3, 0]), seen(plan, [45, -3, 0])],
      radius: radius * px,
    });
    expect(taken(stroke(2.9), 'touching')).toEqual([]);
    expect(taken(stroke(3.1), 'touching')).toEqual(['a']);
    const whole: Region = {
      ...stroke(14),
      path: [seen(plan, [-2, 10, 0]), seen(plan, [42, 10, 0])],
    } as Region;
    expect(taken(whole, 'enclosed')).toEqual(['a']);
  });

  test('the outline counts, not the box: a turned plate leaves the corners of its box free', () => {
    const turned = snapScene([instance(boxShape([40, 40, 2]), 'a', poseOf([0, 0, 0], [0, 0, 45]))]);
    // Its box in plan is 56.6 wide; the corner at (-25, 3) is inside the box and beside the plate.
    const region = around([-27, 1, 0], [-24, 4, 0]);
    expect(taken(region, 'touching', turned)).toEqual([]);
    expect(taken(around([-27, 1, 0], [-20, 28, 0]), 'touching', turned)).toEqual(['a']);
  });

  test('only what is seen: a part wholly behind another is left', () => {
    const scene = snapScene([
      instance(boxShape([40, 20, 10]), 'top', poseOf([0, 0, 20], [0, 0, 0])),
      instance(boxShape([20, 10, 10]), 'under', poseOf([10, 5, 0], [0, 0, 0])),
      instance(boxShape([4, 4, 4]), 'beside', poseOf([50, 5, 0], [0, 0, 0])),
    ]);
    const region = around([-5, -5, 0], [60, 25, 0]);
    expect(taken(region, 'enclosed', scene)).toEqual(['top', 'under', 'beside']);
    expect(taken(region, 'enclosed', scene, plan, true)).toEqual(['top', 'beside']);
  });

  test('in perspective: what every corner of the box says', () =>
    fc.assert(
      fc.property(
        fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -60, max: 60, noNaN: true }))),
        fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -180, max: 180, noNaN: true }))),
        fc.tuple(...[0, 1, 2, 3].map((i) => fc.double({ min: 0, max: i % 2 ? 600 : 800, noNaN: true }))),
        (place, turn, [x1, y1, x2, y2]) => {
          const pose = poseOf(place as unknown as Vec3, turn as unknown as Vec3);
          const region: Region = {
            kind: 'rectangle',
            left: Math.min(x1!, x2!),
            right: Math.max(x1!, x2!),
            top: Math.min(y1!, y2!),
            bottom: Math.max(y1!, y2!),
          };
          const scene = snapScene([instance(boxShape([40, 20, 10]), 'a', pose)]);
          const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) =>
            seen(slanted, carry(pose, corner([40, 20, 10], i))),
          );
          const isEnclosed = corners.every((point) => contains(region, point));
          expect(taken(region, 'enclosed', scene, slanted).length > 0).toBe(isEnclosed);
          if (corners.some((point) => contains(region, point)))
            expect(taken(region, 'touching', scene, slanted)).toEqual(['a']);
        },
      ),
      { numRuns: 300 },
    ));

  test('what stands behind the eye is touched only where it comes before it', () => {
    const far = snapScene([instance(boxShape([40, 20, 10]), 'a', poseOf([0, -5000, 0], [0, 0, 0]))]);
    const front = looking(0, 0, 'perspective');
    const all: Region = { kind: 'rectangle', left: -1e5, top: -1e5, right: 1e5, bottom: 1e5 };
    expect(taken(all, 'touching', far, front)).toEqual([]);
    const long = snapScene([instance(boxShape([4, 6000, 4]), 'a', poseOf([20, -5000, 5], [0, 0, 0]))]);
    expect(taken(all, 'touching', long, front)).toEqual(['a']);
    expect(taken(all, 'enclosed', long, front)).toEqual([]);
  });
});

describe('outlines', () => {
  const square: Point[] = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  test('a polygon that crosses itself is inside by the even-odd rule', () => {
    const bow: Region = { kind: 'polygon', corners: [square[0]!, square[2]!, square[1]!, square[3]!] };
    const inside = (
      [
        [5, 1],
        [9, 5],
        [1, 5],
        [5, 9],
      ] as Point[]
    ).map((point) => contains(bow, point));
    expect(inside).toEqual([false, true, true, false]);
  });
  test('a line through a polygon meets it though both ends are outside', () => {
    const region: Region = { kind: 'polygon', corners: square };
    expect(meetsSegment(region, [-5, 5], [15, 6])).toBe(true);
    expect(meetsSegment(region, [-5, 11], [15, 12])).toBe(false);
  });
  test('two strokes side by side enclose what neither does alone', () => {
    const brush = (path: Point[], radius: number): Region => ({ kind: 'brush', path, radius });
    const piece: Point[] = [
      [0, 0],
      [20, 0],
      [20, 2],
      [0, 2],
    ];
    expect(
      encloses(
        brush(
          [
            [0, 1],
            [20, 1],
          ],
          1.5,
        ),
        piece,
      ),
    ).toBe(true);
    expect(
      encloses(
        brush(
          [
            [0, 1],
            [8, 1],
          ],
          1.5,
        ),
        piece,
      ),
    ).toBe(false);
    expect(
      encloses(
        brush(
          [
            [0, 1],
            [10, 1],
            [10, 40],
            [20, 40],
            [20, 1],
            [8, 1],
          ],
          1.5,
        ),
        piece,
      ),
    ).toBe(true);
  });
});

describe('parts like others', () => {
  let ids = 0;
  const made = [
    ['box', { as: 'Plate', size: ['40', '20', '5'] }],
    ['box', { as: 'Rail left', size: ['20', '5', '40'] }],
    ['box', { as: 'Rail right', size: ['20', '5', '40'] }],
    ['cylinder', { as: 'Peg', diameter: '8', height: '20' }],
    ['change', { parts: ['Peg', 'Plate'], colour: '#aa3355' }],
  ] as const;
  const document = made.reduce((before, [verb, typed]) => {
    const done = perform(
      verbNamed(verb)!,
      typed,
      before,
      plainWorld(before, () => `p${++ids}`),
    );
    if (isRefusal(done)) throw new Error(done.message);
    return done.document;
  }, emptyDocument());
  const id = (name: string) => Object.values(document.items).find((part) => part.name === name)!.id;
  const names = (found: readonly string[]) => found.map((one) => document.items[one]!.name);
  const boxOf = (part: string) => {
    const { base } = document.items[part]!.recipe;
    return base.kind === 'box' ? { min: [0, 0, 0] as Vec3, max: base.size as unknown as Vec3 } : undefined;
  };
  test.each([
    ['kind', ['Plate', 'Rail left', 'Rail right']],
    ['recipe', ['Plate']],
    // 40 × 20 × 5 and 20 × 5 × 40 are one size, turned.
    ['size', ['Plate', 'Rail left', 'Rail right']],
    ['colour', ['Plate', 'Peg']],
  ] as const)('by %s', (how, expected) => {
    expect(names(partsLike(document, [id('Plate')], how, boxOf))).toEqual(expected);
  });
  test('by name, and all others', () => {
    expect(names(partsNamed(document, 'RAIL'))).toEqual(['Rail left', 'Rail right']);
    expect(partsNamed(document, '  ')).toEqual([]);
    expect(names(partsLeftOut(document, [id('Plate'), id('Peg')]))).toEqual(['Rail left', 'Rail right']);
  });
});

test('parts that lie on each other are found, however their lattice cells fall', () => {
  const at = (part: string, x: number, volume = 8) => ({
    part,
    volume,
    centroid: [x, 0, 0] as Vec3,
    box: () => ({ min: [x - 1, -1, -1] as Vec3, max: [x + 1, 1, 1] as Vec3 }),
  });
  const found = doublesAmong([at('a', 1), at('b', 1 + 5e-7), at('c', 1.01), at('d', 1, 7.9), at('e', 1.01)]);
  expect(found.map((group) => group.map(({ part }) => part))).toEqual([
    ['a', 'b'],
    ['c', 'e'],
  ]);
  for (let k = 0; k < 40; k++)
    expect(doublesAmong([at('a', k / 4000 - 2e-7), at('b', k / 4000 + 2e-7)])).toHaveLength(1);
});
