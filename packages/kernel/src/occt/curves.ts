/** The kernel's edges in the XY plane → curves as documents hold them. */
import {
  circle,
  cross2,
  curvesAlong,
  distance2,
  joined,
  scale2,
  subtract2,
  throughPoints,
  type Curve,
  type DrawnPath,
  type Vec2,
} from '@kadrel/core';
import { scope, type Keep, type Occt, type TopoDS_Shape } from './occt.ts';

/** How near a curve keeps to one of the kernel's that is neither a line nor a circle nor an ellipse, mm. */
const FREE_MM = 1e-6;
/** Points that stand for one with kinks: a spline is drawn through them. */
const SPLINE_POINTS = 49;

export const pathsOfEdges = (occt: Occt, edges: readonly TopoDS_Shape[]): DrawnPath[] =>
  joined(edges.flatMap((edge) => curvesOf(occt, edge)));

/** Edges that lie in a line, as circles do that are seen from their edge, are that line. */
export const curvesOfProjected = (occt: Occt, edges: readonly TopoDS_Shape[]): Curve[] =>
  edges.flatMap((edge) => straightened(occt, edge) ?? curvesOf(occt, edge));

/** End to end; of several alike one is left. */
export const pathsOfCurves = (curves: readonly Curve[]): DrawnPath[] => joined(withoutDoubles(curves));

/** Points along an edge that tell whether it is straight. */
const STRAIGHT_POINTS = 17;
/** How far they may be off a line, mm. */
const STRAIGHT_MM = 1e-7;

function straightened(occt: Occt, edge: TopoDS_Shape): Curve[] | undefined {
  return scope((keep) => {
    const adaptor = keep(new occt.BRepAdaptor_Curve(keep(occt.TopoDS.Edge(edge))));
    if ((adaptor.GetType() as unknown as string) === 'GeomAbs_Line') return undefined;
    const [first, last] = [adaptor.FirstParameter(), adaptor.LastParameter()];
    const points = Array.from({ length: STRAIGHT_POINTS }, (_, i): Vec2 => {
      const point = keep(adaptor.EvalD0(first + ((last - first) * i) / (STRAIGHT_POINTS - 1)));
      return [clean(point.X()), clean(point.Y())];
    });
    const far = points.reduce((a, b) => (distance2(b, points[0]!) > distance2(a, points[0]!) ? b : a));
    const end = points.reduce((a, b) => (distance2(b, far) > distance2(a, far) ? b : a));
    const length = distance2(far, end);
    // What is seen as a point is nothing to draw.
    if (length < STRAIGHT_MM) return [];
    const way = scale2(subtract2(end, far), 1 / length);
    const isStraight = points.every((point) => Math.abs(cross2(way, subtract2(point, far))) < STRAIGHT_MM);
    return isStraight ? [{ kind: 'line', from: far, to: end }] : undefined;
  });
}

function withoutDoubles(curves: readonly Curve[]): Curve[] {
  const known = new Map<string, Curve>();
  for (const curve of curves) {
    const key =
      curve.kind === 'line' ? [curve.from, curve.to].map(String).sort().join() : JSON.stringify(curve);
    known.set(key, curve);
  }
  return [...known.values()];
}

function curvesOf(occt: Occt, edge: TopoDS_Shape): Curve[] {
  return scope((keep) => {
    const adaptor = keep(new occt.BRepAdaptor_Curve(keep(occt.TopoDS.Edge(edge))));
    const [first, last] = [adaptor.FirstParameter(), adaptor.LastParameter()];
    const at = (parameter: number): Vec2 => {
      const point = keep(adaptor.EvalD0(parameter));
      return [clean(point.X()), clean(point.Y())];
    };
    switch (adaptor.GetType() as unknown as string) {
      case 'GeomAbs_Line':
        return [{ kind: 'line', from: at(first), to: at(last) }];
      case 'GeomAbs_Circle':
        return [arcOf(adaptor, { first, last }, keep)];
      case 'GeomAbs_Ellipse':
        return [ellipseOf(adaptor, { first, last }, keep)];
      default: {
        const free = curvesAlong((part) => at(first + (last - first) * part), FREE_MM);
        if (free) return free;
        const points = Array.from({ length: SPLINE_POINTS }, (_, i) =>
          at(first + ((last - first) * i) / (SPLINE_POINTS - 1)),
        );
        const isClosed =
          Math.hypot(points[0]![0] - points.at(-1)![0], points[0]![1] - points.at(-1)![1]) < 1e-7;
        return throughPoints({ points: isClosed ? points.slice(0, -1) : points, closed: isClosed });
      }
    }
  });
}

/** Noise of placing and of taking back, mm. */
const clean = (n: number) => {
  const rounded = Number(n.toFixed(9));
  return Math.abs(rounded - n) < 2e-11 ? rounded + 0 : n;
};
const degrees = (radians: number) => {
  const angle = (radians * 180) / Math.PI;
  const whole = Math.round(angle * 1e6) / 1e6;
  return Math.abs(whole - angle) < 1e-10 ? whole + 0 : angle;
};

type Adaptor = InstanceType<Occt['BRepAdaptor_Curve']>;

interface Round {
  readonly centre: Vec2;
  readonly along: Vec2;
  /** 1 where the parameter runs counter-clockwise. */
  readonly way: 1 | -1;
}

function roundOf(position: ReturnType<ReturnType<Adaptor['Circle']>['Position']>, keep: Keep): Round {
  const [at, x, z] = [keep(position.Location()), keep(position.XDirection()), keep(position.Direction())];
  return { centre: [clean(at.X()), clean(at.Y())], along: [x.X(), x.Y()], way: z.Z() > 0 ? 1 : -1 };
}

function arcOf(
  adaptor: Adaptor,
  { first, last }: { readonly first: number; readonly last: number },
  keep: Keep,
): Curve {
  const round = keep(adaptor.Circle());
  const { centre, along, way } = roundOf(keep(round.Position()), keep);
  const radius = clean(round.Radius());
  const sweep = degrees(last - first);
  if (sweep >= 360) return circle(centre, radius);
  const start = degrees(Math.atan2(along[1], along[0])) + way * degrees(first);
  return { kind: 'arc', centre, radius, first: start, sweep: way * sweep };
}

function ellipseOf(
  adaptor: Adaptor,
  { first, last }: { readonly first: number; readonly last: number },
  keep: Keep,
): Curve {
  const round = keep(adaptor.Ellipse());
  const { centre, along, way } = roundOf(keep(round.Position()), keep);
  const [a, b] = [round.MajorRadius(), round.MinorRadius()];
  return {
    kind: 'ellipse',
    centre,
    x: [a * along[0], a * along[1]],
    y: [-way * b * along[1], way * b * along[0]],
    first: degrees(first),
    sweep: degrees(last - first),
  };
}
