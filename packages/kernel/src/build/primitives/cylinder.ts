import { scope, type Occt } from '../../occt/occt.ts';
import type { NamedShape } from '../../naming/named.ts';

/** A cylinder on the origin along Z, mm. Faces: side, top, bottom, in the kernel's order. */
export function buildCylinder(occt: Occt, diameter: number, height: number): NamedShape {
  return scope((keep) => {
    const axes = keep(
      new occt.gp_Ax2(
        keep(new occt.gp_Pnt(0, 0, 0)),
        keep(new occt.gp_Dir(0, 0, 1)),
        keep(new occt.gp_Dir(1, 0, 0)),
      ),
    );
    const builder = keep(new occt.BRepPrimAPI_MakeCylinder(axes, diameter / 2, height));
    return { shape: builder.Shape(), faceNames: ['side', 'top', 'bottom'] };
  });
}
