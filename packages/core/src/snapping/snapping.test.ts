import fc from 'fast-check';
import { cameraOf, project, rayThrough, type Camera, type ViewState } from '../space/camera.ts';
import { AT_ORIGIN, carry, poseOf, type Pose } from '../space/pose.ts';
import { distance, dot, subtract, type Vec3 } from '../space/vector.ts';
import { partsInRectangle } from '../selecting/rectangle.ts';
import { castOnScene, type SnapInstance } from './raycast.ts';
import { resolveSnap, toStep, type SnapSettings } from './resolve.ts';
import {
  CURVE_CIRCLE,
  CURVE_LINE,
  FACE_PLANE,
  POINT_KINDS,
  SNAP_KINDS,
  snapShape,
  type SnapKind,
  type SnapShape,
} from './shape.ts';

const corner = (size: Vec3, i: number): Vec3 => [
  i & 1 ? size[0] : 0,
  i & 2 ? size[1] : 0,
  i & 4 ? size[2] : 0,
];
const middle = (a: Vec3, b: Vec3): Vec3 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2];

/** A box by hand, as the kernel would pack it: 8 corners, 12 edges with their middles, 6 faces with their centres. */
function boxShape(size: Vec3): SnapShape {
  const points: { kind: SnapKind; at: Vec3 }[] = [];
  const curves: number[] = [];
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => corner(size, i));
  for (const at of corners) points.push({ kind: 'endpoint', at });
  for (let i = 0; i < 8; i++)
    for (const bit of [1, 2, 4])
      if (!(i & bit)) {
        const [a, b] = [corners[i]!, corners[i | bit]!];
        points.push({ kind: 'midpoint', at: middle(a, b) });
        curves.push(...a, ...b, 0, 0, 0, 0, 0, 0);
      }
  const sides = [
    [0, 2, 6, 4],
    [1, 5, 7, 3],
    [0, 4, 5, 1],
    [2, 3, 7, 6],
    [0, 1, 3, 2],
    [4, 6, 7, 5],
  ];
  const normals = [
    [-1, 0, 0],
    [1, 0, 0],
    [0, -1, 0],
    [0, 1, 0],
    [0, 0, -1],
    [0, 0, 1],
  ];
  for (const [a, , c] of sides) points.push({ kind: 'face centre', at: middle(corners[a!]!, corners[c!]!) });
  return snapShape({
    points: Float64Array.from(points.flatMap(({ at }) => [...at])),
    pointKind: Uint8Array.from(points.map(({ kind }) => (POINT_KINDS as readonly string[]).indexOf(kind))),
    pointName: new Uint32Array(points.length),
    curveKind: new Uint8Array(12).fill(CURVE_LINE),
    curves: Float64Array.from(curves),
    curveName: new Uint32Array(12),
    polyline: new Float64Array(0),
    faceKind: new Uint8Array(6).fill(FACE_PLANE),
    faces: Float64Array.from(sides.flatMap(([a], i) => [...corners[a!]!, ...normals[i]!, 0])),
    faceName: new Uint32Array(6),
    names: ['face'],
    positions: Float32Array.from(sides.flatMap((side) => side.flatMap((i) => [...corners[i]!]))),
    triangles: Uint32Array.from(sides.flatMap((_, i) => [0, 1, 2, 0, 2, 3].map((k) => 4 * i + k))),
    faceOfTriangle: Uint32Array.from(sides.flatMap((_, i) => [i, i])),
    chordMm: 0,
  });
}

/** A rim alone: a circle of radius 10 on the ground, with its centre. */
const rim = (): SnapShape =>
  snapShape({
    ...boxShape([0, 0, 0]),
    points: Float64Array.from([0, 0, 0]),
    pointKind: Uint8Array.from([POINT_KINDS.indexOf('centre')]),
    pointName: new Uint32Array(1),
    curveKind: Uint8Array.from([CURVE_CIRCLE]),
    curves: Float64Array.from([0, 0, 0, 10, 0, 0, 0, 10, 0, 0, 360, 0]),
    curveName: new Uint32Array(1),
    positions: new Float32Array(0),
    triangles: new Uint32Array(0),
    faceOfTriangle: new Uint32Array(0),
  });

