/** Every kind of snap in four views, against places worked out by hand. */
import { carry, poseOf } from '../space/pose.ts';
import { cross, distance, dot, subtract, unit, type Vec3 } from '../space/vector.ts';
import { guidesFrom, parallelsThrough, touch, type Guide } from './guides.ts';
import { landingNormal } from './landing.ts';
import { resolveSnap, snapsWithin } from './resolve.ts';
import { snapScene, type SnapInstance } from './scene.ts';
import { FACE_SPHERE, POINT_KINDS, SNAP_KINDS, snapShape, type SnapKind } from './shape.ts';
import { boxShape, instance, looking, over, rim, settings } from './shapes.fixture.ts';
import type { SnapQuery } from './snap.ts';
import { NO_TURN } from '../space/pose.ts';
import type { Camera } from '../space/camera.ts';

const views: readonly [string, Camera][] = [
  ['plan', looking(0, 90)],
  ['front', looking(0, 0)],
  ['isometric', looking(45, 35.26)],
  ['perspective', looking(30, 30, 'perspective')],
];
const block = (part = 'a', at: Vec3 = [0, 0, 0], turn: Vec3 = [0, 0, 0], size: Vec3 = [40, 20, 10]) =>
  instance(boxShape(size), part, poseOf(at, turn));

