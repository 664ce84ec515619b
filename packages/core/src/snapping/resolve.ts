/**
 * The snap under the pointer, as a pure function of pointer, camera, shapes and settings.
 *
 * First the candidates within reach (`candidates.ts`, `curveCandidates.ts`). Then the choice: the kinds in the order of `RANK`, the nearest on
 * screen first, and the first that nothing hides. The cost follows what is near the pointer and not the size of the
 * scene.
 */
import { mmPerPixelAt, project, rayThrough, type Camera } from '../space/camera.ts';
import { pointOnRay, rayToPlane, type Plane, type Ray } from '../space/plane.ts';
import { isCutAway } from '../sections/cuts.ts';
import { add, cross, distance, dot, middle, scale, unit, type Vec3 } from '../space/vector.ts';
import {
  RANK,
  instancesNear,
  isCatchable,
  marks,
  packedPoints,
  partPoints,
  pixelsOff,
  type Candidate,
} from './candidates.ts';
import {
  curvePoints,
  edgesNear,
  footOnFace,
  guidesNear,
  meetings,
  type NearCurve,
} from './curveCandidates.ts';
import { castOnScene, onSurface, type SurfaceHit } from './raycast.ts';
import { whose, type SnapInstance } from './scene.ts';
import type { Snap, SnapQuery } from './snap.ts';

/** Hidden by less than this many pixels of depth is not hidden: it is the corner's own faces seen at a slant. */
const HIDDEN_SLACK_PX = 1.5;
/** Facets lie inside a round surface by the chord, and a slanting look makes more of it. */
const HIDDEN_SLACK_CHORDS = 4;
/** Two snaps nearer to one another than this (mm) are one and the same. */
const SAME_MM = 1e-9;

/** The snap that is meant; null where nothing is within reach. */
export function resolveSnap(query: SnapQuery): Snap | null {
  const ray = rayThrough(query.camera, ...query.pointer);
  const surface = surfaceUnder(query, ray);
  for (const candidate of gather(query, ray, surface))
    if (isSeen(candidate, query)) return plainSnap(candidate);
  return surfaceSnaps(query, ray, surface)[0] ?? null;
}

/** Everything within reach, the snap that is meant first, and then the others from near to far. */
export function snapsWithin(query: SnapQuery): Snap[] {
  const ray = rayThrough(query.camera, ...query.pointer);
  const surface = surfaceUnder(query, ray);
  const [first, ...others] = gather(query, ray, surface).filter((candidate) => isSeen(candidate, query));
  others.sort((a, b) => a.offPx - b.offPx || a.depth - b.depth || a.rank - b.rank);
  const all = [...(first ? [first, ...others].map(plainSnap) : []), ...surfaceSnaps(query, ray, surface)];
  return all.filter(
    (snap, i) =>
      !all
        .slice(0, i)
        .some((other) => distance(other.point, snap.point) < SAME_MM && other.part === snap.part),
  );
}

function gather(query: SnapQuery, ray: Ray, surface: SurfaceHit | undefined): Candidate[] {
  const found: Candidate[] = [];
  const { cuts = [] } = query.scene;
  const offer = (candidate: Omit<Candidate, 'rank' | 'depth'>, rank = RANK[candidate.kind]) => {
    if (candidate.part !== undefined && isCutAway(cuts, candidate.part, candidate.point)) return;
    found.push({ ...candidate, rank, depth: project(query.camera, candidate.point)[2] });
  };
  const near: NearCurve[] = guidesNear(ray, query);
  for (const instance of instancesNear(query.scene, ray, query)) {
    packedPoints(instance, ray, query, offer);
    partPoints(instance, ray, query, offer);
    edgesNear(instance, ray, query, near);
  }
  marks(query, offer);
  curvePoints(near, query, offer);
  meetings(near, query, offer);
  if (surface && isCatchable(surface.instance.part, query)) footOnFace(surface, query, offer);
  return found.sort((a, b) => a.rank - b.rank || a.offPx - b.offPx || a.depth - b.depth);
}

function plainSnap({
  point,
  kind,
  part,
  member,
  leaf,
  feature,
  pin,
  dock,
  words,
  guide,
  meeting,
}: Candidate): Snap {
  return {
    point,
    kind,
    ...(part === undefined ? {} : { part }),
    ...(member === undefined ? {} : { member }),
    ...(leaf === undefined ? {} : { leaf }),
    ...(feature === undefined ? {} : { feature }),
    ...(pin === undefined ? {} : { pin }),
    ...(dock === undefined ? {} : { dock }),
    ...(words === undefined ? {} : { words }),
    ...(guide === undefined ? {} : { guide }),
    ...(meeting === undefined ? {} : { meeting }),
  };
}

/** The first surface under the pointer; with see-through on, the first that may be caught. */
function surfaceUnder(query: SnapQuery, ray: Ray): SurfaceHit | undefined {
  const { scene, without, settings } = query;
  return castOnScene(scene, ray, Infinity, (part) =>
    settings.seeThrough ? isCatchable(part, query) : !without?.has(part),
  );
}

