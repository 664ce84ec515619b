/** Faces of cylinders that are rectangles in their parameters: u round the axis (radians), v along it (mm). */
import { cross, dot } from '@kadrel/core';
import {
  occurrences,
  scope,
  uniqueShapes,
  type Scoped,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { cylinderAxes, type CylinderAxes } from './surface.ts';

type Ends = readonly [number, number];

/** Its points are o + r·(x·cos u + y·sin u) + v·z, o being the origin. */
export interface CylinderFace extends CylinderAxes {
  readonly u: Ends;
  readonly v: Ends;
  /** 1 where the face looks away from its axis, −1 where it looks towards it. */
  readonly outward: 1 | -1;
}

/** Of a solid with many bores, facets and integrals ask for them one after the other. */
const found = new WeakMap<TopoDS_Shape, readonly (CylinderFace | undefined)[]>();

/** For each face of a shape, in the kernel's order. */
export function cylinderFaces(
  { occt, keep }: Scoped,
  shape: TopoDS_Shape,
): readonly (CylinderFace | undefined)[] {
  const known = found.get(shape);
  if (known) return known;
  const made = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) =>
    scope((inner) => cylinderFace({ occt, keep: inner }, inner(occt.TopoDS.Face(face)))),
  );
  found.set(shape, made);
  return made;
}

/** Undefined where the face is no cylinder's, or has another border. */
function cylinderFace({ occt, keep }: Scoped, face: TopoDS_Face): CylinderFace | undefined {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  if ((surface.GetType() as unknown as string) !== 'GeomAbs_Cylinder') return undefined;
  const u: Ends = [surface.FirstUParameter(), surface.LastUParameter()];
  const v: Ends = [surface.FirstVParameter(), surface.LastVParameter()];
  if (!isRectangle({ occt, keep }, face, { u, v })) return undefined;
  const axes = cylinderAxes(surface, keep);
  const isReversed = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED';
  const isRightHanded = dot(cross(axes.x, axes.y), axes.z) > 0;
  return { ...axes, u, v, outward: isRightHanded === isReversed ? -1 : 1 };
}

/** Borders this near to the least or the greatest of a parameter (radians, mm) run along it. */
const SAME_PARAMETER = 1e-9;

/** Whether the border of a face runs along the rim of its parameters, and nowhere within. */
function isRectangle(
  { occt, keep }: Scoped,
  face: TopoDS_Face,
  { u, v }: Pick<CylinderFace, 'u' | 'v'>,
): boolean {
  const isOn = (ends: Ends, values: Ends) =>
    ends.some((end) => values.every((value) => Math.abs(value - end) < SAME_PARAMETER));
  return occurrences({ occt, keep }, face, 'TopAbs_EDGE').every((edge) => {
    const curve = keep(new occt.BRepAdaptor_Curve2d(keep(occt.TopoDS.Edge(edge)), face));
    const [from, to] = [curve.FirstParameter(), curve.LastParameter()].map((at) => keep(curve.Value(at)));
    return isOn(u, [from!.X(), to!.X()]) || isOn(v, [from!.Y(), to!.Y()]);
  });
}