describe.each(views)('in %s', (_, camera) => {
  const at = (
    point: Vec3,
    kind: SnapKind | readonly SnapKind[],
    instances: readonly SnapInstance[],
    more: Partial<SnapQuery> = {},
    sets: Parameters<typeof settings>[1] = {},
  ) =>
    resolveSnap({
      pointer: over(camera, point),
      camera,
      scene: snapScene(instances),
      settings: settings(typeof kind === 'string' ? [kind] : kind, { seeThrough: true, ...sets }),
      ...more,
    });
  const off = (snap: { point: Vec3 } | null, point: Vec3) => (snap ? distance(snap.point, point) : Infinity);

  test('two edges cross', () => {
    // The upright edge of the post at (40, 10) crosses the block's top edge on the right; turned so that no view hides it.
    const post = block('b', [40, 10, 10], [20, 15, 30], [30, 30, 30]);
    const start: Vec3 = [40, 10, 10];
    // The corner of the post stands in the middle of that edge: its own edges all begin there.
    const snap = at(start, 'intersection', [block(), post]);
    expect(snap).toMatchObject({ kind: 'intersection' });
    expect(off(snap, start)).toBeLessThan(1e-9);
  });

  test('an edge pierces a face of another part', () => {
    const pose = poseOf([5, 15, -5], [25, 20, 0]);
    const bar = instance(boxShape([6, 6, 60]), 'bar', pose);
    const from = carry(pose, [0, 0, 0]);
    const direction = subtract(carry(pose, [0, 0, 1]), from);
    const s = (10 - from[2]) / direction[2];
    const pierced: Vec3 = [from[0] + s * direction[0], from[1] + s * direction[1], 10];
    const snap = at(pierced, 'intersection', [block(), bar]);
    expect(snap).toMatchObject({ kind: 'intersection', part: 'bar', words: 'edge and face' });
    expect(off(snap, pierced)).toBeLessThan(1e-9);
  });

  test('an edge pierces the work plane', () => {
    const pose = poseOf([10, 5, -20], [25, 20, 0]);
    const from = carry(pose, [0, 0, 0]);
    const direction = subtract(carry(pose, [0, 0, 1]), from);
    const s = -from[2] / direction[2];
    const pierced: Vec3 = [from[0] + s * direction[0], from[1] + s * direction[1], 0];
    const snap = at(pierced, 'intersection', [instance(boxShape([6, 6, 60]), 'bar', pose)]);
    expect(snap).toMatchObject({ kind: 'intersection', words: 'edge and work plane' });
    expect(off(snap, pierced)).toBeLessThan(1e-9);
  });

  test('edges that only cross in the view are said to do so, on the nearer one', () => {
    // Two lines that pass one another: each turned, so that they cross in the picture whatever the view.
    const rod = (part: string, turn: Vec3, middle: Vec3) => {
      const pose = poseOf([0, 0, 0], turn);
      const half = carry(pose, [30, 0, 0]);
      return instance(boxShape([60, 0, 0]), part, poseOf(subtract(middle, half), turn));
    };
    const gap = 12;
    const near = [20, 10, 5].map((n, i) => n + camera.toward[i]! * gap) as unknown as Vec3;
    const snap = at([20, 10, 5], 'apparent', [
      rod('far', [0, 30, 40], [20, 10, 5]),
      rod('near', [0, -35, 20], near),
    ]);
    expect(snap?.kind).toBe('apparent');
    expect(snap?.words).toContain('only in this view');
    expect(off(snap, near)).toBeLessThan(camera.state.projection === 'parallel' ? 1e-9 : 2);
  });

  test('the foot of a perpendicular on an edge, and on a face', () => {
    const from: Vec3 = [13, -30, 25];
    const onEdge = at([13, 0, 10], 'perpendicular', [block()], { from });
    expect(onEdge?.kind).toBe('perpendicular');
    // The edge that runs along X: the foot has the X of the from-point.
    expect(onEdge!.point[0]).toBe(13);
    const above: Vec3 = [22, 9, 70];
    if (camera.state.altitude === 0) return;
    const onFace = at([22, 9, 10], 'perpendicular', [block()], { from: above });
    expect(off(onFace, [22, 9, 10])).toBeLessThan(1e-9);
  });

  test('a tangent to a circle: acos(r/d) from the line to its centre', () => {
    const turn: Vec3 = [50, 20, 0];
    const pose = poseOf([20, 10, 5], turn);
    const from = carry(pose, [25, 0, 0]);
    const angle = Math.acos(10 / 25);
    for (const side of [1, -1]) {
      const touching = carry(pose, [10 * Math.cos(angle), side * 10 * Math.sin(angle), 0]);
      const snap = at(touching, 'tangent', [instance(rim(), 'rim', pose)], { from });
      expect(snap?.kind).toBe('tangent');
      expect(off(snap, touching)).toBeLessThan(1e-9);
      expect(dot(subtract(snap!.point, pose.shift), subtract(snap!.point, from))).toBeCloseTo(0, 9);
    }
  });

  test('the feet on a circle lie on the line through its centre', () => {
    const pose = poseOf([20, 10, 5], [50, 20, 0]);
    const from = carry(pose, [20, 15, 0]);
    const foot = carry(pose, [8, 6, 0]);
    const snap = at(foot, 'perpendicular', [instance(rim(), 'rim', pose)], { from });
    expect(off(snap, foot)).toBeLessThan(1e-9);
  });

  test('circles cross in the corners of their lens', () => {
    // Two circles of radius 10 at a distance of 12: half the lens is √(10² − 6²) = 8 (Pythagoras).
    const pose = poseOf([14, 10, 5], [40, 25, 0]);
    const other = poseOf(carry(pose, [12, 0, 0]), [40, 25, 0]);
    for (const y of [8, -8]) {
      const corner = carry(pose, [6, y, 0]);
      const snap = at(corner, 'intersection', [instance(rim(), 'a', pose), instance(rim(), 'b', other)]);
      expect(off(snap, corner)).toBeLessThan(1e-9);
    }
  });

  test('a line crosses a circle: x = 6, y = √(10² − 6²)', () => {
    const pose = poseOf([20, 10, 5], [40, 25, 0]);
    const bar = instance(boxShape([0, 40, 0]), 'bar', poseOf(carry(pose, [6, -20, 0]), [40, 25, 0]));
    const crossing = carry(pose, [6, 8, 0]);
    const snap = at(crossing, 'intersection', [instance(rim(), 'rim', pose), bar]);
    expect(off(snap, crossing)).toBeLessThan(1e-9);
  });

  test('divide: thirds of an edge, and a length from its near end', () => {
    const slanted = block('a', [0, 0, 0], [20, 25, 15]);
    const along = (x: number) => carry(slanted.pose, [x, 0, 10]);
    const third = at(along(40 / 3), 'divide', [slanted], {}, { divide: { into: 3 } });
    expect(third).toMatchObject({ kind: 'divide', words: expect.stringMatching(/[12] of 3/) as string });
    expect(off(third, along(40 / 3))).toBeLessThan(1e-9);
    const near = at(along(32), 'divide', [slanted], {}, { divide: { at: 7 } });
    expect(off(near, along(33))).toBeLessThan(1e-9);
  });

  test('datum, box points, centres of the part, and the origin', () => {
    const known: SnapInstance = {
      ...block('a', [3, 2, 1], [20, 25, 15]),
      box: { min: [0, 0, 0], max: [40, 20, 10] },
      datum: [7, 8, 9],
      mass: [20, 10, 5],
    };
    const world = (own: Vec3) => carry(known.pose, own);
    expect(off(at(world([7, 8, 9]), 'datum', [known]), world([7, 8, 9]))).toBeLessThan(1e-9);
    expect(at(world([40, 20, 10]), 'box point', [known])).toMatchObject({ words: 'top back right' });
    expect(off(at(world([20, 10, 5]), 'mass centre', [known]), world([20, 10, 5]))).toBeLessThan(1e-9);
    expect(at(world([20, 10, 5]), 'part centre', [known], {}, { seeThrough: false })).toMatchObject({
      kind: 'part centre',
    });
    expect(at([0, 0, 0], 'origin', [])).toEqual({ kind: 'origin', point: [0, 0, 0] });
    expect(at([5, 5, 5], 'pin', [], { pins: [{ name: 'P', at: [5, 5, 5] }] })).toMatchObject({ pin: 'P' });
  });

  test('two guide rays cross', () => {
    const slant = unit([1, 2, 0.5]);
    const other = unit([2, -1, 0.7]);
    const meet: Vec3 = [22, 12, 6];
    const guides: Guide[] = [
      { from: subtract(meet, slant.map((n) => 15 * n) as unknown as Vec3), direction: slant, words: 'X' },
      { from: subtract(meet, other.map((n) => 25 * n) as unknown as Vec3), direction: other, words: 'Y' },
    ];
    const snap = at(meet, 'guide', [], { guides });
    expect(snap).toMatchObject({ kind: 'intersection', words: 'two guides' });
    expect(off(snap, meet)).toBeLessThan(1e-9);
    const alone = at(meet, 'guide', [], { guides: guides.slice(0, 1) })!;
    expect(alone).toMatchObject({ kind: 'guide', words: 'along X' });
    const offLine = cross(subtract(alone.point, guides[0]!.from), slant);
    expect(Math.hypot(...offLine)).toBeLessThan(1e-9);
  });

  test('half-way in: between the first and the next surface of the part, or of everything', () => {
    const direction = camera.toward;
    const middle: Vec3 = [20, 10, 5];
    // A slab square to the view, and a second one behind it.
    const slab = (part: string, shift: number, thick: number) => {
      const turn: Vec3 = [90 - camera.state.altitude, 0, camera.state.bearing];
      const pose = poseOf([0, 0, 0], turn);
      const centre = middle.map((n, i) => n - direction[i]! * shift) as unknown as Vec3;
      const half = carry(pose, [25, 25, thick / 2]);
      return instance(boxShape([50, 50, thick]), part, poseOf(subtract(centre, half), turn));
    };
    const two = [slab('first', 0, 8), slab('second', 30, 12)];
    const pointer = over(camera, middle, 0);
    const find = (halfWay: 'part' | 'all') =>
      resolveSnap({
        pointer,
        camera,
        scene: snapScene(two),
        settings: settings(['half-way', 'on face'], { halfWay }),
      });
    expect(off(find('part'), middle)).toBeLessThan(1e-6);
    // From −4 in front to 30 + 6 behind: the middle is 16 behind.
    const deep = dot(subtract(find('all')!.point, middle), direction);
    expect(deep).toBeCloseTo(-16, 6);
  });

  test('the work plane, and the grid on it', () => {
    if (camera.state.altitude === 0) return;
    const point: Vec3 = [33.3, 7.7, 0];
    const pointer = over(camera, point, 0);
    const scene = snapScene([]);
    const plane = resolveSnap({ pointer, camera, scene, settings: settings(['on plane']) });
    expect(off(plane, point)).toBeLessThan(1e-9);
    expect(plane!.point[2]).toBe(0);
  });
});

