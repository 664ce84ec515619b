/** What edges and guides within reach of the pointer offer: their own points, feet and tangents, and where they meet. */
import { searchBvh } from '../space/bvh.ts';
import { mmPerPixelAt, project } from '../space/camera.ts';
import { carry } from '../space/pose.ts';
import { nearestOnLine, type Ray } from '../space/plane.ts';
import { along, distance, dot, length, subtract, type Vec3 } from '../space/vector.ts';
import { coneTest, isCatchable, pixelsOff, type Offer } from './candidates.ts';
import { endless, feetFrom, lengthOf, nearestToRay, tangentsFrom, worldCurve, type Curve } from './curves.ts';
import type { Guide } from './guides.ts';
import { crossInView, isOnFace, meetFace, meetInSpace, meetPlane } from './meetings.ts';
import { localRay, type SurfaceHit } from './raycast.ts';
import { whose, type SnapInstance, type SnapScene } from './scene.ts';
import { FACE_CYLINDER, FACE_PLANE, FACE_SPHERE, FACE_STRIDE, type SnapKind } from './shape.ts';
import type { SnapQuery } from './snap.ts';

/** The centre of a circle whose rim is under the pointer: after the points that are themselves under it. */
const RANK_OF_RIM_CENTRE = 1;
/** Edges near the pointer that are tried against faces. */
const MAX_PIERCING = 6;
/** Curves near the pointer that are tried against one another. */
const MAX_CURVES = 6;
/** Reach of a pair of guides whose crossing is looked for, in reaches: the crossing may lie beside both. */
const CROSSING_REACHES = 3;

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
  ...(instance ? whose(instance) : {}),
  ...(feature === undefined ? {} : { feature }),
  chordMm: instance?.shape.chordMm ?? 0,
});

/** What single curves offer: their nearest point, centre, divisions, and the feet and tangents from the from-point. */
export function curvePoints(near: readonly NearCurve[], query: SnapQuery, offer: Offer): void {
  for (const one of near) {
    if (one.guide) onGuide(one, query, offer);
    else {
      onCurve(one, query, offer);
      fromCurve(one, query, offer);
    }
  }
}

function onGuide({ curve, nearest, offPx, guide }: NearCurve, { settings }: SnapQuery, offer: Offer): void {
  if (!guide || offPx > settings.reachPx) return;
  offer({
    point: curve.at(nearest),
    kind: guide.isParallel ? 'parallel' : 'guide',
    words: `along ${guide.words}`,
    guide,
    offPx,
    seenAt: null,
    chordMm: 0,
  });
}

/** The nearest point of an edge, and its centre. */
function onCurve(one: NearCurve, { settings: { kinds } }: SnapQuery, offer: Offer): void {
  const { curve, nearest, offPx } = one;
  const seenAt = curve.at(nearest);
  if (kinds.has('on edge')) offer({ ...source(one), point: seenAt, kind: 'on edge', offPx, seenAt });
  if (kinds.has('centre') && curve.round)
    offer({ ...source(one), point: curve.round.centre, kind: 'centre', offPx, seenAt }, RANK_OF_RIM_CENTRE);
}

