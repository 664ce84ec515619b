/**
 * The snap under the pointer, as a pure function of pointer, camera, shapes and settings.
 *
 * First the candidates: points near the line of sight, curves near it (their nearest point, and the centre of a circle
 * whose rim is touched), the face under the pointer, the grid. Then the choice: the kinds in the order of `RANK`, the
 * nearest on screen first, and the first that nothing hides. Only the trees of boxes are walked, so that the cost
 * follows what is near the pointer and not the size of the scene.
 */
import { searchBvh } from '../space/bvh.ts';
import { mmPerPixelAt, project, rayThrough, type Camera } from '../space/camera.ts';
import { degrees } from '../space/angle.ts';
import { carry } from '../space/pose.ts';
import { nearestOnLine, pointOnRay, rayToPlane, type Plane, type Ray } from '../space/plane.ts';
import { along, cross, distance, dot, length, subtract, unit, type Vec3 } from '../space/vector.ts';
import { castOnScene, localRay, onSurface, type SnapInstance, type SurfaceHit } from './raycast.ts';
import { CURVE_CIRCLE, CURVE_LINE, CURVE_STRIDE, POINT_KINDS, circlePoint, type SnapKind } from './shape.ts';

export interface SnapSettings {
  readonly kinds: ReadonlySet<SnapKind>;
  /** Also catch what stands behind a nearer face. */
  readonly seeThrough: boolean;
  /** How near the pointer must be, pixels. */
  readonly reachPx: number;
  /** Grid step, mm, on `plane`. */
  readonly gridStep: number;
  readonly plane: Plane;
}

export interface SnapQuery {
  readonly pointer: readonly [x: number, y: number];
  readonly camera: Camera;
  readonly instances: readonly SnapInstance[];
  readonly settings: SnapSettings;
  /** Pins in the world, by name. */
  readonly pins?: readonly { readonly name: string; readonly at: Vec3 }[];
  /** Parts that are never caught, nor hide anything: those being moved. */
  readonly without?: ReadonlySet<string>;
}

export interface Snap {
  readonly point: Vec3;
  readonly kind: SnapKind;
  /** Part that was caught; undefined for the grid. */
  readonly part?: string;
  /** Names of the faces that meet there, joined by &. */
  readonly feature?: string;
  /** The pin that was caught. */
  readonly pin?: string;
  /** Outward normal, on a face. */
  readonly normal?: Vec3;
}

interface Candidate extends Snap {
  readonly offPx: number;
  /** What must not be hidden: the point, or the rim that offers a centre. */
  readonly seenAt: Vec3;
  readonly chordMm: number;
}

/** Smaller is preferred. Points come before curves and curves before faces; the grid comes last. */
const RANK: Readonly<Record<SnapKind, number>> = {
  endpoint: 0,
  midpoint: 0,
  centre: 0,
  quadrant: 0,
  'face centre': 0,
  pin: 0,
  'on edge': 2,
  'on face': 3,
  grid: 4,
};
/** The centre of a circle whose rim is under the pointer: after the points that are themselves under it. */
const RANK_OF_RIM_CENTRE = 1;
/** Hidden by less than this many pixels of depth is not hidden: it is the corner's own faces seen at a slant. */
const HIDDEN_SLACK_PX = 1.5;
/** Facets lie inside a round surface by the chord, and a slanting look makes more of it. */
const HIDDEN_SLACK_CHORDS = 4;

export function resolveSnap(query: SnapQuery): Snap | null {
  const { camera, settings, pointer } = query;
  const instances = query.without
    ? query.instances.filter(({ part }) => !query.without!.has(part))
    : query.instances;
  const ray = rayThrough(camera, pointer[0], pointer[1]);
  const found: (Candidate & { readonly rank: number; readonly depth: number })[] = [];
  const offer = (candidate: Candidate, rank = RANK[candidate.kind]) =>
    found.push({ ...candidate, rank, depth: project(camera, candidate.point)[2] });
  for (const instance of instances) {
    pointsNear(instance, ray, query, offer);
    curvesNear(instance, ray, query, offer);
  }
  if (settings.kinds.has('pin'))
    for (const { name, at } of query.pins ?? []) {
      const offPx = pixelsOff(camera, at, pointer);
      if (offPx <= settings.reachPx)
        offer({ point: at, kind: 'pin', pin: name, offPx, seenAt: at, chordMm: 0 });
    }
  found.sort((a, b) => a.rank - b.rank || a.offPx - b.offPx || a.depth - b.depth);
  for (const candidate of found)
    // A pin is a mark on the view, not a part of the scene: nothing hides it.
    if (settings.seeThrough || candidate.kind === 'pin' || !isHidden(candidate, camera, instances))
      return plainSnap(candidate);
  const surface = castOnScene(instances, ray);
  return faceSnap(surface, ray, settings) ?? gridSnap(surface, ray, query);
}

