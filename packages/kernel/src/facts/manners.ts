/** By which rule each face of a shape is integrated: see integrals.ts. */
import type { Edge } from '../occt/edges.ts';
import {
  occurrences,
  scope,
  uniqueShapes,
  type Scoped,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';

/** By the plain rule or the adaptive one, with Gauss's rule along ellipses, or by borders alone. */
export type Manner = 'plain' | 'flat' | 'ruled' | 'rounded' | 'patch' | 'adaptive';

/** How each face is integrated, and whether all are alike in that. */
export function mannersOf({ occt, keep }: Scoped, shape: TopoDS_Shape) {
  const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) =>
    keep(occt.TopoDS.Face(face)),
  );
  const kinds = faces.map((face) => scope((inner) => mannerOf({ occt, keep: inner }, face)));
  const isAll = (...some: Manner[]) => kinds.every((kind) => some.includes(kind));
  const whole = isAll('plain') ? 'plain' : isAll('plain', 'patch') ? 'patch' : 'mixed';
  return { faces, kinds, whole } as const;
}

function mannerOf({ occt, keep }: Scoped, face: TopoDS_Face): Manner {
  const kind = keep(new occt.BRepAdaptor_Surface(face, true)).GetType() as unknown as string;
  const edges = occurrences({ occt, keep }, face, 'TopAbs_EDGE').map((edge) => keep(occt.TopoDS.Edge(edge)));
  if (kind === 'GeomAbs_Plane')
    return edges.every(
      (edge) => occt.BRep_Tool.Degenerated(edge) || ROUND.has(curveKind({ occt, keep }, edge)),
    )
      ? 'plain'
      : 'flat';
  // Where every border runs along a parameter, the kernel's plain rule is exact on the elementary surfaces.
  const isAlong = edges.every((edge) => parameterKind({ occt, keep }, edge, face) === 'GeomAbs_Line');
  if (ROUNDED.has(kind)) return isAlong ? 'plain' : 'rounded';
  if (isAlong && kind === 'GeomAbs_SurfaceOfExtrusion') return 'ruled';
  return isAlong && PATCHES.has(kind) && isPolynomial({ occt, keep }, face) ? 'patch' : 'adaptive';
}
/** Of degree 3, the plain rule’s points are as many as the volume of a cone over a polynomial takes (measured: 1e-15). */
const MAX_PLAIN_DEGREE = 3;

/** In one piece, with a border that runs along its parameters: volumes are integrals of polynomials. */
function isPolynomial({ occt, keep }: Scoped, face: TopoDS_Face): boolean {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  return (
    !surface.IsURational() &&
    !surface.IsVRational() &&
    Math.max(surface.UDegree(), surface.VDegree()) <= MAX_PLAIN_DEGREE &&
    surface.NbUKnots() === 2 &&
    surface.NbVKnots() === 2
  );
}
const ROUND: ReadonlySet<string> = new Set(['GeomAbs_Line', 'GeomAbs_Circle']);
const PATCHES: ReadonlySet<string> = new Set(['GeomAbs_BSplineSurface', 'GeomAbs_BezierSurface']);
/** Surfaces whose area and volume follow from their borders in space. */
const ROUNDED: ReadonlySet<string> = new Set([
  'GeomAbs_Cylinder',
  'GeomAbs_Cone',
  'GeomAbs_Sphere',
  'GeomAbs_Torus',
]);

const curveKind = ({ occt, keep }: Scoped, edge: Edge): string =>
  keep(new occt.BRepAdaptor_Curve(edge)).GetType();
const parameterKind = ({ occt, keep }: Scoped, edge: Edge, face: TopoDS_Face): string =>
  keep(new occt.BRepAdaptor_Curve2d(edge, face)).GetType();
