/** Flat faces pulled along a vector. */
import type { Vec3 } from '@kadrel/core';
import type { Scoped, Occt, TopoDS_Face, TopoDS_Shape } from '../../occt/occt.ts';
import { nameFaces, type NamedShape } from '../../naming/named.ts';

type Edge = ReturnType<Occt['TopoDS']['Edge']>;

/** Straight edges from corner to corner, and back to the first. */
export function polygon({ occt, keep }: Scoped, corners: readonly Vec3[]): Edge[] {
  const points = corners.map((corner) => keep(new occt.gp_Pnt(...corner)));
  return points.map((from, i) =>
    keep(keep(new occt.BRepBuilderAPI_MakeEdge(from, points[(i + 1) % points.length]!)).Edge()),
  );
}

/**
 * A flat face pulled along a vector. The first rim is the outline, the others are holes that run the same way round;
 * `sides` names what each edge of each rim becomes.
 */
export function pulledUp(
  { occt, keep }: Scoped,
  {
    rims,
    sides,
  }: { readonly rims: readonly (readonly Edge[])[]; readonly sides: readonly (readonly string[])[] },
  up: Vec3,
): NamedShape {
  const wires = rims.map((edges) => {
    const builder = keep(new occt.BRepBuilderAPI_MakeWire());
    // Edges that are joined become copies which share their ends.
    const joined = edges.map((edge) => {
      builder.Add(edge);
      return keep(builder.Edge());
    });
    return { wire: keep(builder.Wire()), joined };
  });
  const [outline, ...holes] = wires;
  const face = keep(new occt.BRepBuilderAPI_MakeFace(outline!.wire, true));
  for (const { wire } of holes) face.Add(keep(occt.TopoDS.Wire(keep(wire.Reversed()))));
  const prism = keep(
    new occt.BRepPrimAPI_MakePrism(keep(face.Face()), keep(new occt.gp_Vec(...up)), false, true),
  );
  const swept = (edge: TopoDS_Shape): TopoDS_Face => {
    const list = keep(prism.Generated(edge));
    return keep(occt.TopoDS.Face(keep(list.First())));
  };
  return nameFaces(occt, prism.Shape(), [
    { face: keep(occt.TopoDS.Face(keep(prism.FirstShape()))), name: 'bottom' },
    { face: keep(occt.TopoDS.Face(keep(prism.LastShape()))), name: 'top' },
    ...wires.flatMap(({ joined }, rim) =>
      joined.map((edge, i) => ({ face: swept(edge), name: sides[rim]![i]! })),
    ),
  ]);
}
