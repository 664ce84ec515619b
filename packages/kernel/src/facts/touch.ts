/** How solids touch: over an area, along an edge, or in a point. */
import {
  FACE_PLANE,
  chain,
  carry,
  cross,
  distance,
  dot,
  inverse,
  scale,
  add,
  turnVector,
  unit,
  subtract,
  type Contact,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import {
  moved,
  occurrences,
  progressRange,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
} from '../occt/occt.ts';
import { commonOf } from './common.ts';
import { planeOf, type FaceDistance, type PlacedSolid } from './apart.ts';

type Two = readonly [PlacedSolid, PlacedSolid];

/** Common areas smaller than this (mm²), and lines shorter than this (mm), are noise. */
const MIN_AREA = 1e-9;
const MIN_LINE_MM = 1e-5;
/** Faces that touch in more pairs than this are reported by the first of them. */
const MAX_PAIRS = 40;

/** @param found all pairs of faces that touch, not empty */
export function contactOf(occt: Occt, two: Two, found: readonly FaceDistance[]): Contact {
  const areas = found.slice(0, MAX_PAIRS).flatMap((pair) => {
    if (!mayShareArea(two, pair)) return [];
    const common = withFaces(occt, two, pair, (a, b) => commonOf(occt, a, b));
    return common.area > MIN_AREA ? [{ ...common, pair }] : [];
  });
  const area = areas.reduce((sum, one) => sum + one.area, 0);
  const [widest] = [...areas].sort((p, q) => q.area - p.area);
  const normal = normalAt(two, widest?.pair ?? found[0]!);
  if (widest) return { kind: 'area', area, at: carry(two[0].pose, widest.at), normal };
  const lines = found.slice(0, MAX_PAIRS).map((pair) => lineOf(occt, two, pair));
  const isEdge = lines.some((line) => line > MIN_LINE_MM) || spread(found) > MIN_LINE_MM;
  return { kind: isEdge ? 'edge' : 'point', area: 0, at: found[0]!.onA, normal };
}

/** Flat faces that look at each other, or curved ones of one kind. */
function mayShareArea([first, second]: Two, { a, b }: FaceDistance): boolean {
  const [p, q] = [first.shape.faceKind[a], second.shape.faceKind[b]];
  if (p !== FACE_PLANE && q !== FACE_PLANE) return p === q;
  if (p !== q) return false;
  return dot(planeOf(first, a).normal, planeOf(second, b).normal) < -LOOKING_AT;
}
/** Cosine: what touches over an area is parallel. */
const LOOKING_AT = 1 - 1e-9;

/** Both faces in the frame of the first, with the hair between them closed. */
function withFaces<T>(
  occt: Occt,
  [first, second]: Two,
  { a, b, onA, onB }: FaceDistance,
  work: (a: ReturnType<typeof moved>, b: ReturnType<typeof moved>, keep: Keep) => T,
): T {
  return scope((keep) => {
    const closed: Pose = { ...second.pose, shift: add(second.pose.shift, subtract(onA, onB)) };
    const there = chain(inverse(first.pose), closed);
    const face = uniqueShapes({ occt, keep }, first.solid, 'TopAbs_FACE')[a]!;
    const other = keep(moved(occt, uniqueShapes({ occt, keep }, second.solid, 'TopAbs_FACE')[b]!, there));
    return work(face, other, keep);
  });
}

/** How long a line two faces touch along, mm. */
const lineOf = (occt: Occt, two: Two, pair: FaceDistance): number =>
  withFaces(occt, two, pair, (a, b, keep) => {
    const section = keep(new occt.BRepAlgoAPI_Section(a, b, false));
    section.Build(progressRange({ occt, keep }));
    const edges = occurrences({ occt, keep }, keep(section.Shape()), 'TopAbs_EDGE');
    const properties = keep(new occt.GProp_GProps());
    let all = 0;
    for (const edge of edges) {
      occt.BRepGProp.LinearProperties(edge, properties, false, false);
      all += properties.Mass();
    }
    section.Clear();
    return all;
  });

const spread = (found: readonly FaceDistance[]): number =>
  Math.max(...found.map(({ onA }) => distance(onA, found[0]!.onA)));

/** Out of the first, where it is flat; else towards the other. */
function normalAt([first, second]: Two, { a, b, onA, onB }: FaceDistance): Vec3 {
  if (first.shape.faceKind[a] === FACE_PLANE) return planeOf(first, a).normal;
  if (second.shape.faceKind[b] === FACE_PLANE) return scale(planeOf(second, b).normal, -1);
  const way = subtract(onB, onA);
  if (dot(way, way) > 1e-24) return unit(way);
  return facetNormal(first, a, onA);
}

/** That of the facet whose middle is nearest. */
function facetNormal({ shape, pose }: PlacedSolid, face: number, near: Vec3): Vec3 {
  const { positions, triangles, faceOfTriangle } = shape;
  const corner = (i: number): Vec3 => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
  let [least, best]: [number, Vec3] = [Infinity, [0, 0, 1]];
  for (let t = 0; t < faceOfTriangle.length; t++) {
    if (faceOfTriangle[t] !== face) continue;
    const [p, q, r] = [0, 1, 2].map((k) => corner(triangles[3 * t + k]!)) as [Vec3, Vec3, Vec3];
    const middle = carry(pose, scale(add(add(p, q), r), 1 / 3));
    const off = distance(middle, near);
    if (off >= least) continue;
    const [u, v] = [subtract(q, p), subtract(r, p)];
    [least, best] = [off, turnVector(pose.turn, unit(cross(u, v)))];
  }
  return best;
}
