import type { Occt } from '../../occt/occt.ts';
import type { NamedShape } from '../../naming/named.ts';
import { revolved } from '../revolved.ts';

/** A cone or a frustum on the origin along Z, mm. Faces: bottom, side, top; a top of 0 is a point and no face. */
export function buildCone(
  occt: Occt,
  { diameter, top, height }: { readonly diameter: number; readonly top: number; readonly height: number },
): NamedShape {
  return revolved(occt, [
    { radius: 0, z: 0, name: 'bottom' },
    { radius: diameter / 2, z: 0, name: 'side' },
    ...(top > 0 ? [{ radius: top / 2, z: height, name: 'top' }] : []),
    { radius: 0, z: height, name: 'axis' },
  ]);
}
