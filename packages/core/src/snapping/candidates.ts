/** The points within reach of the pointer, kind by kind. Only the trees of boxes are walked. */
import { MEETING } from '../document/naming.ts';
import { searchBvh } from '../space/bvh.ts';
import { boxPoint, type BoxPoint } from '../space/box.ts';
import { mmPerPixelAt, project, type Camera } from '../space/camera.ts';
import { carry } from '../space/pose.ts';
import { nearestOnLine, type Ray } from '../space/plane.ts';
import { along, distance, dot, length, subtract, type Vec3 } from '../space/vector.ts';
import { endless, feetFrom, lengthOf, nearestToRay, tangentsFrom, worldCurve, type Curve } from './curves.ts';
import type { Guide } from './guides.ts';
import { crossInView, isOnFace, meetFace, meetInSpace, meetPlane } from './meetings.ts';
import { localRay, type SurfaceHit } from './raycast.ts';
import type { SnapInstance, SnapScene } from './scene.ts';
import { FACE_CYLINDER, FACE_PLANE, FACE_SPHERE, FACE_STRIDE, POINT_KINDS, type SnapKind } from './shape.ts';
import type { Snap, SnapQuery } from './snap.ts';

export interface Candidate extends Snap {
  readonly offPx: number;
  /** What must not be hidden: the point, or the rim that offers a centre; null for a mark that nothing hides. */
  readonly seenAt: Vec3 | null;
  readonly chordMm: number;
  /** Stands inside its own part, which therefore does not hide it. */
  readonly isInside?: boolean;
  readonly rank: number;
  readonly depth: number;
}
type Offered = Omit<Candidate, 'rank' | 'depth'>;
export type Offer = (candidate: Offered, rank?: number) => void;

/** Smaller is preferred. Points come before lines and lines before faces; the grid and the plane come last. */
export const RANK: Readonly<Record<SnapKind, number>> = {
  endpoint: 0,
  midpoint: 0,
  centre: 0,
  quadrant: 0,
  'face centre': 0,
  pin: 0,
  intersection: 0,
  datum: 0,
  origin: 0,
  'part centre': 0,
  'mass centre': 0,
  perpendicular: 0.2,
  tangent: 0.2,
  divide: 0.2,
  'box point': 0.4,
  apparent: 0.6,
  guide: 1.5,
  parallel: 1.5,
  'on edge': 2,
  'half-way': 2.5,
  'on face': 3,
  grid: 4,
  'on plane': 5,
};
/** The centre of a circle whose rim is under the pointer: after the points that are themselves under it. */
const RANK_OF_RIM_CENTRE = 1;
/** Edges near the pointer that are tried against faces. */
const MOST_PIERCING = 6;
/** Curves near the pointer that are tried against one another. */
const MOST_CURVES = 6;
/** Reach of a pair of guides whose crossing is looked for, in reaches: the crossing may lie beside both. */
const CROSSING_REACHES = 3;

/** How far a point is from the pointer in the picture, pixels. As `project`, without its arrays: it is asked the most. */
export function pixelsOff(camera: Camera, point: Vec3, pointer: readonly [number, number]): number {
  const { eye, right, up, toward, width, pixelHeight } = camera;
  const x = point[0] - eye[0];
  const y = point[1] - eye[1];
  const z = point[2] - eye[2];
  const depth = -(x * toward[0] + y * toward[1] + z * toward[2]);
  if (depth <= 0 && camera.state.projection === 'perspective') return Infinity;
  const size = mmPerPixelAt(camera, depth);
  const dx = width / 2 + (x * right[0] + y * right[1] + z * right[2]) / size - pointer[0];
  const dy = pixelHeight / 2 - (x * up[0] + y * up[1] + z * up[2]) / size - pointer[1];
  return Math.sqrt(dx * dx + dy * dy);
}

/** Tests whether a box comes within reach of the ray: the distance of its middle less half its diagonal. */
function coneTest(ray: Ray, camera: Camera, reachPx: number): (b: Float64Array, at: number) => boolean {
  const [ox, oy, oz] = ray.from;
  const [dx, dy, dz] = ray.direction;
  const perspective = camera.state.projection === 'perspective';
  const reachAtOne = reachPx * (perspective ? mmPerPixelAt(camera, 1) : mmPerPixelAt(camera, 0));
  return (b, at) => {
    const [x, y, z] = [
      (b[at]! + b[at + 3]!) / 2 - ox,
      (b[at + 1]! + b[at + 4]!) / 2 - oy,
      (b[at + 2]! + b[at + 5]!) / 2 - oz,
    ];
    const [w, h, d] = [b[at + 3]! - b[at]!, b[at + 4]! - b[at + 1]!, b[at + 5]! - b[at + 2]!];
    const radius = Math.sqrt(w * w + h * h + d * d) / 2;
    const deep = x * dx + y * dy + z * dz;
    if (deep < -radius) return false;
    // The pixel's size grows with depth; a ray off the middle of the picture sees it a little larger, hence the half.
    const reach = perspective ? reachAtOne * (deep + radius) * 1.5 : reachAtOne;
    const most = radius + reach;
    return x * x + y * y + z * z - deep * deep <= most * most;
  };
}

