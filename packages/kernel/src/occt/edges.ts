/** Drawn curves → the kernel's edges, in the XY plane. */
import { faultOf, simplePieces, type Curve, type Path, type Pose, type Vec2, type Vec3 } from '@kadrel/core';
import { BuildError, moved, type Keep, type Scoped, type Occt } from './occt.ts';

export type Edge = ReturnType<Occt['TopoDS']['Edge']>;
export type Wire = ReturnType<Occt['TopoDS']['Wire']>;

/** An edge, and what the face that it sweeps is called. */
export interface NamedEdge {
  readonly name: string;
  readonly edge: Edge;
}

/** An edge and the curve that it was made from. */
export interface DrawnEdge extends NamedEdge {
  readonly curve: Curve;
}

/** None of the edges crosses itself. */
export const edgesOfPath = ({ occt, keep }: Scoped, path: Path): DrawnEdge[] =>
  path.curves.flatMap(({ name, curve }) =>
    simplePieces(curve).map((piece) => ({ name, edge: edgeOf({ occt, keep }, piece), curve: piece })),
  );

export function edgeOf({ occt, keep }: Scoped, curve: Curve): Edge {
  const point = ([x, y]: Vec2) => keep(new occt.gp_Pnt(x, y, 0));
  switch (curve.kind) {
    case 'line':
      return made(keep(new occt.BRepBuilderAPI_MakeEdge(point(curve.from), point(curve.to))), keep);
    case 'arc': {
      const frame = roundFrame({ occt, keep }, curve.centre, {
        along: [1, 0],
        isCounterClockwise: curve.sweep > 0,
      });
      const round = keep(new occt.gp_Circ(frame, curve.radius));
      if (Math.abs(curve.sweep) >= 360) return made(keep(new occt.BRepBuilderAPI_MakeEdge(round)), keep);
      const [from, to] = parameters(curve);
      return made(keep(new occt.BRepBuilderAPI_MakeEdge(round, from, to)), keep);
    }
    case 'ellipse': {
      const isLeft = curve.x[0] * curve.y[1] - curve.x[1] * curve.y[0] > 0;
      const frame = roundFrame({ occt, keep }, curve.centre, {
        along: curve.x,
        isCounterClockwise: isLeft === curve.sweep > 0,
      });
      const round = keep(new occt.gp_Elips(frame, Math.hypot(...curve.x), Math.hypot(...curve.y)));
      if (Math.abs(curve.sweep) >= 360) return made(keep(new occt.BRepBuilderAPI_MakeEdge(round)), keep);
      const [from, to] = parameters(curve);
      return made(keep(new occt.BRepBuilderAPI_MakeEdge(round, from, to)), keep);
    }
    case 'bezier': {
      const poles = keep(new occt.NCollection_Array1_gp_Pnt(1, curve.points.length));
      curve.points.forEach((pole, i) => poles.SetValue(i + 1, point(pole)));
      return made(keep(new occt.BRepBuilderAPI_MakeEdge(keep(new occt.Geom_BezierCurve(poles)))), keep);
    }
  }
}

/** A frame whose parameter runs the way the curve does: turned over for a curve that runs clockwise. */
function roundFrame(
  { occt, keep }: Scoped,
  [x, y]: Vec2,
  { along, isCounterClockwise }: { readonly along: Vec2; readonly isCounterClockwise: boolean },
) {
  return keep(
    new occt.gp_Ax2(
      keep(new occt.gp_Pnt(x, y, 0)),
      keep(new occt.gp_Dir(0, 0, isCounterClockwise ? 1 : -1)),
      keep(new occt.gp_Dir(along[0], along[1], 0)),
    ),
  );
}

/** Radians from start to end in a frame in which the curve runs counter-clockwise. */
function parameters({ first, sweep }: { first: number; sweep: number }): [number, number] {
  const sign = Math.sign(sweep);
  const from = (sign * first * Math.PI) / 180;
  return [from, from + (Math.abs(sweep) * Math.PI) / 180];
}

function made(builder: { IsDone(): boolean; Edge(): Edge }, keep: Keep): Edge {
  if (!builder.IsDone()) throw new BuildError(faultOf('curves.no-length', {}));
  return keep(builder.Edge());
}

/** Edges one after another as a wire; the wire's own edges, in the same order. */
export function wireOf(
  { occt, keep }: Scoped,
  edges: readonly NamedEdge[],
): { wire: Wire; edges: NamedEdge[] } {
  const builder = keep(new occt.BRepBuilderAPI_MakeWire());
  // Edges that are joined become copies which share their ends.
  const joined = edges.map(({ name, edge }) => {
    builder.Add(edge);
    if (!builder.IsDone())
      throw new BuildError(faultOf('curves.do-not-join', {}), [endsOfEdge({ occt, keep }, edge)[0]]);
    return { name, edge: keep(builder.Edge()) };
  });
  return { wire: keep(builder.Wire()), edges: joined };
}

/** The first and the last point of an edge. */
export function endsOfEdge({ occt, keep }: Scoped, edge: Edge): [Vec3, Vec3] {
  const curve = keep(new occt.BRepAdaptor_Curve(edge));
  const at = (parameter: number): Vec3 => {
    const point = keep(curve.EvalD0(parameter));
    return [point.X(), point.Y(), point.Z()];
  };
  return [at(curve.FirstParameter()), at(curve.LastParameter())];
}

/** A path carried into space: its edges. */
export const placedEdges = ({ occt, keep }: Scoped, path: Path, pose: Pose): NamedEdge[] =>
  edgesOfPath({ occt, keep }, path).map(({ name, edge }) => ({
    name,
    edge: keep(occt.TopoDS.Edge(keep(moved(occt, edge, pose)))),
  }));

/** A path carried into space, as a wire. */
export const placedWire = (
  { occt, keep }: Scoped,
  path: Path,
  pose: Pose,
): { wire: Wire; edges: NamedEdge[] } => wireOf({ occt, keep }, placedEdges({ occt, keep }, path, pose));
