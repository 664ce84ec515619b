/**
 * How far a shape reaches along directions: exactly, from its true curves and surfaces. The kernel's own boxes are up to 4.9 mm too
 * wide where curved faces are cut, and 1e-7 mm round turned circles.
 */
import { dot, scale, type Box, type Vec3 } from '@kadrel/core';
import {
  ShapeMap,
  distanceTo,
  occurrences,
  scope,
  uniqueShapes,
  read,
  roughBox,
  type Coordinates,
  type Keep,
  type Scoped,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { onBall, onFree, onRing } from './farthest.ts';
import { onSurfaces, surfaceFoot, type SurfaceFoot } from './foot.ts';
import { canTurnBack, polesOfCurve, polesOfSurface } from './poles.ts';

/** Least and greatest coordinate along a direction, mm. */
export type Range = readonly [least: number, most: number];

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** The box round a shape, in its own frame. */
export function exactBox(occt: Occt, shape: TopoDS_Shape): Box {
  const ranges = reachesOf(occt, shape, AXES);
  return {
    min: ranges.map(([least]) => least) as unknown as Vec3,
    max: ranges.map(([, most]) => most) as unknown as Vec3,
  };
}

/** @param directions of length 1 */
export function reachesOf(occt: Occt, shape: TopoDS_Shape, directions: readonly Vec3[]): Range[] {
  return scope((keep) => {
    const limits = new Limits(directions);
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) =>
      keep(occt.TopoDS.Face(face)),
    );
    const edges = uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE').map((edge) =>
      keep(occt.TopoDS.Edge(edge)),
    );
    // Corners come first: most curves and surfaces between them are then seen to reach no farther.
    for (const corner of uniqueShapes({ occt, keep }, shape, 'TopAbs_VERTEX'))
      limits.reach(scope((inner) => read(occt.BRep_Tool.Pnt(inner(occt.TopoDS.Vertex(corner))), inner)));
    // Each in a scope of its own: thousands of small things that live long leave holes in the kernel's memory.
    const free = edges.filter(
      (edge) => scope((inner) => reachOfEdge({ occt, keep: inner }, edge, limits)) === 'later',
    );
    const beside = free.length > 0 ? facesAtEdges({ occt, keep }, faces) : undefined;
    for (const edge of free)
      scope((inner) => reachOfFree({ occt, keep: inner }, { edge, faces: beside?.get(edge) ?? [] }, limits));
    for (const face of faces) scope((inner) => reachOfFace({ occt, keep: inner }, face, limits));
    return limits.ranges();
  });
}

/** The farthest points found so far, both ways along each direction. */
class Limits {
  private readonly most: number[];
  /** What is surely reached, and found later: all that reaches less far is left out until then. */
  private readonly hinted: number[];
  private readonly ways: readonly Vec3[];

  constructor(private readonly directions: readonly Vec3[]) {
    this.ways = directions.flatMap((d) => [scale(d, -1), d]);
    this.most = this.ways.map(() => -Infinity);
    this.hinted = [...this.most];
  }

  /** @param point within SETTLED_MM of the shape */
  hint(point: Vec3): void {
    this.ways.forEach((way, i) => {
      this.hinted[i] = Math.max(this.hinted[i]!, dot(way, point) - SETTLED_MM);
    });
  }

  private reached(i: number): number {
    return Math.max(this.most[i]!, this.hinted[i]!);
  }

  reach(point: Vec3): void {
    this.ways.forEach((way, i) => this.reachAlong(i, dot(way, point)));
  }

  reachAlong(i: number, value: number): void {
    if (value > this.most[i]!) this.most[i] = value;
  }

  /** The ways along which the box that the kernel lays round an edge or a face reaches farther than what was found. */
  waysBeyond(occt: Occt, shape: TopoDS_Shape): Ways {
    const { min, max } = roughBox(occt, shape);
    const isBeyond = (way: Vec3, i: number) => {
      const maximum = way.reduce((sum, n, axis) => sum + n * (n > 0 ? max : min)[axis]!, 0);
      return maximum + SETTLED_MM > this.reached(i);
    };
    return new Set(this.ways.filter(isBeyond));
  }

