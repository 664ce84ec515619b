import fc from 'fast-check';
import { project, rayThrough, type Camera } from '../space/camera.ts';
import { carry, poseOf } from '../space/pose.ts';
import { distance, dot, subtract, type Vec3 } from '../space/vector.ts';
import { castOnScene } from './raycast.ts';
import { resolveSnap, toStep } from './resolve.ts';
import { snapScene } from './scene.ts';
import type { SnapSettings } from './snap.ts';
import { SNAP_KINDS, type SnapKind } from './shape.ts';
import { block, boxShape, corner, instance, looking, over, rim, settings } from './shapes.fixture.ts';

const views: readonly [string, Camera][] = [
  ['plan', looking(0, 90)],
  ['front', looking(0, 0)],
  ['isometric', looking(45, 35.26)],
  ['perspective', looking(30, 30, 'perspective')],
];

describe.each(views)('in %s', (_, camera) => {
  const catchAt = (point: Vec3, kinds?: readonly SnapKind[], more?: Partial<SnapSettings>) =>
    resolveSnap({
      pointer: over(camera, point),
      camera,
      scene: block(),
      settings: settings(kinds, more),
    });

  test('the corner in sight is caught, with its exact place', () => {
    expect(catchAt([40, 0, 10])).toMatchObject({ kind: 'endpoint', part: 'a', point: [40, 0, 10] });
  });
  test('a kind that is off is not caught', () => {
    expect(catchAt([40, 0, 10], ['midpoint'])).toBeNull();
  });
  test('the middle of an edge', () =>
    expect(catchAt([20, 0, 10], ['midpoint', 'endpoint'])).toMatchObject({
      kind: 'midpoint',
      point: [20, 0, 10],
    }));
  test('an edge anywhere', () => {
    const snap = catchAt([9, 0, 10], ['on edge'])!;
    expect(snap.kind).toBe('on edge');
    expect([snap.point[1], snap.point[2]]).toEqual([0, 10]);
  });
});

describe('what a section plane takes away', () => {
  const plan = looking(0, 90);
  // The block reaches from z = 0 to 10: what lies over 6, and beyond x = 30, is out of sight.
  const half = (normal: Vec3, offset: number) => ({ normal, offset, across: [0, 1, 0] as const });
  const cut = (whole: string[], normal: Vec3, offset: number) => ({
    section: 's',
    halves: [half(normal, offset)],
    whole: new Set(whole),
    isHatched: true,
    spacing: 0,
  });
  const cutBlock = (whole: string[] = []) => ({
    ...block(),
    cuts: [cut(whole, [0, 0, 1], 6), cut(whole, [1, 0, 0], 30)],
  });
  const catchAt = (point: Vec3, scene: ReturnType<typeof cutBlock>) =>
    resolveSnap({ pointer: over(plan, point, 0), camera: plan, scene, settings: settings(['endpoint']) });

  test('is neither met nor caught, and what lies beneath it is', () => {
    const down = rayThrough(plan, ...over(plan, [10, 10, 0], 0));
    const height = (scene: ReturnType<typeof cutBlock>) => {
      const hit = castOnScene(scene, down)!;
      return down.from[2] + down.direction[2] * hit.distance;
    };
    // From within, the far side is met.
    expect(height(cutBlock())).toBeCloseTo(0, 6);
    expect(height(cutBlock(['a']))).toBeCloseTo(10, 6);
    expect(castOnScene(cutBlock(), rayThrough(plan, ...over(plan, [35, 10, 0], 0)))).toBeUndefined();
    expect(catchAt([0, 0, 0], cutBlock())).toMatchObject({ point: [0, 0, 0] });
    expect(catchAt([40, 0, 10], cutBlock())).toBeNull();
    expect(catchAt([40, 0, 10], cutBlock(['a']))).toMatchObject({ point: [40, 0, 10] });
  });

  test('of a cut solid that stands on another, the cut face is met wherever it is seen', () => {
    const standing = snapScene(
      ['floor', 'knob'].map((part) => {
        const [size, height] = part === 'floor' ? [[60, 60, 5] as const, 0] : [[10, 10, 10] as const, 5];
        return instance(boxShape([...size]), part, poseOf([part === 'floor' ? 0 : 25, 0, height], [0, 0, 0]));
      }),
    );
    const scene = { ...standing, cuts: [cut([], [0, 0, 1], 10)] };
    const camera = looking(0, 90, 'perspective');
    for (const x of [26, 28, 31, 33.5])
      for (const y of [1, 3, 8, 9.5]) {
        const seen = castOnScene(scene, rayThrough(camera, ...over(camera, [x, y, 10], 0)));
        expect([x, y, seen?.instance.part]).toEqual([x, y, 'knob']);
      }
    const beside = castOnScene(scene, rayThrough(camera, ...over(camera, [45, 5, 5], 0)));
    expect(beside?.instance.part).toBe('floor');
  });

  test('a section plane itself hides nothing, and its edges are caught', () => {
    const scene = snapScene([
      { ...instance(boxShape([40, 20, 10]), 'section'), isOpen: true },
      instance(boxShape([40, 20, 4]), 'below'),
    ]);
    const hit = castOnScene(scene, rayThrough(plan, ...over(plan, [10, 10, 0], 0)))!;
    expect(hit.instance.part).toBe('below');
    const camera = looking(0, 0);
    const query = { camera, scene, settings: settings(['endpoint']) };
    expect(resolveSnap({ ...query, pointer: over(camera, [0, 0, 10], 0) })).toMatchObject({
      part: 'section',
    });
  });
});

