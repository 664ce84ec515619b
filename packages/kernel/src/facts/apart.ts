/** The least distance of two solids: exact on their true surfaces, of the faces that come nearest by facets. */
import {
  FACE_OTHER,
  FACE_PLANE,
  FACE_STRIDE,
  add,
  carry,
  carryBack,
  chain,
  cross,
  distance,
  dot,
  inverse,
  nearFaces,
  pointOver,
  scale,
  subtract,
  turnVector,
  type NearFaces,
  type Nearness,
  type PlacedShape,
  type SnapShape,
  type Vec3,
} from '@kadrel/core';
import {
  moved,
  pointShape,
  progressRange,
  read,
  scope,
  uniqueShapes,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { facesOfEdges } from './neighbours.ts';

/** A solid where it stands, with its facets. */
export interface PlacedSolid extends PlacedShape {
  readonly solid: TopoDS_Shape;
  /** Least and greatest coordinate along a direction of the world, mm; exact. */
  range(direction: Vec3): readonly [number, number];
}

/** Where two faces are nearest to one another, in the world, mm. */
export interface FaceDistance {
  readonly distance: number;
  readonly onA: Vec3;
  readonly onB: Vec3;
  /** Their places in each shape. */
  readonly a: number;
  readonly b: number;
}

/** Sines below this are of planes that are parallel: over 10 m it comes to the tenth part of the kernel's tolerance. */
const PARALLEL_SINE = 1e-12;
/** Strips narrower than this many chords may be there by facets only. */
const STRIP_CHORDS = 4;
const MIN_STRIP_MM = 1e-4;

/**
 * All pairs of faces that are as near to one another as any, nearest first: of solids that touch, every pair that does.
 * @param reach farther apart than this, mm, nothing is reported
 */
export function nearestFaces(
  occt: Occt,
  [a, b]: readonly [PlacedSolid, PlacedSolid],
  reach = Infinity,
): { readonly found: FaceDistance[]; readonly near: Nearness } | undefined {
  const near = nearFaces(a, b, reach);
  if (!near) return undefined;
  const found: FaceDistance[] = [];
  let best = Infinity;
  for (const pair of ordered(near.faces, [a, b])) {
    if (pair.gap - near.slack > best) continue;
    const exact = flatDistance(pair, [a, b]) ?? faceDistance(occt, pair, [a, b]);
    if (exact.distance > best + SAME_MM) continue;
    best = Math.min(best, exact.distance);
    found.push(exact);
    if (isSurelyNearest(exact, [a, b])) break;
  }
  found.sort((p, q) => p.distance - q.distance);
  return { found: found.filter((one) => one.distance <= best + SAME_MM), near };
}

/** Whether two planes that far apart have one solid on either side: then no other faces are nearer. Of solids that touch all pairs are wanted. */
function isSurelyNearest(
  { distance: size, onA, onB }: FaceDistance,
  [a, b]: readonly [PlacedSolid, PlacedSolid],
) {
  if (size < SAME_MM) return false;
  const way = scale(subtract(onB, onA), 1 / size);
  return b.range(way)[0] - a.range(way)[1] >= size - SAME_MM;
}

/** Distances that differ by less than this (mm) are the same. */
const SAME_MM = 1e-7;

/** Flat faces first: they are cheap, and what they come to spares the others. */
const ordered = (faces: readonly NearFaces[], [a, b]: readonly [PlacedSolid, PlacedSolid]): NearFaces[] => {
  const cost = (one: NearFaces) =>
    Number(a.shape.faceKind[one.a] !== FACE_PLANE) + Number(b.shape.faceKind[one.b] !== FACE_PLANE);
  return [...faces].sort((p, q) => cost(p) - cost(q) || p.gap - q.gap);
};

/** For `nearFaces`: whether a face has flat neighbours alone. */
export const isBetweenFlat =
  (occt: Occt, solid: TopoDS_Shape, { faceKind }: SnapShape) =>
  (face: number): boolean =>
    facesOfEdges(occt, solid)
      .neighbours(face)
      ?.every((other) => faceKind[other] === FACE_PLANE) ?? false;

export const planeOf = ({ shape, pose }: PlacedShape, face: number) => {
  const [px, py, pz, nx, ny, nz] = shape.faces.subarray(FACE_STRIDE * face, FACE_STRIDE * face + 6);
  return { point: carry(pose, [px!, py!, pz!]), normal: turnVector(pose.turn, [nx!, ny!, nz!]) };
};

/** Of parallel flat faces that lie over one another: by their planes. */
function flatDistance(
  { a, b }: NearFaces,
  [first, second]: readonly [PlacedSolid, PlacedSolid],
): FaceDistance | undefined {
  if (first.shape.faceKind[a] !== FACE_PLANE || second.shape.faceKind[b] !== FACE_PLANE) return undefined;
  const [p, q] = [planeOf(first, a), planeOf(second, b)];
  const across = cross(p.normal, q.normal);
  if (dot(across, across) > PARALLEL_SINE ** 2) return undefined;
  const min = MIN_STRIP_MM + STRIP_CHORDS * Math.max(first.shape.chordMm, second.shape.chordMm);
  const over = pointOver({ ...first, face: a }, { ...second, face: b }, p.normal, min);
  if (!over) return undefined;
  const height = dot(subtract(q.point, p.point), p.normal);
  const onA = add(over, scale(p.normal, dot(subtract(p.point, over), p.normal)));
  return { distance: Math.abs(height), onA, onB: add(onA, scale(p.normal, height)), a, b };
}

/** On the true surfaces, in the frame of the first. */
function faceDistance(
  occt: Occt,
  pair: NearFaces,
  [first, second]: readonly [PlacedSolid, PlacedSolid],
): FaceDistance {
  const { a, b } = pair;
  return scope((keep) => {
    const there = chain(inverse(first.pose), second.pose);
    const face = uniqueShapes({ occt, keep }, first.solid, 'TopAbs_FACE')[a]!;
    const other = keep(moved(occt, uniqueShapes({ occt, keep }, second.solid, 'TopAbs_FACE')[b]!, there));
    const kinds = [first.shape.faceKind[a], second.shape.faceKind[b]];
    const isFlat = kinds.every((kind) => kind === FACE_PLANE);
    // Of cones, rings and free surfaces the kernel misses the nearest points now and then, and takes up to a minute over them.
    const exact = kinds.includes(FACE_OTHER) ? NOT_FOUND : nearestBetween(occt, face, other);
    const found =
      isFlat || exact.distance === 0
        ? exact
        : nearestOfAll(occt, [face, other], {
            nearest: exact,
            starts: pair.starts.map((at) => carryBack(first.pose, at)),
          });
    const [onA, onB] = found.points.map((point) => carry(first.pose, point)) as [Vec3, Vec3];
    return { distance: found.distance, onA, onB, a, b };
  });
}

/** A distance, mm, and a point of each where it is. */
export interface Nearest {
  readonly distance: number;
  readonly points: readonly [Vec3, Vec3];
}

const NOT_FOUND: Nearest = {
  distance: Infinity,
  points: [
    [0, 0, 0],
    [0, 0, 0],
  ],
};

/** From wherever the facets are near. */
function nearestOfAll(
  occt: Occt,
  faces: readonly [TopoDS_Shape, TopoDS_Shape],
  { nearest, starts }: { readonly nearest: Nearest; readonly starts: readonly Vec3[] },
): Nearest {
  return starts.map((start) => nearestFrom(occt, faces, start)).reduce(nearer, nearest);
}

const nearer = (a: Nearest, b: Nearest): Nearest => (b.distance < a.distance ? b : a);

/** The way is over when a round takes off less than this, mm; or after so many. */
const MIN_STEP_MM = 1e-12;
const MAX_ROUNDS = 60;

/** From a point to the nearest of one face, from there to the nearest of the other, and so on: each round is shorter. */
function nearestFrom(occt: Occt, [a, b]: readonly [TopoDS_Shape, TopoDS_Shape], start: Vec3): Nearest {
  let best: Nearest = { distance: Infinity, points: [start, start] };
  let from = start;
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const onB = nearestOn(occt, b, from);
    const onA = nearestOn(occt, a, onB);
    const size = distance(onA, onB);
    if (size >= best.distance - MIN_STEP_MM) return best;
    best = { distance: size, points: [onA, onB] };
    from = onA;
  }
  return best;
}