  /** Calls for each way, or some of them, along which something at `value` would reach farther. */
  forEachWay(
    visit: (way: Vec3, reachAlong: (value: number) => void, reached: number) => void,
    some?: Ways,
  ): void {
    this.ways.forEach((way, i) => {
      if (!some || some.has(way)) visit(way, (value) => this.reachAlong(i, value), this.reached(i));
    });
  }

  ranges(): Range[] {
    return this.directions.map((_, i): Range => [clean(-this.most[2 * i]!), clean(this.most[2 * i + 1]!)]);
  }
}

/** What is left of a zero after a turn. */
const clean = (n: number) => (Math.abs(n) < 1e-12 ? 0 : n);

type Edge = ReturnType<Occt['TopoDS']['Edge']>;

interface EdgeBeside {
  readonly edge: Edge;
  readonly faces: readonly TopoDS_Face[];
}

/** The faces at each edge. */
function facesAtEdges({ occt, keep }: Scoped, faces: readonly TopoDS_Face[]): ShapeMap<TopoDS_Face[]> {
  const beside = new ShapeMap<TopoDS_Face[]>(occt);
  for (const face of faces)
    for (const edge of occurrences({ occt, keep }, face, 'TopAbs_EDGE')) {
      const list = beside.ensure(edge, () => []);
      if (!list.includes(face)) list.push(face);
    }
  return beside;
}

type Curve = InstanceType<Occt['BRepAdaptor_Curve']>;

/** Lines reach no farther than their ends. A free curve gives a hint, and is looked at when all hints are known. */
function reachOfEdge({ occt, keep }: Scoped, edge: Edge, limits: Limits): 'done' | 'later' {
  if (occt.BRep_Tool.Degenerated(edge)) return 'done';
  const curve = keep(new occt.BRepAdaptor_Curve(edge));
  const kind = curve.GetType() as unknown as string;
  if (kind === 'GeomAbs_Line') return 'done';
  if (kind === 'GeomAbs_Circle' || kind === 'GeomAbs_Ellipse') {
    const conic = keep(kind === 'GeomAbs_Circle' ? curve.Circle() : curve.Ellipse());
    reachOfConic({ conic, curve }, limits, keep);
    return 'done';
  }
  if (HAS_POLES.has(kind)) hintOfCurve(curve, limits, keep);
  return 'later';
}

function reachOfFree({ occt, keep }: Scoped, { edge, faces }: EdgeBeside, limits: Limits): void {
  const curve = keep(new occt.BRepAdaptor_Curve(edge));
  const kind = curve.GetType() as unknown as string;
  const ways = HAS_POLES.has(kind) ? turningWays(curve, limits.waysBeyond(occt, edge), keep) : undefined;
  if (ways?.size === 0) return;
  // Where free surfaces cross, curves and corners are within 1e-7 mm: they are put onto the surfaces themselves.
  reachOfFreeCurve(curve, { limits, ways }, onSurfaces(footsOf({ occt, keep }, faces)), keep);
}

type Ways = ReadonlySet<Vec3>;

/** Those along which a free curve can reach farther than its ends do. */
function turningWays(curve: Curve, ways: Ways, keep: Keep): Ways {
  const poles = ways.size > 0 ? polesOfCurve(curve, keep) : undefined;
  return poles ? new Set([...ways].filter((way) => canTurnBack(poles, way))) : ways;
}

/** Parts of a free curve where it is looked at first. */
const HINTS = [1 / 4, 1 / 2, 3 / 4];

function hintOfCurve(curve: Curve, limits: Limits, keep: Keep): void {
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  for (const part of HINTS) limits.hint(read(curve.EvalD0(first + part * (last - first)), keep));
}

const footsOf = ({ occt, keep }: Scoped, faces: readonly TopoDS_Face[]): SurfaceFoot[] =>
  faces.map((face) => surfaceFoot({ occt, keep }, face));

type Conic = ReturnType<Curve['Circle']> | ReturnType<Curve['Ellipse']>;

