import type { Vec3 } from '@kadrel/core';
import { scope, type Occt } from '../../occt/occt.ts';
import { nameFaces, type NamedShape } from '../../naming/named.ts';

/** A box with its minimum corner at the origin, mm. Faces: left (−X), right, front (−Y), back, bottom (−Z), top. */
export function buildBox(occt: Occt, [x, y, z]: Vec3): NamedShape {
  return scope((keep) => {
    const builder = keep(new occt.BRepPrimAPI_MakeBox(keep(new occt.gp_Pnt(0, 0, 0)), x, y, z));
    const shape = builder.Shape();
    // The kernel looks along −X, so that its back is our left.
    return nameFaces(occt, shape, [
      { face: keep(builder.BackFace()), name: 'left' },
      { face: keep(builder.FrontFace()), name: 'right' },
      { face: keep(builder.LeftFace()), name: 'front' },
      { face: keep(builder.RightFace()), name: 'back' },
      { face: keep(builder.BottomFace()), name: 'bottom' },
      { face: keep(builder.TopFace()), name: 'top' },
    ]);
  });
}
