/** Single faces of a solid: their borders, and their sizes. */
import { faultOf, type DrawnPath, type FaceFacts } from '@kadrel/core';
import {
  BuildError,
  ShapeMap,
  occurrences,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { pathsOfEdges } from '../occt/curves.ts';
import type { NamedShape } from '../naming/named.ts';
import { exactBox } from './extent.ts';

/** A face that departs from the XY plane by more than this (mm) is not in it. */
const IN_PLANE_MM = 1e-6;

/** The borders of the face in the XY plane, of those called so the one with its centre nearest to the origin. Throws BuildError. */
export function faceOutline(
  occt: Occt,
  solids: readonly NamedShape[],
  isCalledSo: (name: string) => boolean,
): DrawnPath[] {
  return scope((keep) => {
    const [nearest] = solids
      .flatMap(({ shape, faceNames }) =>
        uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').filter((_, i) => isCalledSo(faceNames[i]!)),
      )
      .filter((face) => {
        const { min, max } = exactBox(occt, face);
        return Math.max(Math.abs(min[2]), Math.abs(max[2])) <= IN_PLANE_MM;
      })
      .map((face) => ({ face, off: offOrigin({ occt, keep }, face) }))
      .sort((a, b) => a.off - b.off);
    if (!nearest) throw new BuildError(faultOf('measured.no-flat-face', {}));
    return pathsOfEdges(occt, occurrences({ occt, keep }, nearest.face, 'TopAbs_EDGE'));
  });
}

function offOrigin({ occt, keep }: Scoped, face: TopoDS_Shape): number {
  const properties = keep(new occt.GProp_GProps());
  occt.BRepGProp.SurfaceProperties(face, properties, false, false);
  const centre = keep(properties.CentreOfMass());
  return Math.hypot(centre.X(), centre.Y());
}

type GProps = InstanceType<Occt['GProp_GProps']>;

/** Relative error that sizes are given to. */
const FACE_SIZE = 1e-9;

/** The sizes of the faces of these names; edges between two of them are no border. */
export function facesTogether(
  occt: Occt,
  { shape, faceNames }: NamedShape,
  names: readonly string[],
): FaceFacts {
  return scope((keep) => {
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').filter((_, i) =>
      names.includes(faceNames[i]!),
    );
    const area = faces.reduce(
      (sum, face) =>
        sum + sizeOf(occt, (into) => occt.BRepGProp.SurfaceProperties(face, into, FACE_SIZE, false)),
      0,
    );
    return { count: faces.length, area, border: borderOf(occt, faces) };
  });
}

function sizeOf(occt: Occt, measure: (into: GProps) => void): number {
  return scope((keep) => {
    const sizes = keep(new occt.GProp_GProps());
    measure(sizes);
    return sizes.Mass();
  });
}

/** The length of the borders of faces, mm; edges between two of them are no border. */
export function borderOf(occt: Occt, faces: readonly TopoDS_Shape[]): number {
  return scope((keep) => {
    const uses = new ShapeMap<{ edge: TopoDS_Shape; count: number }>(occt);
    const edges: { edge: TopoDS_Shape; count: number }[] = [];
    for (const face of faces)
      for (const edge of occurrences({ occt, keep }, face, 'TopAbs_EDGE')) {
        const use = uses.ensure(edge, () => {
          edges.push({ edge, count: 0 });
          return edges.at(-1)!;
        });
        use.count += 1;
      }
    return edges
      .filter(({ count }) => count === 1)
      .reduce(
        (sum, { edge }) =>
          sum + sizeOf(occt, (into) => occt.BRepGProp.LinearProperties(edge, into, false, false)),
        0,
      );
  });
}
