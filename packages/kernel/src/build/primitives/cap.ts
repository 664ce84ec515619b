import { faultOf } from '@kadrel/core';
import { BuildError, scope, uniqueShapes, type Occt } from '../../occt/occt.ts';
import type { NamedShape } from '../../naming/named.ts';

/** A ball cut flat below, standing on the flat face at the origin. Faces: surface, bottom. */
export function buildCap(occt: Occt, diameter: number, height: number): NamedShape {
  if (!(height < diameter)) throw new BuildError(faultOf('cap.high', { height, diameter }));
  return scope((keep) => {
    const radius = diameter / 2;
    const axes = keep(
      new occt.gp_Ax2(
        keep(new occt.gp_Pnt(0, 0, height - radius)),
        keep(new occt.gp_Dir(0, 0, 1)),
        keep(new occt.gp_Dir(1, 0, 0)),
      ),
    );
    const lowest = Math.asin((radius - height) / radius);
    const shape = keep(new occt.BRepPrimAPI_MakeSphere(axes, radius, lowest, Math.PI / 2)).Shape();
    const faceNames = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) => {
      const surface = keep(new occt.BRepAdaptor_Surface(keep(occt.TopoDS.Face(face)), true));
      return (surface.GetType() as unknown as string) === 'GeomAbs_Plane' ? 'bottom' : 'surface';
    });
    return { shape, faceNames };
  });
}