describe('what is behind', () => {
  const camera = looking(30, 30, 'perspective');
  const hidden: Vec3 = [0, 20, 0];
  const at = (more: Partial<SnapSettings>) =>
    resolveSnap({
      pointer: over(camera, hidden, 0),
      camera,
      scene: block(),
      settings: settings(['endpoint'], more),
    });
  test('a nearer face is not caught', () => expect(at({})).toBeNull());
  test('is caught when seen through', () =>
    expect(at({ seeThrough: true })).toMatchObject({ point: hidden }));
  test('is caught when what stands before it is left out', () => {
    const instances = [
      instance(boxShape([40, 20, 10]), 'near'),
      instance(boxShape([40, 20, 10]), 'far', poseOf([0, 60, 0], [0, 0, 0])),
    ];
    const front = looking(0, 0);
    const query = {
      pointer: over(front, [0, 60, 10], 0),
      camera: front,
      scene: snapScene(instances),
      settings: settings(['endpoint']),
    };
    expect(resolveSnap(query)?.part).toBe('near');
    expect(resolveSnap({ ...query, without: new Set(['near']) })?.part).toBe('far');
  });
});

describe('circles', () => {
  const camera = looking(0, 90);
  const onRim: Vec3 = [10 * Math.cos(1), 10 * Math.sin(1), 0];
  const at = (kinds: readonly SnapKind[]) =>
    resolveSnap({
      pointer: over(camera, onRim, 1),
      camera,
      scene: snapScene([instance(rim())]),
      settings: settings(kinds),
    });
  test('a touched rim offers its centre', () =>
    expect(at(['centre', 'on edge'])).toMatchObject({ kind: 'centre', point: [0, 0, 0] }));
  test('with centres off, the nearest point of the rim itself', () => {
    const snap = at(['on edge'])!;
    expect(Math.hypot(snap.point[0], snap.point[1])).toBeCloseTo(10, 9);
    expect(distance(snap.point, onRim)).toBeLessThan(1);
  });
});

describe('faces and grid', () => {
  test('a point on a face lies on its plane, with the outward normal', () => {
    const camera = looking(30, 30, 'perspective');
    const snap = resolveSnap({
      pointer: over(camera, [23, 7, 10], 0),
      camera,
      scene: block(),
      settings: settings(['on face']),
    })!;
    expect(snap).toMatchObject({ kind: 'on face', normal: [0, 0, 1] });
    expect(snap.point[2]).toBe(10);
    expect(distance(snap.point, [23, 7, 10])).toBeLessThan(1e-9);
  });
  test('the grid is caught on the ground, and not through a part', () => {
    const camera = looking(0, 90);
    const at = (point: Vec3) =>
      resolveSnap({
        pointer: over(camera, point, 2),
        camera,
        scene: block(),
        settings: settings(['grid']),
      });
    expect(at([55, 15, 0])).toEqual({ kind: 'grid', point: [55, 15, 0] });
    expect(at([20, 10, 0])).toBeNull();
  });
  test('steps of a decimal leave no noise', () =>
    expect([toStep(0.30000001, 0.1), toStep(-0.04, 0.1), toStep(12.6, 12.7)]).toEqual([0.3, 0, 12.7]));
});

