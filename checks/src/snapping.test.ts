/**
 * What the snaps return against outside values: an independent ray caster (three-mesh-bvh, MIT licence) says what is
 * hidden, and closed formulas where points lie.
 */
import {
  carry,
  cameraOf,
  distance,
  dot,
  datumInPart,
  project,
  rayThrough,
  resolveSnap,
  SNAP_KINDS,
  snapScene,
  subtract,
  visibleParts,
  worldFromPart,
  type Camera,
  type KadrelDocument,
  type Snap,
  type SnapInstance,
  type SnapKind,
  type Vec3,
} from '@kadrel/core';
import { loadKernel } from '@kadrel/kernel/node';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { built, idOf, numbers, type Statement, trials } from '@kadrel/testing';

const STATEMENTS: readonly Statement[] = [
  ['box', { as: 'Plate', size: [120, 80, 10] }],
  ['cylinder', { as: 'Drill', diameter: 20, height: 30, at: [30, 40, -10] }],
  ['subtract', { as: 'Bored', from: 'Plate', parts: ['Drill'] }],
  ['sphere', { as: 'Ball', diameter: 40, at: [90, 40, 30] }],
  ['cylinder', { as: 'Post', diameter: 16, height: 70, at: [60, 60, 10] }],
  ['box', { as: 'Leaning', size: [20, 20, 60], at: [10, 5, 10] }],
  ['turn', { parts: ['Leaning'], angle: 25, about: 'x' }],
  ['box', { as: 'Bar', size: [6, 6, 60], at: [70, 10, -20] }],
  ['turn', { parts: ['Bar'], angle: 15, about: 'x' }],
  ['turn', { parts: ['Bar'], angle: 10, about: 'y' }],
  ['cylinder', { as: 'Oval', diameter: 24, height: 20, at: [150, 20, 0] }],
  ['resize', { parts: ['Oval'], by: [1.5, 1, 1] }],
];

let document: KadrelDocument;
let instances: SnapInstance[];
let tree: MeshBVH;
const views: readonly Camera[] = [
  [0, 90, 'parallel'],
  [0, 0, 'parallel'],
  [45, 35.264389682754654, 'parallel'],
  [30, 25, 'perspective'],
  [200, 50, 'perspective'],
].map(([bearing, altitude, projection]) =>
  cameraOf(
    {
      target: [70, 40, 20],
      bearing: bearing as number,
      altitude: altitude as number,
      height: 190,
      projection: projection as 'parallel',
    },
    800,
    600,
  ),
);

beforeAll(async () => {
  document = built(STATEMENTS);
  const kernel = await loadKernel();
  instances = visibleParts(document).map((part) => {
    const { measures, snaps } = kernel.facts(document, part.id);
    const datum = datumInPart(part, () => measures.box)!;
    return {
      part: part.id,
      pose: worldFromPart(document, part.id),
      shape: snaps,
      box: measures.box,
      datum,
      mass: measures.centroid,
    };
  });
  const corners: number[] = [];
  for (const { shape, pose } of instances)
    for (const corner of shape.triangles) {
      const own: Vec3 = [0, 1, 2].map((i) => shape.positions[3 * corner + i]!) as unknown as Vec3;
      corners.push(...carry(pose, own));
    }
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(corners), 3));
  tree = new MeshBVH(geometry);
}, 60_000);

const settings = (kinds: readonly SnapKind[], seeThrough = false) => ({
  kinds: new Set(kinds),
  seeThrough,
  reachPx: 11,
  gridStep: 5,
  plane: { point: [0, 0, 0] as Vec3, normal: [0, 0, 1] as Vec3 },
  divide: { into: 3 },
});
/** A pixel near a point of some part: most of a random picture is empty ground. */
function aim(random: () => number, camera: Camera): readonly [number, number] {
  const { shape, pose } = instances[Math.floor(random() * instances.length)]!;
  const { curves, curveKind, positions } = shape;
  const vertex = Math.floor((random() * positions.length) / 3);
  const c = Math.floor(random() * curveKind.length);
  const onEdge: Vec3 = [curves[12 * c]!, curves[12 * c + 1]!, curves[12 * c + 2]!];
  const own: Vec3 =
    random() < 0.3 && curveKind[c] === 0
      ? onEdge
      : [positions[3 * vertex]!, positions[3 * vertex + 1]!, positions[3 * vertex + 2]!];
  const [x, y] = project(camera, carry(pose, own));
  return [x + 24 * (random() - 0.5), y + 24 * (random() - 0.5)];
}

/** A line of sight in the plane of a face grazes it; a hair beside it tells whether anything is in the way. */
function isSeenBeside(camera: Camera, point: Vec3, far: number): boolean {
  return [
    [1, 1],
    [1, -1],
    [-1, 1],
    [-1, -1],
  ].some(([r, u]) => {
    const hair: Vec3 = [0, 1, 2].map(
      (i) => point[i]! + HAIR_MM * (r! * camera.right[i]! + u! * camera.up[i]!),
    ) as unknown as Vec3;
    const [x, y] = project(camera, hair);
    const ray = rayThrough(camera, x, y);
    const hit = tree.raycastFirst(
      new Ray(new Vector3(...ray.from), new Vector3(...ray.direction)),
      DoubleSide,
    );
    return !hit || hit.distance >= far;
  });
}
const HAIR_MM = 0.02;

/** Kinds that are marks inside or beside solids, or that a seen rim stands for. */
const NOT_SEEN_ITSELF: ReadonlySet<SnapKind> = new Set<SnapKind>([
  'centre',
  'part centre',
  'mass centre',
  'datum',
  'half-way',
  'grid',
  'on plane',
]);
const SEEN = SNAP_KINDS.filter((kind) => !NOT_SEEN_ITSELF.has(kind));

