/**
 * Round sides are swept by arcs, and have their parameters. An arc that begins or ends where its circle does makes a side that the kernel
 * cannot merge with a face of the same cylinder whose parameters begin elsewhere, so that a line stays on it.
 */
import {
  occurrences,
  scope,
  type Scoped,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';

/** The same flat face, each of its arcs round a circle that begins opposite the arc's middle; the face itself where it has no arcs. */
export function withArcsApart(occt: Occt, face: TopoDS_Face): TopoDS_Face {
  return scope((keep) => {
    const wires = occurrences({ occt, keep }, face, 'TopAbs_WIRE').map((wire) =>
      occurrences({ occt, keep }, wire, 'TopAbs_EDGE').map((edge) => ({
        edge,
        turned: turnedArc({ occt, keep }, edge),
      })),
    );
    if (wires.flat().every(({ turned }) => turned === undefined)) return face;
    const [outline, ...holes] = wires.map((edges) =>
      wireOf(
        { occt, keep },
        edges.map(({ edge, turned }) => turned ?? edge),
      ),
    );
    if (!outline || holes.includes(undefined)) return face;
    const builder = keep(new occt.BRepBuilderAPI_MakeFace(outline, true));
    for (const hole of holes) builder.Add(hole!);
    const fix = keep(new occt.ShapeFix_Face(keep(builder.Face())));
    fix.FixOrientation();
    return fix.Face();
  });
}

/** Undefined where an edge is no arc. */
function turnedArc({ occt, keep }: Scoped, shape: TopoDS_Shape): TopoDS_Shape | undefined {
  const curve = keep(new occt.BRepAdaptor_Curve(keep(occt.TopoDS.Edge(shape))));
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const isArc = (curve.GetType() as unknown as string) === 'GeomAbs_Circle' && last - first < ALL_ROUND_RAD;
  if (!isArc) return undefined;
  const circle = keep(curve.Circle());
  const round = keep(circle.Rotated(keep(circle.Axis()), (first + last) / 2 - Math.PI));
  const [from, to] = [keep(curve.Value(first)), keep(curve.Value(last))];
  return keep(keep(new occt.BRepBuilderAPI_MakeEdge(round, from, to)).Edge());
}
const ALL_ROUND_RAD = 2 * Math.PI - 1e-9;

/** Undefined where the kernel does not find its way round. */
function wireOf({ occt, keep }: Scoped, edges: readonly TopoDS_Shape[]) {
  const builder = keep(new occt.BRepBuilderAPI_MakeWire());
  builder.Add(keep(new occt.NCollection_List_TopoDS_Shape(edges as never)));
  return builder.IsDone() ? keep(builder.Wire()) : undefined;
}