const instance = (shape: SnapShape, part = 'a', pose: Pose = AT_ORIGIN): SnapInstance => ({
  part,
  pose,
  shape,
});
const settings = (
  kinds: readonly SnapKind[] = SNAP_KINDS,
  more: Partial<SnapSettings> = {},
): SnapSettings => ({
  kinds: new Set(kinds),
  seeThrough: false,
  reachPx: 10,
  gridStep: 5,
  plane: { point: [0, 0, 0], normal: [0, 0, 1] },
  ...more,
});
const looking = (
  bearing: number,
  altitude: number,
  projection: ViewState['projection'] = 'parallel',
  height = 200,
): Camera => cameraOf({ target: [20, 10, 5], bearing, altitude, height, projection }, 800, 600);
const over = (camera: Camera, point: Vec3, off = 3): [number, number] => {
  const [x, y] = project(camera, point);
  return [x + off, y - off];
};
const block = () => [instance(boxShape([40, 20, 10]))];
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
      instances: block(),
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

describe('what is behind', () => {
  const camera = looking(30, 30, 'perspective');
  const hidden: Vec3 = [0, 20, 0];
  const at = (more: Partial<SnapSettings>) =>
    resolveSnap({
      pointer: over(camera, hidden, 0),
      camera,
      instances: block(),
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
      instances,
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
      instances: [instance(rim())],
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
      instances: block(),
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
        instances: block(),
        settings: settings(['grid']),
      });
    expect(at([55, 15, 0])).toEqual({ kind: 'grid', point: [55, 15, 0] });
    expect(at([20, 10, 0])).toBeNull();
  });
  test('steps of a decimal leave no noise', () =>
    expect([toStep(0.30000001, 0.1), toStep(-0.04, 0.1), toStep(12.6, 12.7)]).toEqual([0.3, 0, 12.7]));
});

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
          const instances = [instance(boxShape([40, 20, 10]), 'a', stands)];
          const snap = resolveSnap({
            pointer: at,
            camera,
            instances,
            settings: settings(SNAP_KINDS.filter((kind) => kind !== 'grid')),
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
          const hit = castOnScene(instances, rayThrough(camera, x, y));
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
        const instances = [instance(boxShape([40, 20, 10]), 'a', stands)];
        const snap = resolveSnap({
          pointer: at,
          camera,
          instances,
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
        const scene = [instance(boxShape([40, 20, 10]), 'a', stands)];
        const { shape } = scene[0]!;
        const flat = {
          ...shape,
          triangleTree: {
            ...shape.triangleTree,
            bounds: shape.triangleTree.bounds.map((_, i) => (i % 6 < 3 ? -1e9 : 1e9)),
          },
        };
        expect(castOnScene(scene, ray)?.distance).toBe(
          castOnScene([instance(flat, 'a', stands)], ray)?.distance,
        );
      }),
    ));
});

describe('a selection rectangle', () => {
  const camera = looking(0, 90);
  const instances = [
    instance(boxShape([40, 20, 10]), 'a'),
    instance(boxShape([40, 20, 10]), 'b', poseOf([60, 0, 0], [0, 0, 0])),
  ];
  const around = (min: Vec3, max: Vec3) => {
    const [a, b] = [project(camera, min), project(camera, max)];
    return { left: a[0], right: b[0], top: b[1], bottom: a[1] };
  };
  test('takes what it encloses', () => {
    expect(partsInRectangle(instances, camera, around([-5, -5, 0], [70, 25, 0]), 'enclosed')).toEqual(['a']);
  });
  test('or what it touches, also from inside a face', () => {
    expect(partsInRectangle(instances, camera, around([-5, -5, 0], [70, 25, 0]), 'touching')).toEqual([
      'a',
      'b',
    ]);
    expect(partsInRectangle(instances, camera, around([10, 5, 0], [12, 6, 0]), 'touching')).toEqual(['a']);
    expect(partsInRectangle(instances, camera, around([45, 5, 0], [55, 6, 0]), 'touching')).toEqual([]);
  });
});
