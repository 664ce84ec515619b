/** Where curves meet one another, in space or only in the view, and where they pierce surfaces. */
import { searchBvh } from '../space/bvh.ts';
import { carryBack } from '../space/pose.ts';
import type { Camera } from '../space/camera.ts';
import type { Plane } from '../space/plane.ts';
import { cross, distance, dot, length, subtract, type Vec3 } from '../space/vector.ts';
import { rootNear, within, type Curve } from './curves.ts';
import type { SnapInstance } from './scene.ts';
import { FACE_CYLINDER, FACE_PLANE, FACE_SPHERE, FACE_STRIDE } from './shape.ts';

/** Edges nearer to one another than this (mm) meet: the kernel's own tolerance. */
const MEET_MM = 1e-7;
/** A meeting that is returned lies on both curves to this, mm. */
const SETTLED_MM = 1e-10;
const MAX_STEPS = 30;
/** Directions closer to parallel than this (sine, squared) have no one meeting point. */
const PARALLEL_SINE2 = 1e-16;

/**
 * The point where two curves meet in space, near the parameters given; undefined where they pass one another. Gauss's
 * and Newton's steps on the difference of the two points.
 */
export function meetInSpace(a: Curve, b: Curve, startA: number, startB: number): Vec3 | undefined {
  let [s, t] = [startA, startB];
  for (let i = 0; i < MAX_STEPS; i++) {
    const gap = subtract(a.at(s), b.at(t));
    const [u, v] = [a.slope(s), b.slope(t)];
    const [uu, uv, vv] = [dot(u, u), dot(u, v), dot(v, v)];
    const det = uu * vv - uv * uv;
    if (!(det > PARALLEL_SINE2 * uu * vv)) return undefined;
    const [ru, rv] = [dot(u, gap), dot(v, gap)];
    const ds = (uv * rv - vv * ru) / det;
    const dt = (uu * rv - uv * ru) / det;
    [s, t] = [s + ds, t + dt];
    if (Math.abs(ds) * Math.sqrt(uu) + Math.abs(dt) * Math.sqrt(vv) < SETTLED_MM) break;
  }
  const [onA, onB] = [within(a, s), within(b, t)];
  if (onA === undefined || onB === undefined) return undefined;
  const point = a.at(onA);
  return distance(point, b.at(onB)) <= MEET_MM ? point : undefined;
}

/**
 * The point where two curves cross in the view, on the one that stands nearer to the eye; undefined where they do not.
 * Newton's steps on the difference of their pictures.
 */
export function crossInView(
  [a, b]: readonly [Curve, Curve],
  starts: readonly [number, number],
  camera: Camera,
): Vec3 | undefined {
  let [s, t] = starts;
  for (let i = 0; i < MAX_STEPS; i++) {
    const [p, q] = [seen(camera, a.at(s), a.slope(s)), seen(camera, b.at(t), b.slope(t))];
    const det = p.dx * -q.dy + q.dx * p.dy;
    const size = Math.hypot(p.dx, p.dy) * Math.hypot(q.dx, q.dy);
    if (!(Math.abs(det) > 1e-9 * size)) return undefined;
    const [fx, fy] = [p.x - q.x, p.y - q.y];
    const ds = (fx * q.dy - fy * q.dx) / det;
    const dt = (fx * p.dy - fy * p.dx) / det;
    [s, t] = [s + ds, t + dt];
    if (Math.abs(ds) + Math.abs(dt) < 1e-12 * (1 + Math.abs(s) + Math.abs(t))) break;
    if (i === MAX_STEPS - 1) return undefined;
  }
  const [onA, onB] = [within(a, s), within(b, t)];
  if (onA === undefined || onB === undefined) return undefined;
  const [p, q] = [a.at(onA), b.at(onB)];
  return depth(camera, p) <= depth(camera, q) ? p : q;
}

const depth = (camera: Camera, point: Vec3) => -dot(subtract(point, camera.eye), camera.toward);

/** A point and its motion in the picture, in units that leave out the size of a pixel. */
function seen(camera: Camera, point: Vec3, slope: Vec3) {
  const offset = subtract(point, camera.eye);
  const [x, y] = [dot(offset, camera.right), dot(offset, camera.up)];
  const [dx, dy] = [dot(slope, camera.right), dot(slope, camera.up)];
  if (camera.state.projection === 'parallel') return { x, y, dx, dy };
  const z = -dot(offset, camera.toward);
  const dz = -dot(slope, camera.toward);
  return { x: x / z, y: y / z, dx: (dx * z - x * dz) / (z * z), dy: (dy * z - y * dz) / (z * z) };
}