describe('what may be caught', () => {
  const camera = looking(0, 90);
  const corner: Vec3 = [0, 0, 10];
  const both = snapScene([block('a'), block('b', [0, 0, -20])]);
  const query = { pointer: over(camera, corner), camera, scene: both, settings: settings(['endpoint']) };

  test('a part that may not be caught still hides what is behind it', () => {
    expect(resolveSnap(query)?.part).toBe('a');
    expect(
      resolveSnap({ ...query, may: (part) => part !== 'a', pointer: over(camera, corner, -3) }),
    ).toBeNull();
    const through = { ...query, settings: settings(['endpoint'], { seeThrough: true }) };
    expect(resolveSnap({ ...through, may: (part) => part !== 'a' })?.part).toBe('b');
  });
  test('a part that is left out hides nothing', () => {
    expect(resolveSnap({ ...query, without: new Set(['a']) })?.part).toBe('b');
  });
});

describe('everything within reach', () => {
  test('comes with the meant one first, and nothing twice', () => {
    const camera = looking(45, 35.26);
    const corner: Vec3 = [40, 0, 10];
    const query = {
      pointer: over(camera, corner, 4),
      camera,
      scene: snapScene([{ ...block(), box: { min: [0, 0, 0], max: [40, 20, 10] }, datum: corner }]),
      settings: settings(SNAP_KINDS, { reachPx: 12 }),
    } satisfies SnapQuery;
    const all = snapsWithin(query);
    expect(all[0]).toEqual(resolveSnap(query));
    expect(all[0]!.kind).toBe('endpoint');
    expect(all.map(({ kind }) => kind)).toContain('on edge');
    expect(all.length).toBeGreaterThan(2);
    const places = all.map(({ point, part }) => `${point.map((n) => n.toFixed(9)).join()} ${part}`);
    expect(new Set(places).size).toBe(places.length);
  });
});

