/** Which way a surface faces where something lands on it: at a face, or in the middle of the faces at an edge or a corner. */
import { MEETING, MERGED } from '../document/naming.ts';
import { cleanDirection } from '../space/matrix.ts';
import { carryBack, turnVector } from '../space/pose.ts';
import { add, cross, dot, length, scale, subtract, unit, type Vec3 } from '../space/vector.ts';
import type { Plane } from '../space/plane.ts';
import { isOnFace } from './meetings.ts';
import type { SnapInstance } from './scene.ts';
import { FACE_CYLINDER, FACE_PLANE, FACE_SPHERE, FACE_STRIDE, type SnapShape } from './shape.ts';
import type { Snap } from './snap.ts';

/** Which way a surface faces, and in which words. */
export interface Landing {
  /** Outward, length 1, in the world. */
  readonly normal: Vec3;
  /** What it is the normal of, in words. */
  readonly words: string;
}

/** The way out at a caught point; undefined where nothing of the part faces anywhere there. */
export function landingNormal(
  instance: SnapInstance,
  snap: Pick<Snap, 'point' | 'feature'>,
): Landing | undefined {
  const names = (snap.feature ?? '').split(MEETING);
  const normals: Vec3[] = [];
  const { shape } = instance;
  for (let face = 0; face < shape.faceKind.length; face++) {
    if (!names.includes(shape.names[shape.faceName[face]!]!) || !isOnFace(instance, face, snap.point))
      continue;
    const normal = outwardAt(instance, face, snap.point);
    if (normal) normals.push(normal);
  }
  const sum = normals.reduce(add, [0, 0, 0]);
  if (length(sum) < MIN_SUM) return undefined;
  const words =
    normals.length === 1
      ? `normal of ${names[0]!.split(MERGED)[0]}`
      : `midway between the ${normals.length} faces that meet there`;
  return { normal: unit(sum), words };
}
/** Normals that cancel one another point nowhere. */
const MIN_SUM = 1e-6;

/** The way out of a solid at a point of its surface: the middle of the faces that meet there; undefined away from them all. */
export function wayOutAt(instance: SnapInstance, point: Vec3): Vec3 | undefined {
  let sum: Vec3 = [0, 0, 0];
  for (let face = 0; face < instance.shape.faceKind.length; face++)
    if (isOnFace(instance, face, point)) sum = add(sum, outwardAt(instance, face, point) ?? [0, 0, 0]);
  return length(sum) < MIN_SUM ? undefined : cleanDirection(unit(sum));
}

/** The plane of the flat face that was caught, in the world; undefined where it is round, or no face. */
export function planeUnder(
  instance: SnapInstance,
  { point, feature }: Pick<Snap, 'point' | 'feature'>,
): Plane | undefined {
  const { shape } = instance;
  for (let face = 0; face < shape.faceKind.length; face++) {
    if (shape.faceKind[face] !== FACE_PLANE || shape.names[shape.faceName[face]!] !== feature) continue;
    if (!isOnFace(instance, face, point)) continue;
    const normal = outwardAt(instance, face, point)!;
    // Quarter turns leave no noise in an axis.
    const main = normal.findIndex((n) => Math.abs(n) > 1 - SQUARE);
    return {
      point,
      normal: main < 0 ? normal : (normal.map((n, i) => (i === main ? Math.sign(n) : 0)) as unknown as Vec3),
    };
  }
  return undefined;
}
/** A normal this near to an axis (1 − cosine) is that axis. */
const SQUARE = 1e-15;

/** The outward normal of a face's true surface at a point on it, in the world; of its facet for free-form faces. */
export function outwardAt(instance: SnapInstance, face: number, world: Vec3): Vec3 | undefined {
  const { shape, pose } = instance;
  const data = FACE_STRIDE * face;
  const f = shape.faces;
  const direction: Vec3 = [f[data + 3]!, f[data + 4]!, f[data + 5]!];
  if (shape.faceKind[face] === FACE_PLANE) return turnVector(pose.turn, direction);
  const own = carryBack(pose, world);
  const facet = facetNear(shape, face, own)?.normal;
  if (!facet) return undefined;
  const offset = subtract(own, [f[data]!, f[data + 1]!, f[data + 2]!]);
  let radial: Vec3 | undefined;
  if (shape.faceKind[face] === FACE_SPHERE) radial = offset;
  if (shape.faceKind[face] === FACE_CYLINDER)
    radial = subtract(offset, scale(direction, dot(offset, direction)));
  if (!radial || length(radial) === 0) return turnVector(pose.turn, facet);
  const normal = unit(radial);
  return turnVector(pose.turn, dot(normal, facet) < 0 ? scale(normal, -1) : normal);
}

interface Facet {
  readonly middle: Vec3;
  /** Outward, length 1. */
  readonly normal: Vec3;
}

/** The facet of a face whose middle is nearest to a point, in the shape’s own frame. */
export function facetNear(shape: SnapShape, face: number, own: Vec3): Facet | undefined {
  const { positions, triangles, faceOfTriangle } = shape;
  const at = (i: number): Vec3 => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
  let best: Facet | undefined;
  let min = Infinity;
  for (let t = 0; t < faceOfTriangle.length; t++) {
    if (faceOfTriangle[t] !== face) continue;
    const [a, b, c] = [at(triangles[3 * t]!), at(triangles[3 * t + 1]!), at(triangles[3 * t + 2]!)];
    const middle = scale(add(add(a, b), c), 1 / 3);
    const off = length(subtract(middle, own));
    const normal = cross(subtract(b, a), subtract(c, a));
    if (off < min && length(normal) > 0) [min, best] = [off, { middle, normal: unit(normal) }];
  }
  return best;
}