/** Where a curve pierces a plane, near a parameter; its ends, where it only stands on the plane, are left out. */
export function meetPlane(curve: Curve, start: number, { point, normal }: Plane): Vec3 | undefined {
  const t = rootNear(curve, (s) => dot(subtract(curve.at(s), point), normal), start);
  return t === undefined || isEnd(curve, t) ? undefined : curve.at(t);
}

const isEnd = (curve: Curve, t: number): boolean =>
  !curve.isClosed &&
  (distance(curve.at(t), curve.at(curve.first)) < MEET_MM ||
    distance(curve.at(t), curve.at(curve.last)) < MEET_MM);

/** How far a point of the part's own frame is from the unbounded surface of a face; undefined for other surfaces. */
function offSurface({ shape }: SnapInstance, face: number): ((own: Vec3) => number) | undefined {
  const data = FACE_STRIDE * face;
  const f = shape.faces;
  const point: Vec3 = [f[data]!, f[data + 1]!, f[data + 2]!];
  const direction: Vec3 = [f[data + 3]!, f[data + 4]!, f[data + 5]!];
  const radius = f[data + 6]!;
  switch (shape.faceKind[face]) {
    case FACE_PLANE:
      return (own) => dot(subtract(own, point), direction);
    case FACE_CYLINDER:
      return (own) => length(cross(subtract(own, point), direction)) - radius;
    case FACE_SPHERE:
      return (own) => distance(own, point) - radius;
    default:
      return undefined;
  }
}

/** Where a curve pierces a face of an instance, near a parameter; undefined at its ends, outside the face, and for free-form faces. */
export function meetFace(
  curve: Curve,
  start: number,
  instance: SnapInstance,
  face: number,
): Vec3 | undefined {
  const off = offSurface(instance, face);
  if (!off) return undefined;
  const t = rootNear(curve, (s) => off(carryBack(instance.pose, curve.at(s))), start);
  if (t === undefined || isEnd(curve, t)) return undefined;
  const point = curve.at(t);
  return isOnFace(instance, face, point) ? point : undefined;
}

/** Whether a point of a face's surface lies within its borders, as its facets tell. */
export function isOnFace({ shape, pose }: SnapInstance, face: number, world: Vec3): boolean {
  const own = carryBack(pose, world);
  const { positions, triangles, faceOfTriangle, chordMm } = shape;
  const slack = FACET_CHORDS * chordMm + FACET_SLACK_MM;
  const isNear = (b: Float64Array, i: number) =>
    own[0] >= b[i]! - slack &&
    own[1] >= b[i + 1]! - slack &&
    own[2] >= b[i + 2]! - slack &&
    own[0] <= b[i + 3]! + slack &&
    own[1] <= b[i + 4]! + slack &&
    own[2] <= b[i + 5]! + slack;
  let isOn = false;
  const at = (i: number): Vec3 => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
  searchBvh(
    shape.triangleTree,
    (b, i) => !isOn && isNear(b, i),
    (t) => {
      if (isOn || faceOfTriangle[t] !== face) return;
      const [a, b, c] = [at(triangles[3 * t]!), at(triangles[3 * t + 1]!), at(triangles[3 * t + 2]!)];
      isOn = isOnTriangle(own, [a, b, c], slack);
    },
  );
  return isOn;
}
/** Facets lie inside a round face by the chord, and are in single precision. */
const FACET_CHORDS = 2;
const FACET_SLACK_MM = 1e-4;

function isOnTriangle(p: Vec3, [a, b, c]: readonly [Vec3, Vec3, Vec3], slack: number): boolean {
  const [ab, ac, ap] = [subtract(b, a), subtract(c, a), subtract(p, a)];
  const normal = cross(ab, ac);
  const size = length(normal);
  if (size === 0 || Math.abs(dot(ap, normal)) > slack * size) return false;
  const u = dot(cross(ap, ac), normal) / (size * size);
  const v = dot(cross(ab, ap), normal) / (size * size);
  const edge = slack / Math.max(length(ab), length(ac), slack);
  return u >= -edge && v >= -edge && u + v <= 1 + edge;
}
