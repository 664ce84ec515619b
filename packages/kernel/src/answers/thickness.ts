/** How thick the material is below a face. */
import {
  FACE_PLANE,
  AT_ORIGIN,
  along,
  carry,
  castOnShape,
  cross,
  distance,
  dot,
  length,
  nameFit,
  onSurface,
  scale,
  subtract,
  type KadrelDocument,
  type SnapShape,
  type Target,
  type Vec3,
} from '@kadrel/core';
import type { Thing, Around } from './things.ts';

/** Through the material from a face, square to it: at the point that was picked, or in the middle of the face. */
export function thicknessOf({ shapes, document }: Around, { solids: [solid] }: Thing, target: Target) {
  if (!solid || !('part' in target) || target.at === undefined) return {};
  const shape = shapes.snapsOf(shapes.contentOf(document, solid));
  const start = startOn(shape, target, document);
  if (!start) return {};
  const skin = {
    from: along(start.point, start.normal, -start.sag - SKIN_MM),
    direction: scale(start.normal, -1),
  };
  const hit = castOnShape(shape, skin);
  if (!hit) return {};
  const face = shape.faceOfTriangle[hit.triangle]!;
  const instance = { part: solid.item, pose: AT_ORIGIN, shape };
  const { point } = onSurface({ instance, distance: hit.distance, face }, skin);
  return {
    thickness: distance(start.point, point),
    from: carry(solid.pose, start.point),
    to: carry(solid.pose, point),
  };
}

/** A ray starts this far below the face, mm, so that it does not meet it: facets are in single precision. */
const SKIN_MM = 1e-4;

/** On a face where it is nearest to what was picked, or in the middle of its largest facet; in the frame of the solid. */
function startOn(shape: SnapShape, target: Extract<Target, { part: string }>, document: KadrelDocument) {
  let best: { face: number; middle: Vec3; normal: Vec3 } | undefined;
  let least = Infinity;
  shape.faceOfTriangle.forEach((face, t) => {
    if (nameFit(target.at!, shape.names[shape.faceName[face]!]!, document) === 0) return;
    const [a, b, c] = cornersOf(shape, t);
    const middle = [0, 1, 2].map((i) => (a[i]! + b[i]! + c[i]!) / 3) as unknown as Vec3;
    const off = target.near ? distance(middle, target.near) : -areaOf(a, b, c);
    const normal = unitNormal(a, b, c);
    if (off < least && normal) [least, best] = [off, { face, middle, normal }];
  });
  return best && ontoSurface(shape, best, target.near);
}

/** From the facet onto the true surface, with the way out of it, and how far the facet is below it, mm. A point that was picked on a flat face stays where it is. */
function ontoSurface(
  shape: SnapShape,
  { face, middle, normal }: { face: number; middle: Vec3; normal: Vec3 },
  near: Vec3 | undefined,
): { point: Vec3; normal: Vec3; sag: number } {
  if (near && shape.faceKind[face] === FACE_PLANE) return { point: near, normal, sag: 0 };
  const above = ABOVE_CHORDS * shape.chordMm + SKIN_MM;
  const ray = { from: along(middle, normal, above), direction: scale(normal, -1) };
  const instance = { part: '', pose: AT_ORIGIN, shape };
  const found = onSurface({ instance, distance: above, face }, ray);
  const sag = Math.max(0, dot(subtract(found.point, middle), normal));
  return { point: found.point, normal: found.normal ?? normal, sag };
}

/** The true surface is below, however far it stands out from its facets. */
const ABOVE_CHORDS = 8;

const cornersOf = ({ positions, triangles }: SnapShape, t: number): [Vec3, Vec3, Vec3] =>
  [0, 1, 2].map((k) => {
    const at = 3 * triangles[3 * t + k]!;
    return [positions[at]!, positions[at + 1]!, positions[at + 2]!] as const;
  }) as [Vec3, Vec3, Vec3];

const areaOf = (a: Vec3, b: Vec3, c: Vec3) => length(cross(subtract(b, a), subtract(c, a)));

function unitNormal(a: Vec3, b: Vec3, c: Vec3): Vec3 | undefined {
  const across = cross(subtract(b, a), subtract(c, a));
  const size = length(across);
  return size === 0 ? undefined : scale(across, 1 / size);
}