test('nothing hidden is ever returned with see-through off: looks by the thousand against three-mesh-bvh', () => {
  const random = numbers(11);
  const scene = snapScene(instances);
  const chord = Math.max(...instances.map(({ shape }) => shape.chordMm));
  let looks = 0;
  let caught = 0;
  const faults: string[] = [];
  for (; looks < trials(10_000); looks++) {
    const camera = views[looks % views.length]!;
    const pointer = looks % 4 === 0 ? ([random() * 800, random() * 600] as const) : aim(random, camera);
    // Every kind comes to be the only one now and then; most looks ask for all.
    const kinds = looks % 3 === 0 ? [SEEN[Math.floor(random() * SEEN.length)]!] : SEEN;
    const from: Vec3 = [random() * 200 - 30, random() * 140 - 30, random() * 60];
    const snap = resolveSnap({ pointer, camera, scene, settings: settings(kinds), from });
    if (!snap) continue;
    caught += 1;
    const [x, y, depth] = project(camera, snap.point);
    const ray = rayThrough(camera, x, y);
    const hit = tree.raycastFirst(
      new Ray(new Vector3(...ray.from), new Vector3(...ray.direction)),
      DoubleSide,
    );
    const nearest = hit?.distance ?? Infinity;
    const far = distance(ray.from, snap.point);
    // The caster is in single precision; 1.5 pixels and a few chords are what the snaps call the same depth.
    const slack = Math.max(0.5 * (depth / 400 + 1), 5 * chord) + far * 2e-7;
    if (nearest < far - slack && !isSeenBeside(camera, snap.point, far - slack))
      faults.push(`${snap.kind} at ${snap.point.join()}: ${far - nearest} behind`);
  }
  expect(faults).toEqual([]);
  expect(caught).toBeGreaterThan(0.3 * looks);
});

test('what is caught lies on its surface or edge to 1e-9 mm', () => {
  const random = numbers(23);
  const scene = snapScene(instances);
  const ball = idOf(document, 'Ball');
  const post = idOf(document, 'Post');
  const oval = idOf(document, 'Oval');
  const pose = (id: string) => worldFromPart(document, id);
  const kinds: SnapKind[] = [
    'on edge',
    'on face',
    'quadrant',
    'tangent',
    'perpendicular',
    'intersection',
    'divide',
  ];
  const found = new Map<SnapKind, number>();
  const check = (snap: Snap) => {
    found.set(snap.kind, (found.get(snap.kind) ?? 0) + 1);
    const [x, y, z] = snap.point;
    if (snap.part === ball && snap.kind === 'on face')
      expect(Math.hypot(x - 90, y - 40, z - 30)).toBeCloseTo(20, 9);
    if (snap.part === post && snap.feature?.includes('side'))
      expect(Math.hypot(x - 60, y - 60)).toBeCloseTo(8, 9);
    if (snap.part === oval && snap.kind !== 'on face') {
      // The rim of an elliptic cylinder: (u/18)² + (v/12)² = 1 in its own axes.
      const own = subtract(snap.point, pose(oval).shift);
      expect((own[0] / 18) ** 2 + (own[1] / 12) ** 2).toBeCloseTo(1, 9);
    }
  };
  for (let i = 0; i < trials(6000); i++) {
    const camera = views[i % views.length]!;
    const pointer = aim(random, camera);
    const kind = kinds[i % kinds.length]!;
    const from: Vec3 = [random() * 200 - 30, random() * 140 - 30, random() * 60];
    const snap = resolveSnap({ pointer, camera, scene, settings: settings([kind], true), from });
    if (snap) check(snap);
    if (snap?.kind === 'perpendicular' || snap?.kind === 'tangent') {
      // Tangent: the way to the from-point is square to the radius; on a circle of the post, say.
      if (snap.kind === 'tangent' && snap.part === post) {
        const radius = subtract(snap.point, [60, 60, snap.point[2]]);
        expect(dot(radius, subtract(from, snap.point))).toBeCloseTo(0, 6);
      }
    }
  }
  for (const kind of kinds) expect([kind, (found.get(kind) ?? 0) > 0]).toEqual([kind, true]);
});

test('nothing nearer of an allowed kind exists: corners and quadrants against a scan of all of them', () => {
  const random = numbers(31);
  const scene = snapScene(instances);
  for (let i = 0; i < trials(2000); i++) {
    const camera = views[i % views.length]!;
    const pointer = [random() * 800, random() * 600] as const;
    const kind = i % 2 === 0 ? 'endpoint' : 'quadrant';
    const index = kind === 'endpoint' ? 0 : 3;
    const snap = resolveSnap({ pointer, camera, scene, settings: settings([kind], true) });
    let nearest = Infinity;
    for (const { shape, pose } of instances)
      shape.pointKind.forEach((one, p) => {
        if (one !== index) return;
        const own: Vec3 = [0, 1, 2].map((k) => shape.points[3 * p + k]!) as unknown as Vec3;
        const [x, y] = project(camera, carry(pose, own));
        nearest = Math.min(nearest, Math.hypot(x - pointer[0], y - pointer[1]));
      });
    if (!snap) expect(nearest).toBeGreaterThan(11 - 1e-9);
    else {
      const [x, y] = project(camera, snap.point);
      expect(Math.hypot(x - pointer[0], y - pointer[1])).toBeCloseTo(nearest, 6);
    }
  }
});
