/** Points of edges at which Gauss's rule asks for them. */
import { GAUSS, add, scale, type Vec3 } from '@kadrel/core';
import type { Edge } from '../occt/edges.ts';
import { read, scope, type Coordinates, type Keep, type Occt } from '../occt/occt.ts';

/** Pieces of a curve or of a side, each of which Gauss's rule takes as smooth. */
const PIECES = 16;
/** Of a free curve whose joints are not known. */
const FREE_PIECES = 64;
/** Of each stretch between two joints of a spline: across a joint Gauss's rule would be a thousandth of its usual worth. */
const PIECES_BETWEEN_JOINTS = 3;

/** What is integrated along a curve: products of at most two places and a derivative, or anything else that is smooth. */
export type Integrand = 'polynomial' | 'smooth';

export interface CurvePoint {
  readonly point: Vec3;
  readonly derivative: Vec3;
  /** For an integral over the curve's parameter. */
  readonly weight: number;
}

/** Points along an edge, none of one that has come down to a point. */
export function alongEdge(occt: Occt, edge: Edge, integrand: Integrand): CurvePoint[] {
  if (occt.BRep_Tool.Degenerated(edge)) return [];
  return scope((keep) => {
    const curve = keep(new occt.BRepAdaptor_Curve(edge));
    const nodes = integrand === 'polynomial' ? exactNodesAlong(curve, keep) : nodesAlong(curve, keep);
    const formula = formulaOf(curve, keep);
    if (formula) return nodes.map(([parameter, weight]) => ({ ...formula(parameter), weight }));
    return nodes.map(([parameter, weight]) => {
      const { Point, D1 } = curve.EvalD1(parameter) as unknown as Record<'Point' | 'D1', Coordinates>;
      return { point: read(Point, keep), derivative: read(D1, keep), weight };
    });
  });
}

/** Lines and circles by their own formulas: asking the kernel for each point takes ten times as long. */
function formulaOf(
  curve: InstanceType<Occt['BRepAdaptor_Curve']>,
  keep: Keep,
): ((parameter: number) => Omit<CurvePoint, 'weight'>) | undefined {
  const kind = curve.GetType() as unknown as string;
  if (kind === 'GeomAbs_Line') {
    const first = curve.FirstParameter();
    const { Point, D1 } = curve.EvalD1(first) as unknown as Record<'Point' | 'D1', Coordinates>;
    const [start, derivative] = [read(Point, keep), read(D1, keep)];
    return (parameter) => ({ point: add(start, scale(derivative, parameter - first)), derivative });
  }
  if (kind !== 'GeomAbs_Circle') return undefined;
  const circle = keep(curve.Circle());
  const axes = keep(circle.Position());
  const centre = read(axes.Location(), keep);
  const [x, y] = [axes.XDirection(), axes.YDirection()].map((way) => scale(read(way, keep), circle.Radius()));
  return (angle) => ({
    point: add(centre, add(scale(x!, Math.cos(angle)), scale(y!, Math.sin(angle)))),
    derivative: add(scale(x!, -Math.sin(angle)), scale(y!, Math.cos(angle))),
  });
}

interface AnyCurve {
  FirstParameter(): number;
  LastParameter(): number;
  GetType(): unknown;
  BSpline(): Spline;
}
interface FreeCurve extends AnyCurve {
  IsRational(): boolean;
  Degree(): number;
}
interface Spline {
  NbKnots(): number;
  Knot(index: number): number;
  IsPeriodic(): boolean;
  delete(): void;
}

type Nodes = readonly (readonly [parameter: number, weight: number])[];

/** Two places times a derivative along a curve of this degree make a polynomial of degree 8; Gauss’s rule of five nodes is exact up to 9. */
const EXACT_DEGREE = 3;

/** What a whole turn may be off. */
const WHOLE_TURN_RAD = 1e-12;
/** Over a whole turn, nodes at equal steps are exact for sines and cosines of less than their number; such products go to the third. */
const ROUND_NODES = 8;

/** Nodes for such products: a single piece where the curve is a polynomial itself. */
function exactNodesAlong(curve: FreeCurve, keep: Keep): Nodes {
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const kind = curve.GetType() as string;
  if (kind === 'GeomAbs_Line') return nodesIn(first, last, 1);
  if (ROUND_CURVES.has(kind) && Math.abs(last - first - 2 * Math.PI) < WHOLE_TURN_RAD)
    return Array.from({ length: ROUND_NODES }, (_, i) => [
      first + (2 * Math.PI * i) / ROUND_NODES,
      (2 * Math.PI) / ROUND_NODES,
    ]);
  if (ROUND_CURVES.has(kind))
    return nodesIn(first, last, Math.ceil((PIECES * Math.abs(last - first)) / (2 * Math.PI)));
  if (!FREE_CURVES.has(kind) || curve.IsRational() || curve.Degree() > EXACT_DEGREE)
    return nodesAlong(curve, keep);
  const joints =
    kind === 'GeomAbs_BezierCurve' ? [first, last] : jointsOf(keep(curve.BSpline()), first, last);
  return joints.slice(1).flatMap((to, i) => nodesIn(joints[i]!, to, 1));
}

/** Nodes of Gauss's rule along a curve, in pieces that are smooth: of a spline, none that reaches over a joint. */
export function nodesAlong(curve: AnyCurve, keep: Keep): Nodes {
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const kind = curve.GetType() as string;
  if (kind !== 'GeomAbs_BSplineCurve')
    return nodesIn(first, last, kind === 'GeomAbs_Line' || ROUND_CURVES.has(kind) ? PIECES : FREE_PIECES);
  const joints = jointsOf(keep(curve.BSpline()), first, last);
  const pieces = Math.max(PIECES_BETWEEN_JOINTS, Math.ceil(PIECES / (joints.length - 1)));
  return joints.slice(1).flatMap((to, i) => nodesIn(joints[i]!, to, pieces));
}
/** By angles, in radians. */
const ROUND_CURVES = new Set(['GeomAbs_Circle', 'GeomAbs_Ellipse']);
const FREE_CURVES = new Set(['GeomAbs_BezierCurve', 'GeomAbs_BSplineCurve']);

/** Where its pieces meet between two parameters, with the two. */
function jointsOf(spline: Spline, first: number, last: number): number[] {
  const knots = Array.from({ length: spline.NbKnots() }, (_, i) => spline.Knot(i + 1));
  const period = knots.at(-1)! - knots[0]!;
  const turns = spline.IsPeriodic() ? [-period, 0, period] : [0];
  const noise = 1e-9 * (last - first);
  const inner = turns
    .flatMap((turn) => knots.map((knot) => knot + turn))
    .filter((knot) => knot > first + noise && knot < last - noise)
    .sort((a, b) => a - b);
  return [first, ...inner, last];
}

export function nodesIn(first: number, last: number, count = PIECES): Nodes {
  const step = (last - first) / count;
  return Array.from({ length: count }, (_, i) =>
    GAUSS.map(([at, weight]) => [first + step * (i + (1 + at) / 2), (weight * step) / 2] as const),
  ).flat();
}

/** Gauss’s rule of two nodes, exact to the third degree. */
export function twoNodes(first: number, last: number): Nodes {
  const [middle, half] = [(first + last) / 2, (last - first) / 2];
  return [-1, 1].map((side) => [middle + (side * half) / Math.sqrt(3), half] as const);
}
