/** Rays against the facets of shapes. */
import { searchBvh } from '../space/bvh.ts';
import { carry, carryBack, turnBack, turnVector } from '../space/pose.ts';
import { seenFrom, type Cut } from '../sections/cuts.ts';
import type { Ray } from '../space/plane.ts';
import { along, cross, dot, length, scale, subtract, unit, type Vec3 } from '../space/vector.ts';
import { facetCorners } from './facetCorners.ts';
import type { SnapInstance, SnapScene } from './scene.ts';
import { FACE_CYLINDER, FACE_PLANE, FACE_SPHERE, FACE_STRIDE, type SnapShape } from './shape.ts';

/** Where a ray meets the facets of a shape. */
export interface FacetHit {
  readonly distance: number;
  readonly triangle: number;
}

/** Where a ray meets a solid of the scene. */
export interface SurfaceHit {
  readonly instance: SnapInstance;
  /** Distance along the ray to the facet, mm. */
  readonly distance: number;
  readonly face: number;
  readonly triangle: number;
}

/** Carries a world ray into the instance's own frame; distances stay the same, since placements are rigid. */
export const localRay = ({ pose }: Pick<SnapInstance, 'pose'>, ray: Ray): Ray => ({
  from: carryBack(pose, ray.from),
  direction: turnBack(pose.turn, ray.direction),
});

/** The nearest facet in front of the ray's start and nearer than `most`, from either side. */
export function castOnShape(shape: SnapShape, ray: Ray, max = Infinity): FacetHit | undefined {
  let nearest = max;
  let hit = -1;
  const enter = (bounds: Float64Array, at: number) => isBoxOnRay(bounds, at, ray, nearest);
  searchBvh(shape.triangleTree, enter, (t) => {
    const distance = meetTriangle(shape, t, ray);
    if (distance < nearest) {
      nearest = distance;
      hit = t;
    }
  });
  return hit < 0 ? undefined : { distance: nearest, triangle: hit };
}

/** Any direction that no face of a model is likely to run along. */
const ANY_WAY: Vec3 = [0.267, 0.535, 0.802];

/** Whether a point of the world lies within a solid: whether the first facet on a way out is met from within. */
export function isWithinSolid(solid: Pick<SnapInstance, 'pose' | 'shape'>, point: Vec3): boolean {
  const ray = localRay(solid, { from: point, direction: ANY_WAY });
  const hit = castOnShape(solid.shape, ray);
  return hit !== undefined && isMetFromWithin(solid.shape, hit.triangle, ray);
}

/** Whether a ray that meets a facet comes from the inside of its solid. */
function isMetFromWithin(shape: SnapShape, triangle: number, { direction }: Ray): boolean {
  const [a, b, c] = facetCorners(shape, triangle);
  return dot(cross(subtract(b, a), subtract(c, a)), direction) > 0;
}

/** Whether the ray enters a box before `most`: the slab test. Source: Kay and Kajiya, SIGGRAPH 1986. */
function isBoxOnRay(b: Float64Array, at: number, { from, direction }: Ray, max: number): boolean {
  let near = -Infinity;
  let far = Infinity;
  for (let axis = 0; axis < 3; axis++) {
    const inverse = 1 / direction[axis]!;
    const t0 = (b[at + axis]! - from[axis]!) * inverse;
    const t1 = (b[at + 3 + axis]! - from[axis]!) * inverse;
    // A zero direction gives infinities, which compare rightly; and no number on the border of a slab, which lets it in.
    const isTurned = t0 > t1;
    if (!isTurned && !(t0 <= t1)) continue;
    const low = isTurned ? t1 : t0;
    const high = isTurned ? t0 : t1;
    if (low > near) near = low;
    if (high < far) far = high;
  }
  return !(near > far * (1 + SLAB_SLACK) + SLAB_SLACK) && !(far < 0) && !(near > max);
}

/** Facets are in single precision and slabs may have no thickness. */
const SLAB_SLACK = 1e-7;
/** Barycentric slack, so that a ray along the seam of two facets meets one of them. */
const SEAM_SLACK = 1e-9;

