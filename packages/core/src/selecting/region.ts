/**
 * Which parts a region of the screen takes. Tested on the facets of the solids as the view shows them, so that a box or
 * the hole of a ring takes nothing that is not there; pixels, x to the right, y down.
 */
import { searchBvh } from '../space/bvh.ts';
import { rayThrough, type Camera } from '../space/camera.ts';
import { carry } from '../space/pose.ts';
import { distance, type Vec3 } from '../space/vector.ts';
import { castOnScene, type SurfaceHit } from '../snapping/raycast.ts';
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
import { cornersOf, overlap, viewOf, type Area, type View } from './screen.ts';

/** What a region must do with a part to take it. */
export type RegionRule = 'touching' | 'enclosed';

/** What is asked of the parts within a region. */
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
    const isTaken = takes(instance, camera, { region, rule, limits });
    if (!isTaken) missed.add(instance.part);
    return isTaken;
  });
  const taken = onlySeen ? seenOf(found, scene, { camera, region }) : found;
  const parts = [...new Set(taken.map(({ part }) => part))];
  return rule === 'enclosed' ? parts.filter((part) => !missed.has(part)) : parts;
}

function takes(
  instance: SnapInstance,
  camera: Camera,
  { region, rule, limits }: { readonly region: Region; readonly rule: RegionRule; readonly limits: Area },
): boolean {
  const view = viewOf(instance.pose, camera);
  const { bounds, order } = instance.shape.triangleTree;
  if (order.length === 0) return false;
  const area = view.boxArea(bounds, 0);
  if (area && !overlap(area, limits)) return false;
  if (area && encloses(region, cornersOf(area))) return true;
  return rule === 'enclosed'
    ? isEnclosed(instance, view, region)
    : isTouched(instance, view, { region, limits });
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

function isTouched(
  { shape }: SnapInstance,
  view: View,
  { region, limits }: { readonly region: Region; readonly limits: Area },
): boolean {
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
export function meetsPolygon(region: Region, corners: readonly Point[]): boolean {
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

/** What is seen along lines of sight that are spread over the region. */
export function hitsIn(scene: SnapScene, camera: Camera, region: Region): SurfaceHit[] {
  const { left, top, right, bottom } = boundsOf(region);
  const step = Math.max(1, Math.sqrt(((right - left) * (bottom - top)) / SIGHTS));
  const hits: SurfaceHit[] = [];
  for (let y = top + step / 2; y < bottom; y += step)
    for (let x = left + step / 2; x < right; x += step) {
      const hit = contains(region, [x, y]) && castOnScene(scene, rayThrough(camera, x, y));
      if (hit) hits.push(hit);
    }
  return hits;
}

function seenOf(
  found: readonly SnapInstance[],
  scene: SnapScene,
  { camera, region }: { readonly camera: Camera; readonly region: Region },
): SnapInstance[] {
  const seen = new Set(hitsIn(scene, camera, region).map(({ instance }) => instance.part));
  return found.filter(
    (instance) => seen.has(instance.part) || isSeenByOwnPoints(instance, scene, { camera, region }),
  );
}

function isSeenByOwnPoints(
  instance: SnapInstance,
  scene: SnapScene,
  { camera, region }: { readonly camera: Camera; readonly region: Region },
): boolean {
  const { triangles, positions, chordMm } = instance.shape;
  const count = triangles.length / 3;
  const step = Math.max(1, Math.floor(count / OWN_SIGHTS));
  const at = (i: number): Vec3 => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
  const view = viewOf(instance.pose, camera);
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
export const SEEN_SLACK_MM = 1e-4;