function isSeen(candidate: Candidate, query: SnapQuery): boolean {
  const { seenAt, chordMm, inside } = candidate;
  if (query.settings.seeThrough || seenAt === null) return true;
  const { camera, scene, without } = query;
  const [x, y, depth] = project(camera, seenAt);
  const ray = rayThrough(camera, x, y);
  const slack = Math.max(HIDDEN_SLACK_CHORDS * chordMm, HIDDEN_SLACK_PX * mmPerPixelAt(camera, depth));
  const far = distance(ray.from, seenAt) - slack;
  const hides = (other: string, instance: SnapInstance) => !without?.has(other) && instance !== inside;
  return castOnScene(scene, ray, far, hides) === undefined;
}

/** What is under the pointer itself: the middle of the material, the face, the grid, the work plane. */
function surfaceSnaps(query: SnapQuery, ray: Ray, surface: SurfaceHit | undefined): Snap[] {
  const { kinds } = query.settings;
  const found: (Snap | null)[] = [];
  const caught = surface && isCatchable(surface.instance.part, query) ? surface : undefined;
  if (caught && kinds.has('half-way')) found.push(halfWay(caught, ray, query));
  if (caught && kinds.has('on face')) {
    const { instance, face } = caught;
    const feature = instance.shape.names[instance.shape.faceName[face]!]!;
    found.push({ ...onSurface(caught, ray), kind: 'on face', ...whose(instance), feature });
  }
  found.push(...planeSnaps(query, ray, surface));
  return found.filter((snap) => snap !== null);
}

/**
 * The middle of the material under the pointer: between the first and the next surface of the part that is met, or
 * between the first and the last surface of all parts; where there is one surface only, that surface.
 */
function halfWay(surface: SurfaceHit, ray: Ray, query: SnapQuery): Snap {
  const { instance } = surface;
  const isPart = (query.settings.halfWay ?? 'part') === 'part';
  const may = (part: string, other: SnapInstance) => (isPart ? other === instance : isCatchable(part, query));
  const near = onSurface(surface, ray).point;
  let far = near;
  let start = surface.distance;
  for (let i = 0; i < MAX_SURFACES; i++) {
    const onward: Ray = { from: pointOnRay(ray, start + PASSED_MM), direction: ray.direction };
    const next = castOnScene(query.scene, onward, Infinity, may);
    if (!next) break;
    far = onSurface(next, onward).point;
    start += PASSED_MM + next.distance;
    if (isPart) break;
  }
  return { point: middle(near, far), kind: 'half-way', ...whose(instance) };
}
/** A ray goes on this far (mm) behind a surface that it has met. */
const PASSED_MM = 1e-4;
const MAX_SURFACES = 1000;

/** The nearest grid point of the plane when it is within reach, and the plane itself, where no part stands before it. */
function planeSnaps(query: SnapQuery, ray: Ray, surface: SurfaceHit | undefined): Snap[] {
  const { settings, camera, pointer } = query;
  const far = rayToPlane(ray, settings.plane);
  if (far === undefined || far <= 0 || (surface && surface.distance < far && !settings.seeThrough)) return [];
  const on = pointOnRay(ray, far);
  const point = nearestGridPoint(on, settings.plane, settings.gridStep);
  const isNear = settings.kinds.has('grid') && pixelsOff(camera, point, pointer) <= settings.reachPx;
  return [
    ...(isNear ? [{ point, kind: 'grid' as const }] : []),
    ...(settings.kinds.has('on plane')
      ? [{ point: ontoPlane(on, settings.plane), kind: 'on plane' as const }]
      : []),
  ];
}

/** Without the noise of the ray, where the plane is square to an axis. */
const ontoPlane = (point: Vec3, { point: onPlane, normal }: Plane): Vec3 =>
  point.map((n, axis) => (Math.abs(normal[axis]!) === 1 ? onPlane[axis]! : n)) as unknown as Vec3;

/** The grid point nearest to a point of the plane. The grid's lines run along the world's axes through the origin. */
export function nearestGridPoint(point: Vec3, { point: onPlane, normal }: Plane, step: number): Vec3 {
  return point.map((n, axis) =>
    Math.abs(normal[axis]!) === 1 ? onPlane[axis]! : toStep(n, step),
  ) as unknown as Vec3;
}

/**
 * The nearest point of a grid that is laid on a plane: the world's own where that is square to an axis, otherwise along the
 * plane's horizontal and its slope, from the foot of the origin.
 */
export function gridPointOn(point: Vec3, plane: Plane, step: number): Vec3 {
  const { normal } = plane;
  if (normal.some((n) => Math.abs(n) === 1)) return nearestGridPoint(point, plane, step);
  const across = unit([-normal[1], normal[0], 0]);
  const slope = cross(normal, across);
  const foot = scale(normal, dot(normal, plane.point));
  const at = [across, slope].map((axis) => toStep(dot(point, axis), step));
  return add(foot, add(scale(across, at[0]!), scale(slope, at[1]!)));
}

/** The nearest multiple of the step, without the noise of dividing by a decimal. */
export function toStep(value: number, step: number): number {
  const rounded = Number((Math.round(value / step) * step).toPrecision(15));
  return rounded === 0 ? 0 : rounded;
}

/** The parts under a pixel from near to far, for *behind this*. */
export function partsUnder(
  camera: Camera,
  pointer: readonly [number, number],
  scene: SnapQuery['scene'],
): string[] {
  const ray = rayThrough(camera, ...pointer);
  const found: string[] = [];
  for (;;) {
    const next = castOnScene(scene, ray, Infinity, (part) => !found.includes(part));
    if (!next) return found;
    found.push(next.instance.part);
  }
}
