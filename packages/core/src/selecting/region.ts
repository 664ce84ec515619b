/**
 * Which parts a region of the screen takes. Tested on the facets of the solids as the view shows them, so that a box or
 * the hole of a ring takes nothing that is not there; pixels, x to the right, y down.
 */
import { searchBvh } from '../space/bvh.ts';
import { mmPerPixel, eyeDistance, rayThrough, type Camera } from '../space/camera.ts';
import { carry, turnVector } from '../space/pose.ts';
import { distance, dot, subtract, type Vec3 } from '../space/vector.ts';
import { castOnScene } from '../snapping/raycast.ts';
import type { SnapInstance, SnapScene } from '../snapping/scene.ts';
import {
  boundsOf,
  contains,
  encloses,
  meetsSegment,
  someMember,
  type Point,
  type Region,
} from './outline.ts';

export type RegionRule = 'touching' | 'enclosed';

export interface RegionQuery {
  readonly scene: SnapScene;
  readonly camera: Camera;
  readonly region: Region;
  readonly rule: RegionRule;
  /** Takes only parts of which something can be seen in the region. */
  readonly onlySeen?: boolean;
}

/**
 * The parts that the region touches, or wholly encloses, in the order of the scene. A pattern is enclosed with all its
 * members.
 */
export function partsInRegion({ scene, camera, region, rule, onlySeen }: RegionQuery): string[] {
  const limits = boundsOf(region);
  const missed = new Set<string>();
  const found = scene.instances.filter((instance) => {
    // One member outside is enough, and so is one that is met.
    if (rule === 'enclosed' && missed.has(instance.part)) return false;
    const isTaken = takes(instance, camera, region, rule, limits);
    if (!isTaken) missed.add(instance.part);
    return isTaken;
  });
  const taken = onlySeen ? seenOf(found, scene, camera, region) : found;
  const parts = [...new Set(taken.map(({ part }) => part))];
  return rule === 'enclosed' ? parts.filter((part) => !missed.has(part)) : parts;
}

function takes(
  instance: SnapInstance,
  camera: Camera,
  region: Region,
  rule: RegionRule,
  limits: Area,
): boolean {
  const view = viewOf(instance, camera);
  const { bounds, order } = instance.shape.triangleTree;
  if (order.length === 0) return false;
  const area = view.boxArea(bounds, 0);
  if (area && !overlap(area, limits)) return false;
  if (area && encloses(region, cornersOf(area))) return true;
  return rule === 'enclosed' ? isEnclosed(instance, view, region) : isTouched(instance, view, region, limits);
}

function isEnclosed({ shape }: SnapInstance, view: View, region: Region): boolean {
  const { positions, triangles } = shape;
  for (let i = 0; i < positions.length; i += 3) {
    const point = view.point(positions[i]!, positions[i + 1]!, positions[i + 2]!);
    if (!point || !contains(region, point)) return false;
  }
  if (region.kind === 'rectangle' || region.kind === 'circle') return true;
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => {
      const at = 3 * triangles[t + k]!;
      return view.point(positions[at]!, positions[at + 1]!, positions[at + 2]!)!;
    });
    if (!encloses(region, corners)) return false;
  }
  return true;
}

function isTouched({ shape }: SnapInstance, view: View, region: Region, limits: Area): boolean {
  const { positions, triangles } = shape;
  let isMet = false;
  searchBvh(
    shape.triangleTree,
    (bounds, at) => {
      if (isMet) return false;
      const area = view.boxArea(bounds, at);
      return !area || overlap(area, limits);
    },
    (t) => {
      if (isMet) return;
      const corners = view.triangle(positions, triangles, t);
      isMet = corners.length > 2 && meetsPolygon(region, corners);
    },
  );
  return isMet;
}

/** Whether a convex piece of the picture and the region share a point. */
function meetsPolygon(region: Region, corners: readonly Point[]): boolean {
  for (let i = 0; i < corners.length; i++)
    if (meetsSegment(region, corners[i]!, corners[(i + 1) % corners.length]!)) return true;
  return isInConvex(corners, someMember(region));
}

function isInConvex(corners: readonly Point[], [x, y]: Point): boolean {
  let sign = 0;
  for (let i = 0; i < corners.length; i++) {
    const [[ax, ay], [bx, by]] = [corners[i]!, corners[(i + 1) % corners.length]!];
    const side = Math.sign((bx - ax) * (y - ay) - (by - ay) * (x - ax));
    if (side === 0) continue;
    if (sign !== 0 && side !== sign) return false;
    sign = side;
  }
  return sign !== 0;
}

// --- What is seen ---------------------------------------------------------------------------------------------------

/** Lines of sight through the region: a lattice of about this many. */
const SIGHTS = 1600;
/** Points of its own that a part is looked for by, where the lattice has missed it. */
const OWN_SIGHTS = 48;

function seenOf(
  found: readonly SnapInstance[],
  scene: SnapScene,
  camera: Camera,
  region: Region,
): SnapInstance[] {
  const { left, top, right, bottom } = boundsOf(region);
  const step = Math.max(1, Math.sqrt(((right - left) * (bottom - top)) / SIGHTS));
  const seen = new Set<string>();
  for (let y = top + step / 2; y < bottom; y += step)
    for (let x = left + step / 2; x < right; x += step) {
      if (!contains(region, [x, y])) continue;
      const hit = castOnScene(scene, rayThrough(camera, x, y));
      if (hit) seen.add(hit.instance.part);
    }
  return found.filter(
    (instance) => seen.has(instance.part) || isSeenByOwnPoints(instance, scene, camera, region),
  );
}