function plainSnap({ point, kind, part, feature, pin }: Candidate): Snap {
  return {
    point,
    kind,
    ...(part === undefined ? {} : { part }),
    ...(feature === undefined ? {} : { feature }),
    ...(pin === undefined ? {} : { pin }),
  };
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

function pointsNear(
  instance: SnapInstance,
  ray: Ray,
  { camera, settings, pointer }: SnapQuery,
  offer: (candidate: Candidate) => void,
): void {
  const { shape, pose, part } = instance;
  if (!POINT_KINDS.some((kind) => settings.kinds.has(kind))) return;
  searchBvh(shape.pointTree, coneTest(localRay(instance, ray), camera, settings.reachPx), (i) => {
    const kind = POINT_KINDS[shape.pointKind[i]!]!;
    if (!settings.kinds.has(kind)) return;
    const point = carry(pose, [shape.points[3 * i]!, shape.points[3 * i + 1]!, shape.points[3 * i + 2]!]);
    const offPx = pixelsOff(camera, point, pointer);
    if (offPx <= settings.reachPx)
      offer({
        point,
        kind,
        part,
        feature: shape.names[shape.pointName[i]!]!,
        offPx,
        seenAt: point,
        chordMm: shape.chordMm,
      });
  });
}

function pixelsOff(camera: Camera, point: Vec3, pointer: readonly [number, number]): number {
  const [x, y, depth] = project(camera, point);
  if (camera.state.projection === 'perspective' && depth <= 0) return Infinity;
  return Math.hypot(x - pointer[0], y - pointer[1]);
}

function curvesNear(
  instance: SnapInstance,
  ray: Ray,
  { camera, settings, pointer }: SnapQuery,
  offer: (candidate: Candidate, rank?: number) => void,
): void {
  const { shape, pose, part } = instance;
  const [edges, centres] = [settings.kinds.has('on edge'), settings.kinds.has('centre')];
  if (!edges && !centres) return;
  const local = localRay(instance, ray);
  searchBvh(shape.curveTree, coneTest(local, camera, settings.reachPx), (c) => {
    const round = shape.curveKind[c] === CURVE_CIRCLE;
    if (!edges && !round) return;
    const nearest = nearestOnCurve(shape, c, local);
    if (!nearest) return;
    const seenAt = carry(pose, nearest);
    const offPx = pixelsOff(camera, seenAt, pointer);
    if (offPx > settings.reachPx) return;
    const common = {
      part,
      feature: shape.names[shape.curveName[c]!]!,
      offPx,
      seenAt,
      chordMm: shape.chordMm,
    };
    if (edges) offer({ ...common, point: seenAt, kind: 'on edge' });
    const data = CURVE_STRIDE * c;
    const centre: Vec3 = [shape.curves[data]!, shape.curves[data + 1]!, shape.curves[data + 2]!];
    if (round && centres)
      offer({ ...common, point: carry(pose, centre), kind: 'centre' }, RANK_OF_RIM_CENTRE);
  });
}

/** The point of a curve that is nearest to a ray, all in the shape's frame. */
export function nearestOnCurve(shape: SnapInstance['shape'], c: number, ray: Ray): Vec3 | undefined {
  const data = CURVE_STRIDE * c;
  const { curves, polyline } = shape;
  if (shape.curveKind[c] === CURVE_LINE) return nearestOnSegment(curves, data, curves, data + 3, ray);
  if (shape.curveKind[c] === CURVE_CIRCLE) return nearestOnCircle(curves, data, ray);
  let best: Vec3 | undefined;
  let least = Infinity;
  const first = curves[data]!;
  for (let i = first; i < first + curves[data + 1]! - 1; i++) {
    const point = nearestOnSegment(polyline, 3 * i, polyline, 3 * i + 3, ray);
    const off = distanceToRay(point, ray);
    if (off < least) [best, least] = [point, off];
  }
  return best;
}

function nearestOnSegment(from: Float64Array, a: number, to: Float64Array, b: number, ray: Ray): Vec3 {
  const start: Vec3 = [from[a]!, from[a + 1]!, from[a + 2]!];
  const end: Vec3 = [to[b]!, to[b + 1]!, to[b + 2]!];
  const span = subtract(end, start);
  const size = length(span);
  if (size === 0) return start;
  const direction = unit(span);
  const s = nearestOnLine(start, direction, ray) ?? 0;
  return s <= 0 ? start : s >= size ? end : along(start, direction, s);
}

/** Starts per circle, for finding the valley that holds the nearest point; a circle seen at a slant has at most two. */
const CIRCLE_STARTS = 24;

/** By sampling, then by halving the step round the best sample down to 1e-9 of the circle. */
function nearestOnCircle(curves: Float64Array, data: number, ray: Ray): Vec3 {
  const [first, last] = [curves[data + 9]!, curves[data + 10]!];
  const off = (angle: number) => distanceToRay(circlePoint(curves, data, angle), ray);
  const exact = onCircleInItsPlane(curves, data, ray);
  let best = first;
  let least = Infinity;
  const tryAngle = (angle: number) => {
    const within = Math.max(first, Math.min(last, angle));
    const distance = off(within);
    if (distance < least) [best, least] = [within, distance];
  };
  if (exact !== undefined) for (const turn of [-360, 0, 360]) tryAngle(exact + turn);
  for (let i = 0; i <= CIRCLE_STARTS; i++) tryAngle(first + ((last - first) * i) / CIRCLE_STARTS);
  for (let step = (last - first) / CIRCLE_STARTS / 2; step > 1e-8; step /= 2) {
    tryAngle(best - step);
    tryAngle(best + step);
  }
  return circlePoint(curves, data, best);
}

/** Angle at which the ray pierces the circle's plane, a good first guess. */
function onCircleInItsPlane(curves: Float64Array, data: number, ray: Ray): number | undefined {
  const at = (from: number): Vec3 => [
    curves[data + from]!,
    curves[data + from + 1]!,
    curves[data + from + 2]!,
  ];
  const [centre, x, y] = [at(0), at(3), at(6)];
  const distance = rayToPlane(ray, { point: centre, normal: unit(cross(x, y)) });
  if (distance === undefined) return undefined;
  const offset = subtract(pointOnRay(ray, distance), centre);
  return degrees(Math.atan2(dot(offset, y), dot(offset, x)));
}

function distanceToRay(point: Vec3, ray: Ray): number {
  return length(cross(subtract(point, ray.from), ray.direction));
}

function isHidden(
  { seenAt, chordMm }: Candidate,
  camera: Camera,
  instances: readonly SnapInstance[],
): boolean {
  const [x, y, depth] = project(camera, seenAt);
  const ray = rayThrough(camera, x, y);
  const far = distance(ray.from, seenAt);
  const slack = Math.max(HIDDEN_SLACK_CHORDS * chordMm, HIDDEN_SLACK_PX * mmPerPixelAt(camera, depth));
  return castOnScene(instances, ray, far - slack) !== undefined;
}

function faceSnap(surface: SurfaceHit | undefined, ray: Ray, { kinds }: SnapSettings): Snap | null {
  if (!surface || !kinds.has('on face')) return null;
  const { instance, face } = surface;
  const feature = instance.shape.names[instance.shape.faceName[face]!]!;
  return { ...onSurface(surface, ray), kind: 'on face', part: instance.part, feature };
}

/** The nearest grid point of the plane, when it is within reach and no part stands before it. */
function gridSnap(
  surface: SurfaceHit | undefined,
  ray: Ray,
  { settings, camera, pointer }: SnapQuery,
): Snap | null {
  if (!settings.kinds.has('grid')) return null;
  const far = rayToPlane(ray, settings.plane);
  if (far === undefined || far <= 0 || (surface && surface.distance < far && !settings.seeThrough))
    return null;
  const point = nearestGridPoint(pointOnRay(ray, far), settings.plane, settings.gridStep);
  return pixelsOff(camera, point, pointer) <= settings.reachPx ? { point, kind: 'grid' } : null;
}

/** The grid point nearest to a point of the plane. The grid's lines run along the world's axes through the origin. */
export function nearestGridPoint(point: Vec3, { point: onPlane, normal }: Plane, step: number): Vec3 {
  return point.map((n, axis) =>
    Math.abs(normal[axis]!) === 1 ? onPlane[axis]! : toStep(n, step),
  ) as unknown as Vec3;
}

/** The nearest multiple of the step, without the noise of dividing by a decimal. */
export function toStep(value: number, step: number): number {
  const rounded = Number((Math.round(value / step) * step).toPrecision(15));
  return rounded === 0 ? 0 : rounded;
}
