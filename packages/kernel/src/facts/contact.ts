/**
 * How far solids can go towards a direction until they touch others. First on facets: what of the moving solids looks
 * ahead is laid over what of the fixed ones looks back, triangle by triangle, in the plane square to the way; sliding
 * past one another is not contact, since it overlaps nowhere. Then exactly, on the true surfaces of the pairs of faces
 * that came first.
 */
import {
  acrossTo,
  buildBvh,
  clippedToTriangle,
  cross,
  dot,
  scale,
  searchBvh,
  stripWidth,
  subtract,
  carry,
  carryBack,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import {
  distanceTo,
  moved,
  progressRange,
  scope,
  uniqueShapes,
  type Keep,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { planeIn, roundContact, type PlacedFace } from './roundContact.ts';
import { meshShape } from './mesh.ts';

/** A solid in the world: its shape in its own frame, and where it stands. */
export interface Body {
  readonly shape: TopoDS_Shape;
  /** Chord tolerance of its facets, mm. */
  readonly chord: number;
  readonly pose: Pose;
  /** The fixed one and the moving ones run into each other as they stand. */
  readonly overlaps?: boolean;
}

/** Facets whose normal is squarer to the way than this (cosine) cannot be run into. */
const SIDEWAYS = 1e-9;
/** Strips that overlap by less than this (mm) only slide along: facets are in single precision. */
const MIN_STRIP_MM = 1e-3;
/** Facets lie beside their surface by the chord; what is nearer than a few of them may come first. */
const SLACK_CHORDS = 4;
const SLACK_MM = 1e-3;

/** Triangles of one side, nine numbers each: across, across, and along the way. */
interface Facets {
  readonly corners: Float64Array;
  readonly bodies: Uint32Array;
  readonly faces: Uint32Array;
}

interface Pair {
  readonly moving: number;
  readonly movingFace: number;
  readonly fixed: number;
  readonly fixedFace: number;
  way: number;
}

/** mm, negative where they run into each other already; null when nothing is in the way. @param towards length 1 */
export function contactWay(
  occt: Occt,
  { moving, fixed }: { readonly moving: readonly Body[]; readonly fixed: readonly Body[] },
  towards: Vec3,
): number | null {
  const chord = Math.max(...[...moving, ...fixed].map((body) => body.chord));
  const slack = SLACK_CHORDS * 2 * chord + SLACK_MM;
  const pairs = facetPairs(occt, { moving, fixed }, { towards, slack });
  if (pairs.length === 0) return null;
  const first = Math.min(...pairs.map(({ way }) => way));
  let min: number | null = null;
  for (const pair of pairs.filter(({ way }) => way <= first + slack).sort((a, b) => a.way - b.way)) {
    const exact = exactWay(
      occt,
      { moving: moving[pair.moving]!, fixed: fixed[pair.fixed]!, pair },
      { towards, slack },
    );
    if (exact !== null && (min === null || exact < min)) min = exact;
  }
  return min ?? first;
}

function facetsOf(
  occt: Occt,
  bodies: readonly Body[],
  { towards, ahead }: { readonly towards: Vec3; readonly ahead: 1 | -1 },
): Facets {
  const u = acrossTo(towards);
  const v = cross(towards, u);
  const [corners, ofBody, ofFace] = [[] as number[], [] as number[], [] as number[]];
  bodies.forEach(({ shape, chord, pose }, body) => {
    const { positions, triangles, faceOfTriangle } = meshShape(occt, shape, chord);
    for (let t = 0; t < triangles.length / 3; t++) {
      const [a, b, c] = [0, 1, 2].map((corner) => {
        const at = 3 * triangles[3 * t + corner]!;
        return carry(pose, [positions[at]!, positions[at + 1]!, positions[at + 2]!]);
      }) as [Vec3, Vec3, Vec3];
      const normal = cross(subtract(b, a), subtract(c, a));
      if (ahead * dot(normal, towards) <= SIDEWAYS * Math.sqrt(dot(normal, normal))) continue;
      for (const p of [a, b, c]) corners.push(dot(p, u), dot(p, v), dot(p, towards));
      ofBody.push(body);
      ofFace.push(faceOfTriangle[t]!);
    }
  });
  return {
    corners: Float64Array.from(corners),
    bodies: Uint32Array.from(ofBody),
    faces: Uint32Array.from(ofFace),
  };
}

/** The pairs of faces that come first on facets, each with its way. */
function facetPairs(
  occt: Occt,
  { moving, fixed }: { readonly moving: readonly Body[]; readonly fixed: readonly Body[] },
  { towards, slack }: { readonly towards: Vec3; readonly slack: number },
): Pair[] {
  const front = facetsOf(occt, moving, { towards, ahead: 1 });
  const back = facetsOf(occt, fixed, { towards, ahead: -1 });
  const tree = buildBvh(boxesOf(back));
  const pairs = new Map<string, Pair>();
  let best = Infinity;
  for (let t = 0; t < front.bodies.length; t++) {
    const a = front.corners.subarray(9 * t, 9 * t + 9);
    searchBvh(
      tree,
      isOver(a, () => best + slack),
      (other) => {
        const way = wayBetween(a, back.corners.subarray(9 * other, 9 * other + 9));
        const body = back.bodies[other]!;
        if (way === undefined || way > best + slack || (way < -slack && !fixed[body]!.overlaps)) return;
        best = Math.min(best, way);
        const [movingFace, fixedFace] = [front.faces[t]!, back.faces[other]!];
        const key = `${front.bodies[t]!}/${movingFace}/${body}/${fixedFace}`;
        const known = pairs.get(key);
        if (known) known.way = Math.min(known.way, way);
        else pairs.set(key, { moving: front.bodies[t]!, movingFace, fixed: body, fixedFace, way });
      },
    );
  }
  return [...pairs.values()];
}

/** Six numbers a facet. */
function boxesOf({ bodies, corners }: Facets): Float64Array {
  const boxes = new Float64Array(bodies.length * 6);
  for (let t = 0; t < bodies.length; t++)
    for (let axis = 0; axis < 3; axis++) {
      const three = [0, 1, 2].map((corner) => corners[9 * t + 3 * corner + axis]!);
      boxes[6 * t + axis] = Math.min(...three);
      boxes[6 * t + 3 + axis] = Math.max(...three);
    }
  return boxes;
}

/** Whether a box lies over a facet, and no farther on than is asked. */
function isOver(a: Float64Array, max: () => number): (b: Float64Array, at: number) => boolean {
  const [u0, u1] = [Math.min(a[0]!, a[3]!, a[6]!), Math.max(a[0]!, a[3]!, a[6]!)];
  const [v0, v1] = [Math.min(a[1]!, a[4]!, a[7]!), Math.max(a[1]!, a[4]!, a[7]!)];
  const reach = Math.max(a[2]!, a[5]!, a[8]!);
  return (b, at) =>
    b[at]! < u1 && b[at + 3]! > u0 && b[at + 1]! < v1 && b[at + 4]! > v0 && b[at + 2]! - reach <= max();
}

type Flat = readonly [number, number];

/** The least way between two triangles where they lie over one another; undefined where they do not, or only by a hair. */
function wayBetween(a: Float64Array, b: Float64Array): number | undefined {
  const flat = (t: Float64Array) =>
    [0, 3, 6].map((at) => [t[at]!, t[at + 1]!] as const) as [Flat, Flat, Flat];
  const region = clippedToTriangle(flat(a), flat(b));
  if (region.length < 3 || stripWidth(region) < MIN_STRIP_MM) return undefined;
  const [onA, onB] = [planeOf(a), planeOf(b)];
  return Math.min(...region.map(([x, y]) => onB(x, y) - onA(x, y)));
}

/** Height along the way over a point across it. */
function planeOf(t: Float64Array): (x: number, y: number) => number {
  const [ux, uy, uz] = [t[3]! - t[0]!, t[4]! - t[1]!, t[5]! - t[2]!];
  const [vx, vy, vz] = [t[6]! - t[0]!, t[7]! - t[1]!, t[8]! - t[2]!];
  const det = ux * vy - uy * vx;
  const sx = (uz * vy - uy * vz) / det;
  const sy = (ux * vz - uz * vx) / det;
  return (x, y) => t[2]! + sx * (x - t[0]!) + sy * (y - t[1]!);
}

/** Closer than this (mm) one more step of Newton's method is exact to its square. */
const LAST_STEP_MM = 2e-6;
const MAX_STEPS = 60;

/** The way between two faces on their true surfaces. */
function exactWay(
  occt: Occt,
  { moving, fixed, pair }: { readonly moving: Body; readonly fixed: Body; readonly pair: Pair },
  { towards, slack }: { readonly towards: Vec3; readonly slack: number },
): number | null {
  return scope((keep) => {
    const a = worldFace(occt, moving, pair.movingFace, keep);
    const b = worldFace(occt, fixed, pair.fixedFace, keep);
    const flat = flatWay({ occt, keep }, { a, b }, towards);
    if (flat !== undefined) return flat;
    const round = roundContact({ occt, keep }, [a, b], towards);
    // A formula knows nothing of where faces end.
    if (round && isOn(occt, a, subtract(round.at, scale(towards, round.way))) && isOn(occt, b, round.at))
      return round.way;
    let clear = pair.way - slack;
    let way = clear;
    let facing: Vec3 | undefined;
    for (let i = 0; i < MAX_STEPS; i++) {
      const gap = gapAt({ occt, keep }, [a, b], scale(towards, way));
      if (!gap || gap.distance < 1e-9) {
        // A step too far: back to the last place that was clear, and on by what is surely free there.
        if (i === 0) way = clear -= slack;
        else way = (clear + way) / 2;
        continue;
      }
      const closing = dot(gap.direction, towards);
      // A hair too far, the direction turns round; the same step then goes back.
      const isBeyond = facing !== undefined && dot(facing, gap.direction) < 0;
      if (closing <= 0 && !isBeyond) return null;
      if (!isBeyond) {
        clear = way;
        facing = gap.direction;
      }
      way += gap.distance / closing;
      if (gap.distance < LAST_STEP_MM) return way;
    }
    return way;
  });
}

function worldFace(occt: Occt, { shape, pose }: Body, index: number, keep: Keep): PlacedFace {
  const face = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE')[index]!;
  return { face, pose };
}

/** Points within this (mm) of a face lie on it. */
const ON_FACE_MM = 1e-6;

const isOn = (occt: Occt, { face, pose }: PlacedFace, point: Vec3): boolean =>
  distanceTo(occt, face, carryBack(pose, point)) < ON_FACE_MM;

/** For two parallel planes: by their equations. */
function flatWay(
  { occt, keep }: Scoped,
  { a, b }: { readonly a: PlacedFace; readonly b: PlacedFace },
  towards: Vec3,
): number | undefined {
  const [p, q] = [planeIn({ occt, keep }, a), planeIn({ occt, keep }, b)];
  if (!p || !q) return undefined;
  const across = cross(p.normal, q.normal);
  if (dot(across, across) > 1e-24) return undefined;
  return dot(subtract(q.point, p.point), q.normal) / dot(towards, q.normal);
}

/** Between two faces, with the first one moved. */
function gapAt(
  { occt, keep: outer }: Scoped,
  [a, b]: readonly [PlacedFace, PlacedFace],
  by: Vec3,
): { distance: number; direction: Vec3 } | undefined {
  return scope((keep) => {
    const shift = a.pose.shift.map((n, i) => n + by[i]!) as unknown as Vec3;
    const first = keep(moved(occt, a.face, { ...a.pose, shift }));
    const second = keep(moved(occt, b.face, b.pose));
    const measure = keep(new occt.BRepExtrema_DistShapeShape());
    measure.LoadS1(first);
    measure.LoadS2(second);
    measure.Perform(progressRange({ occt, keep: outer }));
    if (!measure.IsDone() || measure.NbSolution() === 0) return undefined;
    const [p, q] = [keep(measure.PointOnShape1(1)), keep(measure.PointOnShape2(1))];
    const offset: Vec3 = [q.X() - p.X(), q.Y() - p.Y(), q.Z() - p.Z()];
    const distance = Math.sqrt(dot(offset, offset));
    return { distance, direction: offset.map((n) => n / (distance || 1)) as unknown as Vec3 };
  });
}