/** The same for a single point of the ray's frame: lets through what is within reach, and a little more. */
function pointTest(ray: Ray, camera: Camera, reachPx: number): (x: number, y: number, z: number) => boolean {
  const [ox, oy, oz] = ray.from;
  const [dx, dy, dz] = ray.direction;
  const perspective = camera.state.projection === 'perspective';
  const reachAtOne = reachPx * (perspective ? mmPerPixelAt(camera, 1) : mmPerPixelAt(camera, 0));
  return (x, y, z) => {
    const px = x - ox;
    const py = y - oy;
    const pz = z - oz;
    const deep = px * dx + py * dy + pz * dz;
    if (deep < 0) return false;
    const reach = perspective ? reachAtOne * deep * 1.5 : reachAtOne * PARALLEL_SLACK;
    return px * px + py * py + pz * pz - deep * deep <= reach * reach + NOISE_MM2;
  };
}
const PARALLEL_SLACK = 1.01;
/** A parallel ray begins a kilometre and more away; the difference of the squares keeps this much noise, mm². */
const NOISE_MM2 = 1e-2;

/** Instances within reach of the pointer that may be caught. */
export function instancesNear(scene: SnapScene, ray: Ray, query: SnapQuery): SnapInstance[] {
  const found: SnapInstance[] = [];
  searchBvh(scene.tree, coneTest(ray, query.camera, query.settings.reachPx), (i) => {
    const instance = scene.instances[i]!;
    if (isCatchable(instance.part, query)) found.push(instance);
  });
  return found;
}

export const isCatchable = (part: string, { without, may }: SnapQuery): boolean =>
  !without?.has(part) && (may?.(part) ?? true);

/** Corners, middles, centres, quadrants: what the kernel packed. */
export function packedPoints(instance: SnapInstance, ray: Ray, query: SnapQuery, offer: Offer): void {
  const { shape, pose, part } = instance;
  const { camera, settings, pointer } = query;
  if (!POINT_KINDS.some((kind) => settings.kinds.has(kind))) return;
  const local = localRay(instance, ray);
  const isNear = pointTest(local, camera, settings.reachPx);
  searchBvh(shape.pointTree, coneTest(local, camera, settings.reachPx), (i) => {
    const kind = POINT_KINDS[shape.pointKind[i]!]!;
    if (!settings.kinds.has(kind)) return;
    if (!isNear(shape.points[3 * i]!, shape.points[3 * i + 1]!, shape.points[3 * i + 2]!)) return;
    const point = carry(pose, [shape.points[3 * i]!, shape.points[3 * i + 1]!, shape.points[3 * i + 2]!]);
    const offPx = pixelsOff(camera, point, pointer);
    if (offPx > settings.reachPx) return;
    const feature = shape.names[shape.pointName[i]!]!;
    offer({
      point,
      kind,
      part,
      feature,
      offPx,
      seenAt: point,
      chordMm: shape.chordMm,
      // The centre of a ball: it bears the name of one face, where those of rims bear two.
      isInside: kind === 'centre' && !feature.includes(MEETING),
    });
  });
}

const STEPS = [-1, 0, 1] as const;
const SIDE_WORDS = [
  ['left', '', 'right'],
  ['front', '', 'back'],
  ['bottom', '', 'top'],
] as const;
const boxPointWords = (at: BoxPoint): string =>
  [2, 1, 0].flatMap((axis) => SIDE_WORDS[axis]![at[axis]! + 1] || []).join(' ');
/** All but the middle, with what they are called. */
const BOX_POINTS: readonly (readonly [at: BoxPoint, words: string])[] = STEPS.flatMap((x) =>
  STEPS.flatMap((y) => STEPS.map((z): BoxPoint => [x, y, z])),
)
  .filter((at) => at.some((n) => n !== 0))
  .map((at) => [at, boxPointWords(at)]);