function isSeenByOwnPoints(
  instance: SnapInstance,
  scene: SnapScene,
  camera: Camera,
  region: Region,
): boolean {
  const { triangles, positions, chordMm } = instance.shape;
  const count = triangles.length / 3;
  const step = Math.max(1, Math.floor(count / OWN_SIGHTS));
  const at = (i: number): Vec3 => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
  const view = viewOf(instance, camera);
  for (let t = 0; t < count; t += step) {
    const [a, b, c] = [at(triangles[3 * t]!), at(triangles[3 * t + 1]!), at(triangles[3 * t + 2]!)];
    const own: Vec3 = [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3, (a[2] + b[2] + c[2]) / 3];
    const point = view.point(...own);
    if (!point || !contains(region, point)) continue;
    const ray = rayThrough(camera, ...point);
    const far = distance(ray.from, carry(instance.pose, own));
    if (!castOnScene(scene, ray, far - chordMm - SEEN_SLACK_MM)) return true;
  }
  return false;
}
/** A facet does not hide its own middle. */
const SEEN_SLACK_MM = 1e-4;

// --- From the part's own frame to the screen ------------------------------------------------------------------------

interface Area {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

interface View {
  /** The pixel of a point; null behind the eye. */
  point(x: number, y: number, z: number): Point | null;
  /** The pixels round a box; null where it reaches behind the eye. */
  boxArea(bounds: Float64Array, at: number): Area | null;
  /** The corners of a facet in the picture; cut off at the eye, and so of none to four. */
  triangle(positions: Float32Array, triangles: Uint32Array, t: number): Point[];
}

/** Nearer to the eye than this part of its distance from the target nothing is drawn. */
const NEAREST = 1e-4;

function viewOf({ pose }: SnapInstance, camera: Camera): View {
  const axes = [0, 1, 2].map((i) =>
    turnVector(pose.turn, [i === 0 ? 1 : 0, i === 1 ? 1 : 0, i === 2 ? 1 : 0]),
  ) as [Vec3, Vec3, Vec3];
  const shift = subtract(pose.shift, camera.eye);
  const row = (direction: Vec3) =>
    [...axes.map((axis) => dot(axis, direction)), dot(shift, direction)] as const;
  const [[rx, ry, rz, r0], [ux, uy, uz, u0], [tx, ty, tz, t0]] = [
    row(camera.right),
    row(camera.up),
    row(camera.toward),
  ] as [Four, Four, Four];
  const isParallel = camera.state.projection === 'parallel';
  const size = mmPerPixel(camera);
  const target = eyeDistance(camera.state);
  const [midX, midY] = [camera.width / 2, camera.pixelHeight / 2];
  const depth = (x: number, y: number, z: number) => -(tx * x + ty * y + tz * z + t0);
  const place = (x: number, y: number, z: number, deep: number): Point => {
    const scale = 1 / (isParallel ? size : (size * deep) / target);
    return [midX + (rx * x + ry * y + rz * z + r0) * scale, midY - (ux * x + uy * y + uz * z + u0) * scale];
  };
  const isBehind = (deep: number) => !isParallel && deep < NEAREST * target;
  return {
    point(x, y, z) {
      const deep = depth(x, y, z);
      return isBehind(deep) ? null : place(x, y, z, deep);
    },
    boxArea(b, at) {
      let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
      for (let corner = 0; corner < 8; corner++) {
        const [x, y, z] = [
          b[at + (corner & 1 ? 3 : 0)]!,
          b[at + 1 + (corner & 2 ? 3 : 0)]!,
          b[at + 2 + (corner & 4 ? 3 : 0)]!,
        ];
        const deep = depth(x, y, z);
        if (isBehind(deep)) return null;
        const [px, py] = place(x, y, z, deep);
        if (px < left) left = px;
        if (px > right) right = px;
        if (py < top) top = py;
        if (py > bottom) bottom = py;
      }
      return { left, top, right, bottom };
    },
    triangle(positions, triangles, t) {
      const corners = [0, 1, 2].map((k): Four => {
        const i = 3 * triangles[3 * t + k]!;
        const [x, y, z] = [positions[i]!, positions[i + 1]!, positions[i + 2]!];
        return [x, y, z, depth(x, y, z)];
      });
      if (corners.every(([, , , deep]) => !isBehind(deep)))
        return corners.map(([x, y, z, deep]) => place(x, y, z, deep));
      return clipped(corners, NEAREST * target).map(([x, y, z, deep]) => place(x, y, z, deep));
    },
  };
}

type Four = readonly [number, number, number, number];

/** The part of a facet in front of the eye. Source: Sutherland and Hodgman, Communications of the ACM 17 (1974). */
function clipped(corners: readonly Four[], nearest: number): Four[] {
  return corners.flatMap((a, i): Four[] => {
    const b = corners[(i + 1) % corners.length]!;
    const kept = a[3] >= nearest ? [a] : [];
    if (a[3] >= nearest === b[3] >= nearest) return kept;
    const s = (nearest - a[3]) / (b[3] - a[3]);
    const cut = [0, 1, 2, 3].map((k) => a[k]! + s * (b[k]! - a[k]!)) as unknown as Four;
    return [...kept, cut];
  });
}

const overlap = (a: Area, b: Area) =>
  a.left <= b.right && a.right >= b.left && a.top <= b.bottom && a.bottom >= b.top;
const cornersOf = ({ left, top, right, bottom }: Area): Point[] => [
  [left, top],
  [right, top],
  [right, bottom],
  [left, bottom],
];
