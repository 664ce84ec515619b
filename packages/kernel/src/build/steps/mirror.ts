/** Solids under similar maps of their own frame: their faces keep their names and look outward. */
import { scope, uniqueShapes, type Occt } from '../../occt/occt.ts';
import { nameFaces, type NamedShape } from '../../naming/named.ts';

/** The mirror image in the plane X = 0. */
export const buildMirrored = (occt: Occt, of: NamedShape): NamedShape =>
  transformed(occt, of, [-1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0]);

/** Larger or smaller about the origin. */
export const buildScaled = (occt: Occt, of: NamedShape, by: number): NamedShape =>
  transformed(occt, of, [by, 0, 0, 0, 0, by, 0, 0, 0, 0, by, 0]);

type Rows = Parameters<InstanceType<Occt['gp_Trsf']>['SetValues']>;

function transformed(occt: Occt, of: NamedShape, rows: Rows): NamedShape {
  return scope((keep) => {
    const map = keep(new occt.gp_Trsf());
    map.SetValues(...rows);
    const operation = keep(new occt.BRepBuilderAPI_Transform(of.shape, map, false, false));
    const faces = uniqueShapes({ occt, keep }, of.shape, 'TopAbs_FACE');
    const roles = faces.map((face, i) => ({
      face: keep(occt.TopoDS.Face(keep(operation.ModifiedShape(face)))),
      name: of.faceNames[i]!,
    }));
    return nameFaces(occt, operation.Shape(), roles);
  });
}