/** Distance to the triangle, Infinity when missed. Source: Möller and Trumbore, Journal of Graphics Tools 2 (1997). */
function meetTriangle(
  { positions: p, triangles }: SnapShape,
  triangle: number,
  { from, direction }: Ray,
): number {
  const a = 3 * triangles[3 * triangle]!;
  const b = 3 * triangles[3 * triangle + 1]!;
  const c = 3 * triangles[3 * triangle + 2]!;
  const dx = direction[0];
  const dy = direction[1];
  const dz = direction[2];
  const [ax, ay, az] = [p[a]!, p[a + 1]!, p[a + 2]!];
  const [e1x, e1y, e1z] = [p[b]! - ax, p[b + 1]! - ay, p[b + 2]! - az];
  const [e2x, e2y, e2z] = [p[c]! - ax, p[c + 1]! - ay, p[c + 2]! - az];
  const [px, py, pz] = [dy * e2z - dz * e2y, dz * e2x - dx * e2z, dx * e2y - dy * e2x];
  const det = e1x * px + e1y * py + e1z * pz;
  if (det === 0) return Infinity;
  const [tx, ty, tz] = [from[0] - ax, from[1] - ay, from[2] - az];
  const u = (tx * px + ty * py + tz * pz) / det;
  if (u < -SEAM_SLACK || u > 1 + SEAM_SLACK) return Infinity;
  const [qx, qy, qz] = [ty * e1z - tz * e1y, tz * e1x - tx * e1z, tx * e1y - ty * e1x];
  const v = (dx * qx + dy * qy + dz * qz) / det;
  if (v < -SEAM_SLACK || u + v > 1 + SEAM_SLACK) return Infinity;
  const distance = (e2x * qx + e2y * qy + e2z * qz) / det;
  return distance > 0 ? distance : Infinity;
}

/** A facet that no section plane takes out of sight. */
interface SeenHit extends FacetHit {
  /** Met from within, where the solid was cut open: what is seen there is its cut face. */
  readonly isCut: boolean;
}

/** The nearest facet that no section plane takes out of sight. */
function castOnSeen(
  instance: SnapInstance,
  ray: Ray,
  { most, cuts }: { readonly most: number; readonly cuts: readonly Cut[] | undefined },
): SeenHit | undefined {
  const { shape, part } = instance;
  const local = localRay(instance, ray);
  if (!cuts || cuts.length === 0) {
    const hit = castOnShape(shape, local, most);
    return hit && { ...hit, isCut: false };
  }
  let from = seenFrom(cuts, part, { ray, from: 0 });
  let wasCut = from > 0;
  // Each time round, the ray has left one cut for good.
  for (let i = 0; i <= cuts.length && from < most; i++) {
    const onward = { from: along(local.from, local.direction, from), direction: local.direction };
    const hit = castOnShape(shape, onward, most - from);
    if (!hit) return undefined;
    const { triangle } = hit;
    const distance = from + hit.distance;
    from = seenFrom(cuts, part, { ray, from: distance });
    if (from === distance)
      return { distance, triangle, isCut: wasCut && isMetFromWithin(shape, triangle, local) };
    wasCut = true;
  }
  return undefined;
}

/** What lies together is as far away as the rounding of facets lets it, mm. */
const TOGETHER_MM = 1e-3;

/** Whether what is met is before what was found: of what lies together, a cut face is seen, as the views draw it. */
function isBefore(hit: SeenHit, found: SeenHit | undefined): boolean {
  if (!found) return true;
  const first = hit.isCut === found.isCut ? 0 : hit.isCut ? TOGETHER_MM : -TOGETHER_MM;
  return hit.distance < found.distance + first;
}

/** The first surface that the ray meets in the scene, nearer than `most`, of the parts that `may` be met. */
export function castOnScene(
  scene: SnapScene,
  ray: Ray,
  max = Infinity,
  may?: (part: string, instance: SnapInstance) => boolean,
): SurfaceHit | undefined {
  const { cuts } = scene;
  const beside = cuts?.length ? TOGETHER_MM : 0;
  let found: (SurfaceHit & SeenHit) | undefined;
  const most = () => (found ? Math.min(max, found.distance + beside) : max);
  searchBvh(
    scene.tree,
    (bounds, at) => isBoxOnRay(bounds, at, ray, most()),
    (i) => {
      const instance = scene.instances[i]!;
      if (instance.isOpen || (may && !may(instance.part, instance))) return;
      const hit = castOnSeen(instance, ray, { most: most(), cuts });
      if (hit && isBefore(hit, found))
        found = { ...hit, instance, face: instance.shape.faceOfTriangle[hit.triangle]! };
    },
  );
  return found;
}