/** The datum, the box points and the centres of a part: points that it has without showing them. */
export function partPoints(instance: SnapInstance, ray: Ray, query: SnapQuery, offer: Offer): void {
  const { pose, part, box, datum, mass, shape } = instance;
  const { kinds, reachPx } = query.settings;
  const isNear = pointTest(localRay(instance, ray), query.camera, reachPx);
  const put = (own: Vec3, kind: SnapKind, isInside: boolean, words?: string) => {
    if (!isNear(own[0], own[1], own[2])) return;
    const point = carry(pose, own);
    const offPx = pixelsOff(query.camera, point, query.pointer);
    if (offPx > reachPx) return;
    offer({
      point,
      kind,
      part,
      offPx,
      seenAt: point,
      chordMm: shape.chordMm,
      isInside,
      ...(words === undefined ? {} : { words }),
    });
  };
  if (datum && kinds.has('datum')) put(datum, 'datum', true);
  if (mass && kinds.has('mass centre')) put(mass, 'mass centre', true);
  if (!box) return;
  if (kinds.has('part centre')) put(boxPoint(box, [0, 0, 0]), 'part centre', true);
  if (!kinds.has('box point')) return;
  for (const [at, words] of BOX_POINTS) put(boxPoint(box, at), 'box point', false, words);
}

/** Pins and the origin of the world: marks on the view. */
export function marks(query: SnapQuery, offer: Offer): void {
  const { kinds, reachPx } = query.settings;
  const put = (point: Vec3, more: { kind: SnapKind; pin?: string; seenAt: Vec3 | null }) => {
    const offPx = pixelsOff(query.camera, point, query.pointer);
    if (offPx <= reachPx) offer({ point, offPx, chordMm: 0, ...more });
  };
  if (kinds.has('pin'))
    for (const { name, at } of query.pins ?? []) put(at, { kind: 'pin', pin: name, seenAt: null });
  if (kinds.has('origin')) put([0, 0, 0], { kind: 'origin', seenAt: [0, 0, 0] });
}

/** A curve within reach of the pointer, an edge or a guide, and its parameter nearest to the line of sight. */
export interface NearCurve {
  readonly curve: Curve;
  readonly nearest: number;
  readonly offPx: number;
  readonly instance?: SnapInstance;
  readonly feature?: string;
  readonly guide?: Guide;
}

const CURVE_KINDS: readonly SnapKind[] = [
  'on edge',
  'centre',
  'intersection',
  'apparent',
  'divide',
  'perpendicular',
  'tangent',
];

/** The edges of an instance within reach. */
export function edgesNear(instance: SnapInstance, ray: Ray, query: SnapQuery, found: NearCurve[]): void {
  const { shape } = instance;
  const { camera, settings, pointer } = query;
  if (!CURVE_KINDS.some((kind) => settings.kinds.has(kind))) return;
  searchBvh(shape.curveTree, coneTest(localRay(instance, ray), camera, settings.reachPx), (c) => {
    const curve = worldCurve(instance, c);
    const nearest = nearestToRay(curve, ray);
    const offPx = pixelsOff(camera, curve.at(nearest), pointer);
    if (offPx <= settings.reachPx)
      found.push({ curve, nearest, offPx, instance, feature: shape.names[shape.curveName[c]!]! });
  });
}

/** The guides within reach; a pair that crosses may be a little farther off. */
export function guidesNear(ray: Ray, query: SnapQuery): NearCurve[] {
  if (!query.settings.kinds.has('guide') && !query.settings.kinds.has('parallel')) return [];
  return (query.guides ?? []).flatMap((guide): NearCurve[] => {
    if (!query.settings.kinds.has(guide.isParallel ? 'parallel' : 'guide')) return [];
    const curve = endless(guide.from, guide.direction);
    const nearest = nearestOnLine(guide.from, guide.direction, ray);
    if (nearest === undefined) return [];
    const offPx = pixelsOff(query.camera, curve.at(nearest), query.pointer);
    return offPx <= CROSSING_REACHES * query.settings.reachPx ? [{ curve, nearest, offPx, guide }] : [];
  });
}

const source = ({ instance, feature }: NearCurve) => ({
  ...(instance ? { part: instance.part } : {}),
  ...(feature === undefined ? {} : { feature }),
  chordMm: instance?.shape.chordMm ?? 0,
});

