import { scope, type Occt } from '../../occt/occt.ts';
import type { NamedShape } from '../../naming/named.ts';

/** A ball round the origin, mm. One face: surface. */
export function buildSphere(occt: Occt, diameter: number): NamedShape {
  return scope((keep) => {
    const axes = keep(
      new occt.gp_Ax2(
        keep(new occt.gp_Pnt(0, 0, 0)),
        keep(new occt.gp_Dir(0, 0, 1)),
        keep(new occt.gp_Dir(1, 0, 0)),
      ),
    );
    const builder = keep(new occt.BRepPrimAPI_MakeSphere(axes, diameter / 2));
    return { shape: builder.Shape(), faceNames: ['surface'] };
  });
}