/** Divisions, and where perpendiculars and tangents from the from-point touch. */
function fromCurve(one: NearCurve, query: SnapQuery, offer: Offer): void {
  const { curve, nearest } = one;
  const { camera, pointer, from } = query;
  const { kinds, reachPx, divide } = query.settings;
  const put = (t: number, kind: SnapKind, words?: string) => {
    const point = curve.at(t);
    const offPx = pixelsOff(camera, point, pointer);
    const more = words === undefined ? {} : { words };
    if (offPx <= reachPx) offer({ ...source(one), point, kind, offPx, seenAt: point, ...more });
  };
  if (kinds.has('divide') && divide)
    for (const [t, words] of divisions(curve, nearest, divide)) put(t, 'divide', words);
  if (!from) return;
  if (kinds.has('perpendicular'))
    for (const t of feetFrom(curve, from))
      if (distance(curve.at(t), from) > TOUCHING_MM) put(t, 'perpendicular');
  if (kinds.has('tangent')) for (const t of tangentsFrom(curve, from)) put(t, 'tangent');
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
  const { kinds } = query.settings;
  const nearest = (one: (curve: NearCurve) => boolean) =>
    near
      .filter(one)
      .sort((a, b) => a.offPx - b.offPx)
      .slice(0, MAX_CURVES);
  const edges = nearest(({ guide }) => !guide);
  const all = [...edges, ...nearest(({ guide }) => guide !== undefined)];
  const put = putter(query, offer);
  for (let i = 0; i < all.length; i++)
    for (let j = i + 1; j < all.length; j++) pairMeeting([all[i]!, all[j]!], query, put);
  if (kinds.has('intersection')) for (const one of edges.slice(0, MAX_PIERCING)) piercings(one, query, put);
}

/** A meeting of a curve with another, or with a face. */
interface Meeting {
  readonly one: NearCurve;
  readonly other?: NearCurve;
  readonly kind: SnapKind;
  readonly words: string;
}
type Put = (point: Vec3, meeting: Meeting) => void;

/** Offers what is within reach. */
const putter =
  (query: SnapQuery, offer: Offer): Put =>
  (point, { one, other, kind, words }) => {
    const offPx = pixelsOff(query.camera, point, query.pointer);
    if (offPx > query.settings.reachPx) return;
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

function pairMeeting(
  [a, b]: readonly [NearCurve, NearCurve],
  { camera, settings: { kinds } }: SnapQuery,
  put: Put,
): void {
  const [inSpace, inView] = [kinds.has('intersection'), kinds.has('apparent')];
  const isGuide = a.guide !== undefined || b.guide !== undefined;
  if (!isGuide && !inSpace && !inView) return;
  const words = meetingWords(a, b);
  const meeting = meetInSpace(a.curve, b.curve, a.nearest, b.nearest);
  // Edges of one part that meet do so in its corners.
  if (meeting && (isGuide || (inSpace && a.instance !== b.instance)))
    put(meeting, { one: a, other: b, kind: 'intersection', words });
  if (meeting || !(inView || (a.guide && b.guide))) return;
  const crossing = crossInView([a.curve, b.curve], [a.nearest, b.nearest], camera);
  if (crossing) put(crossing, { one: a, other: b, kind: 'apparent', words: `${words}, only in this view` });
}

/** Where an edge goes through the work plane, and through faces of other parts. */
function piercings(one: NearCurve, query: SnapQuery, put: Put): void {
  const kind = 'intersection';
  const point = meetPlane(one.curve, one.nearest, query.settings.plane);
  if (point) put(point, { one, kind, words: 'edge and work plane' });
  for (const { instance, face } of facesRound(one, query.scene, query)) {
    const pierced = meetFace(one.curve, one.nearest, instance, face);
    if (pierced) put(pierced, { one, kind, words: 'edge and face' });
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
      for (const face of faces) if (found.length < MAX_FACES) found.push({ instance, face });
    },
  );
  return found;
}
const SLANT = 2;
const MAX_FACES = 16;

/** The foot of the perpendicular from the from-point on the face under the pointer. */
export function footOnFace(surface: SurfaceHit, query: SnapQuery, offer: Offer): void {
  const { from, camera, pointer, settings } = query;
  if (!from || !settings.kinds.has('perpendicular')) return;
  const { instance, face } = surface;
  const { shape } = instance;
  const foot = footOf(instance, face, from);
  if (!foot || distance(foot, from) < TOUCHING_MM || !isOnFace(instance, face, foot)) return;
  const offPx = pixelsOff(camera, foot, pointer);
  if (offPx > settings.reachPx) return;
  const feature = shape.names[shape.faceName[face]!]!;
  offer({
    point: foot,
    kind: 'perpendicular',
    ...whose(instance),
    feature,
    offPx,
    seenAt: foot,
    chordMm: shape.chordMm,
  });
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
