/**
 * The sides that a flat face sweeps over have the parameters of its arcs. Where these run otherwise than those of the round faces that they
 * continue, the kernel may fail to merge the two, so that a line stays between them.
 */
import { AT_ORIGIN } from '@kadrel/core';
import { copied, occurrences, type Scoped, type TopoDS_Face, type TopoDS_Shape } from '../../occt/occt.ts';
import { flatFace } from '../bodies/regions.ts';
import type { MeetingEdge } from './chosen.ts';

/** The same flat face, with arcs that run as the cylinders beside them do; the face itself where there are none, or it cannot be done. */
export function withArcsOfSides(
  { occt, keep }: Scoped,
  face: TopoDS_Face,
  edges: readonly MeetingEdge[],
): TopoDS_Face {
  const wires = occurrences({ occt, keep }, face, 'TopAbs_WIRE').map((wire) =>
    occurrences({ occt, keep }, wire, 'TopAbs_EDGE').map((edge) => ({
      edge,
      turned: arcOfSide({ occt, keep }, edge, sideBeside(edge, face, edges)),
    })),
  );
  if (wires.flat().every(({ turned }) => turned === undefined)) return face;
  const made = wires.map((some) =>
    wireOf(
      { occt, keep },
      some.map(({ edge, turned }) => turned ?? keep(copied(occt, edge, AT_ORIGIN))),
    ),
  );
  return made.every((wire) => wire !== undefined) ? flatFace({ occt, keep }, made) : face;
}

function sideBeside(
  edge: TopoDS_Shape,
  face: TopoDS_Face,
  edges: readonly MeetingEdge[],
): TopoDS_Face | undefined {
  const beside = edges.find((one) => one.edge.IsSame(edge));
  return beside?.faces.find((one) => !one.IsSame(face));
}

/** Undefined where an edge is no arc, or nothing round goes on from it. */
function arcOfSide(
  { occt, keep }: Scoped,
  shape: TopoDS_Shape,
  side: TopoDS_Face | undefined,
): TopoDS_Shape | undefined {
  if (!side) return undefined;
  const curve = keep(new occt.BRepAdaptor_Curve(keep(occt.TopoDS.Edge(shape))));
  const surface = keep(new occt.BRepAdaptor_Surface(side, true));
  const isRound = (surface.GetType() as unknown as string) === 'GeomAbs_Cylinder';
  if (!isRound || (curve.GetType() as unknown as string) !== 'GeomAbs_Circle') return undefined;
  const [first, last] = [surface.FirstUParameter(), surface.LastUParameter()];
  // Whole circles merge less often so.
  if (last - first > ALL_ROUND_RAD) return undefined;
  const along = keep(keep(surface.Cylinder()).Position());
  const circle = keep(curve.Circle());
  const axes = keep(
    new occt.gp_Ax2(keep(circle.Location()), keep(along.Direction()), keep(along.XDirection())),
  );
  const round = keep(new occt.gp_Circ(axes, circle.Radius()));
  const [from, to] = along.Direct() ? [first, last] : [-last, -first];
  return keep(keep(new occt.BRepBuilderAPI_MakeEdge(round, from, to)).Edge());
}
const ALL_ROUND_RAD = 2 * Math.PI - 1e-9;

/** Undefined where the kernel does not find its way round. */
function wireOf({ occt, keep }: Scoped, edges: readonly TopoDS_Shape[]) {
  const builder = keep(new occt.BRepBuilderAPI_MakeWire());
  builder.Add(keep(new occt.NCollection_List_TopoDS_Shape(edges as never)));
  return builder.IsDone() ? keep(builder.Wire()) : undefined;
}