/** Kinds that need not lie on a part. */
const OFF_THE_PART: ReadonlySet<SnapKind> = new Set<SnapKind>(['grid', 'on plane', 'origin', 'half-way']);

describe('laws', () => {
  const pose = fc
    .tuple(
      fc.double({ min: -50, max: 50, noNaN: true }),
      fc.double({ min: -50, max: 50, noNaN: true }),
      fc.double({ min: -180, max: 180, noNaN: true }),
    )
    .map(([x, y, turn]) => poseOf([x, y, 0], [turn / 2, turn / 3, turn]));
  const pointer = fc.tuple(
    fc.double({ min: 0, max: 800, noNaN: true }),
    fc.double({ min: 0, max: 600, noNaN: true }),
  );

  test('what is caught on an edge or a face lies on it, within reach of the pointer, and is not hidden', () =>
    fc.assert(
      fc.property(
        pose,
        pointer,
        fc.constantFrom(...views.map(([, camera]) => camera)),
        (stands, at, camera) => {
          const scene = snapScene([instance(boxShape([40, 20, 10]), 'a', stands)]);
          const snap = resolveSnap({
            pointer: at,
            camera,
            scene,
            settings: settings(SNAP_KINDS.filter((kind) => !OFF_THE_PART.has(kind))),
          });
          if (!snap) return;
          const onSomeFace = [0, 1, 2].some((axis) => {
            const local = subtract(snap.point, stands.shift);
            const column = [0, 3, 6].map((row) => stands.turn[row + axis]!) as unknown as Vec3;
            const along = dot(local, column);
            return Math.min(Math.abs(along), Math.abs(along - [40, 20, 10][axis]!)) < 1e-9;
          });
          expect(onSomeFace).toBe(true);
          const [x, y, depth] = project(camera, snap.point);
          expect(Math.hypot(x - at[0], y - at[1])).toBeLessThan(10 + 1e-6);
          const hit = castOnScene(scene, rayThrough(camera, x, y));
          if (hit)
            expect(hit.distance).toBeGreaterThan(
              distance(rayThrough(camera, x, y).from, snap.point) - 2 * Math.max(0.4, depth / 1000),
            );
        },
      ),
      { numRuns: 500 },
    ));

  test('no corner in sight is nearer to the pointer than the one that is caught', () =>
    fc.assert(
      fc.property(pose, pointer, (stands, at) => {
        const camera = looking(30, 30, 'perspective');
        const scene = snapScene([instance(boxShape([40, 20, 10]), 'a', stands)]);
        const snap = resolveSnap({
          pointer: at,
          camera,
          scene,
          settings: settings(['endpoint'], { seeThrough: true, reachPx: 60 }),
        });
        const offs = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => {
          const [x, y] = project(camera, carry(stands, corner([40, 20, 10], i)));
          return Math.hypot(x - at[0], y - at[1]);
        });
        const nearest = Math.min(...offs);
        if (!snap) expect(nearest).toBeGreaterThan(60 - 1e-9);
        else {
          const [x, y] = project(camera, snap.point);
          expect(Math.hypot(x - at[0], y - at[1])).toBeCloseTo(nearest, 6);
        }
      }),
    ));

  test('the tree of boxes finds the same facet as trying every one', () =>
    fc.assert(
      fc.property(pose, pointer, (stands, at) => {
        const camera = looking(30, 30, 'perspective');
        const ray = rayThrough(camera, ...at);
        const scene = snapScene([instance(boxShape([40, 20, 10]), 'a', stands)]);
        const { shape } = scene.instances[0]!;
        const flat = {
          ...shape,
          triangleTree: {
            ...shape.triangleTree,
            bounds: shape.triangleTree.bounds.map((_, i) => (i % 6 < 3 ? -1e9 : 1e9)),
          },
        };
        expect(castOnScene(scene, ray)?.distance).toBe(
          castOnScene(snapScene([instance(flat, 'a', stands)]), ray)?.distance,
        );
      }),
    ));
});