function nearestOn(occt: Occt, face: TopoDS_Shape, at: Vec3): Vec3 {
  const found = scope((keep) => nearestBetween(occt, pointShape({ occt, keep }, at), face));
  // At the point of a cone the kernel finds nothing.
  const corner = cornersOf(occt, face).reduce(
    (best, one) => (distance(one, at) < distance(best, at) ? one : best),
    FAR,
  );
  return found.distance <= distance(corner, at) ? found.points[1] : corner;
}

const FAR: Vec3 = [Infinity, Infinity, Infinity];

const cornersOf = (occt: Occt, face: TopoDS_Shape): Vec3[] =>
  scope((keep) =>
    uniqueShapes({ occt, keep }, face, 'TopAbs_VERTEX').map((corner) =>
      read(keep(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(corner)))), keep),
    ),
  );

/** The least distance of two shapes, and where, in their common frame. Infinite where the kernel finds none. */
export function nearestBetween(occt: Occt, a: TopoDS_Shape, b: TopoDS_Shape): Nearest {
  return scope((keep) => {
    const measure = keep(new occt.BRepExtrema_DistShapeShape());
    measure.LoadS1(a);
    measure.LoadS2(b);
    measure.Perform(progressRange({ occt, keep }));
    if (!measure.IsDone() || measure.NbSolution() === 0) return NOT_FOUND;
    const points = [read(measure.PointOnShape1(1), keep), read(measure.PointOnShape2(1), keep)] as const;
    // What it holds is only given back when it is asked something else.
    const nothing = pointShape({ occt, keep }, [0, 0, 0]);
    measure.LoadS1(nothing);
    measure.LoadS2(nothing);
    measure.Perform(progressRange({ occt, keep }));
    return { distance: distance(...points), points };
  });
}
