/** Solids of revolution from half an outline. */
import { scope, type Occt } from '../occt/occt.ts';
import type { NamedShape } from '../naming/named.ts';

/** A corner of the half outline, and the name of the face that the piece from here to the next one becomes. */
export interface HalfCorner {
  readonly radius: number;
  readonly z: number;
  readonly name: string;
}

/** A closed half outline turned about Z, mm. Pieces on the axis become nothing. */
export function revolved(occt: Occt, corners: readonly HalfCorner[]): NamedShape {
  return scope((keep) => {
    const points = corners.map(({ radius, z }) => keep(new occt.gp_Pnt(radius, 0, z)));
    const next = (i: number) => (i + 1) % corners.length;
    const builder = keep(new occt.BRepBuilderAPI_MakeWire());
    points.forEach((from, i) =>
      builder.Add(keep(keep(new occt.BRepBuilderAPI_MakeEdge(from, points[next(i)]!)).Edge())),
    );
    const face = keep(keep(new occt.BRepBuilderAPI_MakeFace(keep(builder.Wire()), true)).Face());
    const axis = keep(new occt.gp_Ax1(keep(new occt.gp_Pnt(0, 0, 0)), keep(new occt.gp_Dir(0, 0, 1))));
    const operation = keep(new occt.BRepPrimAPI_MakeRevol(face, axis, false));
    // The kernel's faces come in the order of the outline's pieces; its history does not know the flat ones.
    const isOnAxis = ({ radius }: HalfCorner, i: number) => radius === 0 && corners[next(i)]!.radius === 0;
    const faceNames = corners.flatMap((corner, i) => (isOnAxis(corner, i) ? [] : [corner.name]));
    return { shape: operation.Shape(), faceNames };
  });
}