/** What single curves offer: their nearest point, centre, divisions, and the feet and tangents from the from-point. */
export function curvePoints(near: readonly NearCurve[], query: SnapQuery, offer: Offer): void {
  const { kinds, reachPx, divide } = query.settings;
  for (const one of near) {
    const { curve, nearest, offPx, guide } = one;
    const seenAt = curve.at(nearest);
    if (guide) {
      if (offPx <= reachPx)
        offer({
          point: seenAt,
          kind: guide.isParallel ? 'parallel' : 'guide',
          words: `along ${guide.words}`,
          guide,
          offPx,
          seenAt: null,
          chordMm: 0,
        });
      continue;
    }
    const put = (t: number, kind: SnapKind, words?: string) => {
      const point = curve.at(t);
      const off = pixelsOff(query.camera, point, query.pointer);
      if (off <= reachPx)
        offer({
          ...source(one),
          point,
          kind,
          offPx: off,
          seenAt: point,
          ...(words === undefined ? {} : { words }),
        });
    };
    if (kinds.has('on edge')) offer({ ...source(one), point: seenAt, kind: 'on edge', offPx, seenAt });
    if (kinds.has('centre') && curve.round)
      offer({ ...source(one), point: curve.round.centre, kind: 'centre', offPx, seenAt }, RANK_OF_RIM_CENTRE);
    if (kinds.has('divide') && divide)
      for (const [t, words] of divisions(curve, nearest, divide)) put(t, 'divide', words);
    if (!query.from) continue;
    if (kinds.has('perpendicular'))
      for (const t of feetFrom(curve, query.from))
        if (distance(curve.at(t), query.from) > TOUCHING_MM) put(t, 'perpendicular');
    if (kinds.has('tangent')) for (const t of tangentsFrom(curve, query.from)) put(t, 'tangent');
  }
}
/** A foot nearer than this to the from-point is the from-point itself, mm. */
const TOUCHING_MM = 1e-9;

function divisions(curve: Curve, nearest: number, divide: NonNullable<SnapQuery['settings']['divide']>) {
  const size = lengthOf(curve);
  if (size === undefined || size === 0) return [];
  const span = curve.last - curve.first;
  if ('at' in divide) {
    if (divide.at > size || divide.at <= 0) return [];
    const step = (divide.at / size) * span;
    const fromFirst = nearest - curve.first <= curve.last - nearest;
    return [[fromFirst ? curve.first + step : curve.last - step, 'from the near end']] as const;
  }
  const k = Math.round(((nearest - curve.first) / span) * divide.into);
  // The ends of an open edge are endpoints, and no divisions.
  if (!curve.isClosed && (k <= 0 || k >= divide.into)) return [];
  return [[curve.first + (span * k) / divide.into, `${k} of ${divide.into}`]] as const;
}

/** Where curves meet one another, the faces of other parts, and the work plane. */
export function meetings(near: readonly NearCurve[], query: SnapQuery, offer: Offer): void {
  const { camera, settings, scene } = query;
  const [inSpace, inView] = [settings.kinds.has('intersection'), settings.kinds.has('apparent')];
  const edges = near
    .filter(({ guide }) => !guide)
    .sort((a, b) => a.offPx - b.offPx)
    .slice(0, MOST_CURVES);
  const guides = near
    .filter(({ guide }) => guide)
    .sort((a, b) => a.offPx - b.offPx)
    .slice(0, MOST_CURVES);
  const all = [...edges, ...guides];
  const put = (point: Vec3, one: NearCurve, other: NearCurve | undefined, kind: SnapKind, words: string) => {
    const offPx = pixelsOff(camera, point, query.pointer);
    if (offPx > settings.reachPx) return;
    const owner = one.instance ? one : (other ?? one);
    const meeting = [one.guide, other?.guide].filter((guide) => guide !== undefined);
    const isMarked = meeting.length > 0;
    offer({
      ...source(owner),
      point,
      kind,
      words,
      offPx,
      seenAt: isMarked ? null : point,
      ...(isMarked ? { meeting } : {}),
    });
  };
  for (let i = 0; i < all.length; i++)
    for (let j = i + 1; j < all.length; j++) {
      const [a, b] = [all[i]!, all[j]!];
      const isGuide = a.guide !== undefined || b.guide !== undefined;
      if (!isGuide && !inSpace && !inView) continue;
      const meeting = meetInSpace(a.curve, b.curve, a.nearest, b.nearest);
      // Edges of one part that meet do so in its corners.
      if (meeting && (isGuide || (inSpace && a.instance !== b.instance)))
        put(meeting, a, b, 'intersection', meetingWords(a, b));
      if (meeting || !(inView || (a.guide && b.guide))) continue;
      const crossing = crossInView(a.curve, b.curve, a.nearest, b.nearest, camera);
      if (crossing) put(crossing, a, b, 'apparent', `${meetingWords(a, b)}, only in this view`);
    }
  if (inSpace)
    for (const one of edges.slice(0, MOST_PIERCING)) {
      const point = meetPlane(one.curve, one.nearest, settings.plane);
      if (point) put(point, one, undefined, 'intersection', 'edge and work plane');
      for (const { instance, face } of facesRound(one, scene, query)) {
        const pierced = meetFace(one.curve, one.nearest, instance, face);
        if (pierced) put(pierced, one, undefined, 'intersection', 'edge and face');
      }
    }
}