describe('guides from what is touched', () => {
  const own = block();
  const snap = (kind: SnapKind, point: Vec3, feature: string) => ({ kind, point, feature, part: 'a' });

  test('a corner offers the axes, of which its edges are three', () => {
    const guides = guidesFrom(snap('endpoint', [40, 0, 10], 'top&front&right'), own, NO_TURN);
    expect(guides.map(({ words }) => words)).toEqual(['X', 'Y', 'Z']);
  });
  test('an edge offers itself and what is square to it in its faces; a face its normal', () => {
    const turned = block('a', [0, 0, 0], [0, 0, 30]);
    const onEdge = { ...snap('on edge', carry(turned.pose, [12, 0, 10]), 'top&front') };
    const guides = guidesFrom(onEdge, turned, NO_TURN);
    expect(guides.map(({ words }) => words)).toEqual(['X', 'Y', 'Z', 'edge', 'square to the edge']);
    expect(distance(guides[3]!.direction, unit([Math.sqrt(3), 1, 0]))).toBeLessThan(1e-9);
    const face = guidesFrom(snap('on face', carry(turned.pose, [12, 0, 5]), 'front'), turned, NO_TURN);
    expect(distance(face.at(-1)!.direction, unit([1, -Math.sqrt(3), 0]))).toBeLessThan(1e-9);
  });
  test('parallels run through the from-point; six are kept', () => {
    const turned = block('a', [0, 0, 0], [0, 0, 30]);
    const edge = snap('on edge', carry(turned.pose, [12, 0, 10]), 'top&front');
    const touched = { snap: edge, guides: guidesFrom(edge, turned, NO_TURN) };
    expect(parallelsThrough([1, 2, 3], [touched])).toEqual([
      { from: [1, 2, 3], direction: touched.guides[3]!.direction, words: 'edge', isParallel: true },
    ]);
    const many = Array.from({ length: 8 }, (_, i) => ({
      snap: { ...edge, point: [i, 0, 0] as Vec3 },
      guides: [],
    }));
    expect(many.reduce(touch, [] as ReturnType<typeof touch>).map((t) => t.snap.point[0])).toEqual([
      2, 3, 4, 5, 6, 7,
    ]);
  });
});

describe('which way out', () => {
  test('of a face, an edge and a corner of a box', () => {
    const own = block();
    const at = (point: Vec3, feature: string) => landingNormal(own, { point, feature })!;
    expect(at([20, 10, 10], 'top').normal).toEqual([0, 0, 1]);
    const edge = at([20, 0, 10], 'top&front');
    expect(distance(edge.normal, unit([0, -1, 1]))).toBeLessThan(1e-12);
    expect(edge.words).toContain('2 faces');
    expect(distance(at([40, 0, 10], 'top&front&right').normal, unit([1, -1, 1]))).toBeLessThan(1e-12);
  });
  test('of a ball: away from its centre', () => {
    const points = [
      [0, 0, 10],
      [10, 0, 0],
      [0, 10, 0],
    ];
    const ball = snapShape({
      ...boxShape([0, 0, 0]),
      points: new Float64Array(),
      pointKind: Uint8Array.from([]),
      pointName: new Uint32Array(),
      faceKind: Uint8Array.of(FACE_SPHERE),
      faces: Float64Array.of(0, 0, 0, 0, 0, 0, 10),
      faceName: Uint32Array.of(0),
      names: ['side'],
      positions: Float32Array.from(points.flat()),
      triangles: Uint32Array.of(0, 1, 2),
      faceOfTriangle: Uint32Array.of(0),
      chordMm: 3,
    });
    expect(POINT_KINDS).toContain('centre');
    const point = unit([1, 2, 2]).map((n) => 10 * n) as unknown as Vec3;
    const landing = landingNormal(instance(ball), { point, feature: 'side' })!;
    expect(distance(landing.normal, unit([1, 2, 2]))).toBeLessThan(1e-12);
    expect(landing.words).toBe('normal of side');
  });
});
