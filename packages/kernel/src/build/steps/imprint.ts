/** Outlines as edges on a solid. */
import { AT_ORIGIN, faultOf, type Vec2 } from '@kadrel/core';
import { exactBox } from '../../facts/extent.ts';
import { heightsAt, meshShape } from '../../facts/mesh.ts';
import {
  BuildError,
  fromList,
  moved,
  occurrences,
  progressRange,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import type { NamedShape } from '../../naming/named.ts';
import type { Planar } from '../bodies/regions.ts';

/** What is laid on: the outline in its plane, and the prism over it. */
export interface Imprint {
  readonly planar: Planar;
  readonly prism: NamedShape;
  readonly slant: Vec2;
}

/** The same solid, with the outline as edges on it; the faces within are called imprint. */
export function imprinted({ occt, keep }: Scoped, solid: NamedShape, imprint: Imprint): NamedShape {
  const { planar, prism, slant } = imprint;
  const sides = uniqueShapes({ occt, keep }, prism.shape, 'TopAbs_FACE').filter(
    (_, i) => prism.faceNames[i] !== 'top' && prism.faceNames[i] !== 'bottom',
  );
  const splitter = keep(new occt.BRepAlgoAPI_Splitter());
  try {
    splitter.SetArguments(keep(new occt.NCollection_List_TopoDS_Shape([solid.shape] as never)));
    splitter.SetTools(keep(new occt.NCollection_List_TopoDS_Shape(sides as never)));
    splitter.SetRunParallel(false);
    splitter.Build(progressRange({ occt, keep }));
    const whole = keep(splitter.Shape());
    const [only] = occurrences({ occt, keep }, whole, 'TopAbs_SOLID');
    if (splitter.HasErrors() || !only) throw new BuildError(faultOf('emboss.not-laid', {}));
    occt.BRepTools.RemoveInternals(only, false);
    const names = uniqueShapes({ occt, keep }, solid.shape, 'TopAbs_FACE').map((face, i) => {
      const images = fromList({ occt, keep }, keep(splitter.Modified(face)));
      return { images: images.length > 0 ? images : [face], name: solid.faceNames[i]! };
    });
    const inside = insideOf(occt, planar, prism, slant);
    const faceNames = uniqueShapes({ occt, keep }, only, 'TopAbs_FACE').map((face) => {
      const name = names.find(({ images }) => images.some((image) => image.IsSame(face)))?.name ?? 'face';
      return inside(face) ? `imprint.${name}` : name;
    });
    return { shape: moved(occt, only, AT_ORIGIN), faceNames };
  } finally {
    splitter.Clear();
  }
}

/** Whether a face lies within the prism, decided by a point of it. */
function insideOf(occt: Occt, planar: Planar, prism: NamedShape, [u, v]: Vec2) {
  const mesh = planar.faces.map((face) => meshShape(occt, face, 0.1));
  const { min, max } = exactBox(occt, prism.shape);
  return (face: TopoDS_Shape): boolean => {
    const { positions, triangles } = meshShape(occt, face, 0.1);
    if (triangles.length < 3) return false;
    const [x, y, z] = [0, 1, 2].map(
      (axis) => [0, 1, 2].reduce((sum, k) => sum + positions[3 * triangles[k]! + axis]!, 0) / 3,
    ) as [number, number, number];
    return z > min[2] && z < max[2] && mesh.some((one) => heightsAt(one, x - u * z, y - v * z).length > 0);
  };
}
