/** How far apart two things lie along a path: from foot to foot, following its edges. World coordinates, mm. */
import { GAUSS, distance, dot, length, subtract, faultOf, type Vec3 } from '@kadrel/core';
import { BuildError, progressRange, uniqueShapes, type Scoped, type TopoDS_Shape } from '../occt/occt.ts';

/** An edge of the path, run through in its own sense or against it. */
interface Leg {
  readonly edge: TopoDS_Shape;
  readonly first: number;
  readonly last: number;
  /** Where it is at a parameter, and how it goes on from there. */
  readonly at: (parameter: number) => { readonly point: Vec3; readonly slope: Vec3 };
  readonly length: number;
}

interface Path {
  /** In order, each with its length before it and whether it is run through from its last end. */
  readonly legs: readonly { readonly leg: Leg; readonly isReversed: boolean; readonly before: number }[];
  readonly length: number;
  readonly isClosed: boolean;
}

/** Ends nearer than this (mm) are one. */
const SAME_MM = 1e-6;
/** Edges are integrated in so many pieces: exact on lines, circles and single cubics of even pace, to 1e-12 of the rest. */
const PIECES = 32;

/**
 * Along the first of some shapes whose edges are one path, from end to end or round. Throws BuildError where none is, or a thing is
 * nowhere.
 * @param things points, edges, faces, solids
 */
export function distanceAlong(
  scoped: Scoped,
  paths: readonly TopoDS_Shape[],
  things: readonly [TopoDS_Shape, TopoDS_Shape],
) {
  const path = firstPath(scoped, paths);
  const [a, b] = things.map((thing) => footOf(scoped, path, thing)) as [Foot, Foot];
  const apart = Math.abs(a.along - b.along);
  return {
    distance: path.isClosed ? Math.min(apart, path.length - apart) : apart,
    feet: [a.point, b.point] as const,
  };
}

interface Foot {
  readonly along: number;
  readonly point: Vec3;
}

function footOf(scoped: Scoped, { legs }: Path, thing: TopoDS_Shape): Foot {
  let best: { point: Vec3; off: number; at: Path['legs'][number] } | undefined;
  for (const at of legs) {
    const found = nearestOn(scoped, at.leg.edge, thing);
    if (found && (!best || found.off < best.off - SAME_MM)) best = { ...found, at };
  }
  if (!best) throw new BuildError(faultOf('path.no-way-along', {}));
  const { leg, isReversed, before } = best.at;
  const part = lengthBetween(leg, leg.first, parameterAt(leg, best.point));
  return { along: before + (isReversed ? leg.length - part : part), point: best.point };
}

function nearestOn({ occt, keep }: Scoped, edge: TopoDS_Shape, thing: TopoDS_Shape) {
  const measure = keep(new occt.BRepExtrema_DistShapeShape());
  measure.LoadS1(edge);
  measure.LoadS2(thing);
  measure.Perform(progressRange({ occt, keep }));
  if (!measure.IsDone() || measure.NbSolution() === 0) return undefined;
  const point = keep(measure.PointOnShape1(1));
  return { off: measure.Value(), point: [point.X(), point.Y(), point.Z()] as Vec3 };
}

/** Of a point on the leg: the best of many, and then Newton's method on the distance along the slope. */
function parameterAt({ first, last, at }: Leg, point: Vec3): number {
  const samples = Array.from({ length: PIECES + 1 }, (_, i) => first + ((last - first) * i) / PIECES);
  const offs = samples.map((parameter) => distance(at(parameter).point, point));
  let found = samples[offs.indexOf(Math.min(...offs))]!;
  for (let i = 0; i < MAX_STEPS; i++) {
    const { point: there, slope } = at(found);
    const step = dot(subtract(point, there), slope) / dot(slope, slope);
    found = Math.max(first, Math.min(last, found + step));
    if (Math.abs(step) * length(slope) < SAME_MM ** 2) break;
  }
  return found;
}
const MAX_STEPS = 20;

/** Gauss–Legendre in equal pieces. */
function lengthBetween({ at }: Pick<Leg, 'at'>, from: number, to: number): number {
  const step = (to - from) / PIECES;
  let sum = 0;
  for (let i = 0; i < PIECES; i++)
    for (const [node, weight] of GAUSS)
      sum += ((weight * step) / 2) * length(at(from + step * (i + (1 + node) / 2)).slope);
  return sum;
}

function legOf({ occt, keep }: Scoped, edge: TopoDS_Shape): Leg {
  const curve = keep(new occt.BRepAdaptor_Curve(keep(occt.TopoDS.Edge(edge))));
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const at = (parameter: number) => {
    const { Point, D1 } = curve.EvalD1(parameter) as unknown as Record<'Point' | 'D1', Coordinates>;
    const found = { point: triple(Point), slope: triple(D1) };
    Point.delete();
    D1.delete();
    return found;
  };
  return { edge, first, last, at, length: lengthBetween({ at }, first, last) };
}

interface Coordinates {
  X(): number;
  Y(): number;
  Z(): number;
  delete(): void;
}
const triple = (of: Coordinates): Vec3 => [of.X(), of.Y(), of.Z()];

/** Throws BuildError where none of them is a path. */
function firstPath(scoped: Scoped, shapes: readonly TopoDS_Shape[]): Path {
  for (const shape of shapes) {
    const path = pathOf(scoped, shape);
    if (path) return path;
  }
  throw new BuildError(faultOf('path.branches', {}));
}

/** Its edges one after another, from an end that nothing else begins at where there is one; undefined where they are no path. */
function pathOf(scoped: Scoped, shape: TopoDS_Shape): Path | undefined {
  const left = uniqueShapes(scoped, shape, 'TopAbs_EDGE')
    .map((edge) => legOf(scoped, edge))
    .filter((leg) => leg.length > SAME_MM);
  const endsOf = ({ first, last, at }: Leg) => [at(first).point, at(last).point] as const;
  const meetings = (end: Vec3) =>
    left.flatMap(endsOf).filter((other) => distance(other, end) < SAME_MM).length;
  const ends = left.flatMap(endsOf);
  if (left.length === 0 || ends.some((end) => meetings(end) > 2)) return undefined;
  const start = ends.find((end) => meetings(end) === 1);
  let end = start ?? ends[0]!;
  const legs: Path['legs'][number][] = [];
  let before = 0;
  while (left.length > 0) {
    const next = left.findIndex((leg) => endsOf(leg).some((other) => distance(other, end) < SAME_MM));
    if (next < 0) return undefined;
    const [leg] = left.splice(next, 1) as [Leg];
    const [from, to] = endsOf(leg);
    const isReversed = distance(from, end) >= SAME_MM;
    legs.push({ leg, isReversed, before });
    before += leg.length;
    end = isReversed ? from : to;
  }
  return { legs, length: before, isClosed: start === undefined };
}