/** c + a·cos t + b·sin t reaches farthest along d where tan t = b·d / a·d. */
function reachOfConic(
  { conic, curve }: { readonly conic: Conic; readonly curve: Curve },
  limits: Limits,
  keep: Keep,
): void {
  const axes = keep(conic.Position());
  const [major, minor] =
    'Radius' in conic ? [conic.Radius(), conic.Radius()] : [conic.MajorRadius(), conic.MinorRadius()];
  const centre = read(axes.Location(), keep);
  const a = scale(read(axes.XDirection(), keep), major);
  const b = scale(read(axes.YDirection(), keep), minor);
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  limits.forEachWay((way, reachAlong) => {
    const [u, v] = [dot(a, way), dot(b, way)];
    const size = Math.hypot(u, v);
    if (size === 0) return;
    const from = Math.atan2(v, u) - first;
    const turns = Math.ceil(-from / FULL_TURN - SAME_ANGLE);
    if (from + turns * FULL_TURN <= last - first + SAME_ANGLE) reachAlong(dot(centre, way) + size);
  });
}
const FULL_TURN = 2 * Math.PI;
/** Radians that the end of an arc may miss its farthest point by: at so small an angle nothing is lost. */
const SAME_ANGLE = 1e-12;

/** Pieces of a free curve in each of which a coordinate turns back at most once. */
const TURN_PIECES = 64;

/** Where a coordinate turns back, by bisection. */
function reachOfFreeCurve(
  curve: Curve,
  { limits, ways }: { readonly limits: Limits; readonly ways: Ways | undefined },
  settle: (point: Vec3) => Vec3,
  keep: Keep,
): void {
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const at = (parameter: number) => {
    const { Point, D1 } = curve.EvalD1(parameter) as unknown as Record<'Point' | 'D1', Coordinates>;
    return { point: read(Point, keep), slope: read(D1, keep) };
  };
  const samples = Array.from(
    { length: TURN_PIECES + 1 },
    (_, i) => first + ((last - first) * i) / TURN_PIECES,
  );
  const found = samples.map(at);
  limits.forEachWay((way, reachAlong, reached) => {
    for (let i = 0; i < TURN_PIECES; i++) {
      const isRising = dot(found[i]!.slope, way) > 0;
      if (!isRising || dot(found[i + 1]!.slope, way) > 0) continue;
      let [a, b] = [samples[i]!, samples[i + 1]!];
      for (let round = 0; round < 50; round++) {
        const half = (a + b) / 2;
        if (dot(at(half).slope, way) > 0) a = half;
        else b = half;
      }
      const point = at((a + b) / 2).point;
      if (dot(point, way) > reached - SETTLED_MM) reachAlong(dot(settle(point), way));
    }
  }, ways);
}
/** More than a curve can be off the surfaces that it lies on. */
const SETTLED_MM = 1e-3;

/** Curves and surfaces that lie within the box round their poles, which the kernel knows at once. */
const HAS_POLES: ReadonlySet<string> = new Set([
  'GeomAbs_BezierCurve',
  'GeomAbs_BSplineCurve',
  'GeomAbs_BezierSurface',
  'GeomAbs_BSplineSurface',
]);

/** Surfaces that are straight one way reach farthest on their borders. */
const STRAIGHT: ReadonlySet<string> = new Set([
  'GeomAbs_Plane',
  'GeomAbs_Cylinder',
  'GeomAbs_Cone',
  'GeomAbs_SurfaceOfExtrusion',
]);

function reachOfFace({ occt, keep }: Scoped, face: TopoDS_Face, limits: Limits): void {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  const kind = surface.GetType() as unknown as string;
  if (STRAIGHT.has(kind)) return;
  const ways = HAS_POLES.has(kind) ? limits.waysBeyond(occt, face) : undefined;
  if (ways?.size === 0) return;
  const poles = polesOfSurface(surface, keep);
  const farthest =
    kind === 'GeomAbs_Sphere'
      ? onBall(surface, keep)
      : kind === 'GeomAbs_Torus'
        ? onRing(surface, keep)
        : onFree(surface, keep);
  limits.forEachWay((way, reachAlong, reached) => {
    if (poles && !poles.some((pole) => dot(pole, way) > reached + NOTHING_MM)) return;
    for (const point of farthest(way))
      if (dot(point, way) > reached + NOTHING_MM && isOnFace(occt, face, point)) reachAlong(dot(point, way));
  }, ways);
}
/** Differences that mean nothing beside the rounding of doubles. */
const NOTHING_MM = 1e-13;

/** Points within this (mm) of a face lie on it: ten times the kernel's tolerance. */
const ON_FACE_MM = 1e-6;

const isOnFace = (occt: Occt, face: TopoDS_Face, point: Vec3): boolean =>
  distanceTo(occt, face, point) < ON_FACE_MM;
