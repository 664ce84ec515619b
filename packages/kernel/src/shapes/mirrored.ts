import { scope, uniqueShapes, type Occt } from '../occt/occt.ts';
import { nameFaces, type NamedShape } from './named.ts';

/** The mirror image of a solid in the plane X = 0 of its own frame; its faces keep their names and look outward. */
export function buildMirrored(occt: Occt, of: NamedShape): NamedShape {
  return scope((keep) => {
    const reflection = keep(new occt.gp_Trsf());
    reflection.SetValues(-1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0);
    const operation = keep(new occt.BRepBuilderAPI_Transform(of.shape, reflection, false, false));
    const faces = uniqueShapes(occt, of.shape, 'TopAbs_FACE', keep);
    const roles = faces.map((face, i) => ({
      face: keep(occt.TopoDS.Face(keep(operation.ModifiedShape(face)))),
      name: of.faceNames[i]!,
    }));
    return nameFaces(occt, operation.Shape(), roles);
  });
}