const meetingWords = (a: NearCurve, b: NearCurve): string =>
  a.guide && b.guide ? 'two guides' : a.guide || b.guide ? 'edge and guide' : 'edge and edge';

/** Faces of other parts with a facet near the piece of a curve that is under the pointer. */
function facesRound({ curve, nearest, instance: own }: NearCurve, scene: SnapScene, query: SnapQuery) {
  const point = curve.at(nearest);
  const [, , depth] = project(query.camera, point);
  const size = mmPerPixelAt(query.camera, depth) * query.settings.reachPx;
  // Along the edge as far as the reach seen at a slant; the meeting itself is tested by pixels.
  const reach = size * SLANT;
  const found: { instance: SnapInstance; face: number }[] = [];
  const isNear = (b: Float64Array, at: number, p: Vec3) =>
    [0, 1, 2].every((axis) => p[axis]! >= b[at + axis]! - reach && p[axis]! <= b[at + 3 + axis]! + reach);
  searchBvh(
    scene.tree,
    (b, at) => isNear(b, at, point),
    (i) => {
      const instance = scene.instances[i]!;
      if (instance === own || !isCatchable(instance.part, query)) return;
      const local = localRay(instance, { from: point, direction: [0, 0, 1] }).from;
      const faces = new Set<number>();
      searchBvh(
        instance.shape.triangleTree,
        (b, at) => isNear(b, at, local),
        (t) => faces.add(instance.shape.faceOfTriangle[t]!),
      );
      for (const face of faces) if (found.length < MOST_FACES) found.push({ instance, face });
    },
  );
  return found;
}
const SLANT = 2;
const MOST_FACES = 16;

/** The foot of the perpendicular from the from-point on the face under the pointer. */
export function footOnFace(surface: SurfaceHit, query: SnapQuery, offer: Offer): void {
  const { from, camera, pointer, settings } = query;
  if (!from || !settings.kinds.has('perpendicular')) return;
  const { instance, face } = surface;
  const { shape, part } = instance;
  const foot = footOf(instance, face, from);
  if (!foot || distance(foot, from) < TOUCHING_MM || !isOnFace(instance, face, foot)) return;
  const offPx = pixelsOff(camera, foot, pointer);
  if (offPx > settings.reachPx) return;
  const feature = shape.names[shape.faceName[face]!]!;
  offer({ point: foot, kind: 'perpendicular', part, feature, offPx, seenAt: foot, chordMm: shape.chordMm });
}

function footOf({ shape, pose }: SnapInstance, face: number, from: Vec3): Vec3 | undefined {
  const data = FACE_STRIDE * face;
  const f = shape.faces;
  const point = carry(pose, [f[data]!, f[data + 1]!, f[data + 2]!]);
  const tip = carry(pose, [
    f[data]! + f[data + 3]!,
    f[data + 1]! + f[data + 4]!,
    f[data + 2]! + f[data + 5]!,
  ]);
  const direction = subtract(tip, point);
  const offset = subtract(from, point);
  const height = dot(offset, direction);
  const radius = f[data + 6]!;
  switch (shape.faceKind[face]) {
    case FACE_PLANE:
      return along(from, direction, -height);
    case FACE_CYLINDER: {
      const onAxis = along(point, direction, height);
      const radial = subtract(from, onAxis);
      return length(radial) < TOUCHING_MM ? undefined : along(onAxis, radial, radius / length(radial));
    }
    case FACE_SPHERE:
      return length(offset) < TOUCHING_MM ? undefined : along(point, offset, radius / length(offset));
    default:
      return undefined;
  }
}

/** Of a guide's crossing with the line of sight: how far along it, mm; what a typed number takes the place of. */
export const alongGuide = ({ from, direction }: Guide, point: Vec3): number =>
  dot(subtract(point, from), direction);