/** The point and the outward normal of the true surface under a facet hit, in the world. */
export function onSurface(
  { instance, distance, face }: Pick<SurfaceHit, 'instance' | 'distance' | 'face'>,
  ray: Ray,
): { point: Vec3; normal?: Vec3 } {
  const { shape, pose } = instance;
  const local = localRay(instance, ray);
  const found = ON_SURFACE[shape.faceKind[face]!]?.({
    numbers: shape.faces,
    data: FACE_STRIDE * face,
    local,
    distance,
  });
  if (!found) return { point: carry(pose, along(local.from, local.direction, distance)) };
  return { point: carry(pose, found.point), normal: turnVector(pose.turn, found.normal) };
}

/** A ray that has met a facet of a face, in the frame of the part. */
interface Met {
  readonly numbers: Float64Array;
  /** Where the numbers of the face begin. */
  readonly data: number;
  readonly local: Ray;
  readonly distance: number;
}
interface OnFace {
  readonly point: Vec3;
  readonly normal: Vec3;
}

const pointFrom = (numbers: Float64Array, at: number): Vec3 => [
  numbers[at]!,
  numbers[at + 1]!,
  numbers[at + 2]!,
];

/** Surfaces that a facet only comes near to. */
const ON_SURFACE: Readonly<Record<number, (met: Met) => OnFace>> = {
  [FACE_PLANE]: onPlane,
  [FACE_CYLINDER]: onCylinder,
  [FACE_SPHERE]: onSphere,
};

function onPlane({ numbers, data, local, distance }: Met): OnFace {
  const [point, normal] = [pointFrom(numbers, data), pointFrom(numbers, data + 3)];
  const slant = dot(local.direction, normal);
  const d = Math.abs(slant) < GRAZING ? distance : dot(subtract(point, local.from), normal) / slant;
  const exact = along(local.from, local.direction, d);
  // One more step onto the plane takes out the rounding of the division.
  return { point: along(exact, normal, -dot(subtract(exact, point), normal)), normal };
}

function onCylinder({ numbers, data, local, distance }: Met): OnFace {
  const [point, axis, radius] = [pointFrom(numbers, data), pointFrom(numbers, data + 3), numbers[data + 6]!];
  const exact = along(
    local.from,
    local.direction,
    cylinderDistance(local, { point, axis, radius }, distance),
  );
  const offset = subtract(exact, point);
  const height = dot(offset, axis);
  const radial = along(offset, axis, -height);
  const size = length(radial);
  const facing = dot(radial, local.direction) > 0 ? -1 : 1;
  return {
    point: along(along(point, axis, height), radial, radius / size),
    normal: scale(radial, facing / size),
  };
}

function onSphere({ numbers, data, local, distance }: Met): OnFace {
  const [centre, radius] = [pointFrom(numbers, data), numbers[data + 6]!];
  const exact = along(local.from, local.direction, sphereDistance(local, centre, radius, distance));
  const radial = unit(subtract(exact, centre));
  return {
    point: along(centre, radial, radius),
    normal: scale(radial, dot(radial, local.direction) > 0 ? -1 : 1),
  };
}

/** Below this sine a ray runs along a plane, and the facet's own distance is the better answer. */
const GRAZING = 1e-6;

/** Of the two places where a line meets a ball, the one nearest to `guess`; `guess` itself when it misses by a hair. */
function sphereDistance(ray: Ray, centre: Vec3, radius: number, guess: number): number {
  const offset = subtract(ray.from, centre);
  const b = dot(offset, ray.direction);
  const inside = b * b - dot(offset, offset) + radius * radius;
  if (inside < 0) return guess;
  const root = Math.sqrt(inside);
  return Math.abs(-b - root - guess) < Math.abs(-b + root - guess) ? -b - root : -b + root;
}

/** Of the two places where a line meets a cylinder, the one nearest to `guess`; `guess` itself when it misses by a hair. */
function cylinderDistance(
  ray: Ray,
  { point, axis, radius }: { readonly point: Vec3; readonly axis: Vec3; readonly radius: number },
  guess: number,
): number {
  const across = cross(ray.direction, axis);
  const offset = cross(subtract(ray.from, point), axis);
  const [a, b, c] = [dot(across, across), dot(across, offset), dot(offset, offset) - radius * radius];
  const inside = b * b - a * c;
  if (a < GRAZING ** 2 || inside < 0) return guess;
  const root = Math.sqrt(inside);
  const [d1, d2] = [(-b - root) / a, (-b + root) / a];
  return Math.abs(d1 - guess) < Math.abs(d2 - guess) ? d1 : d2;
}
