import type { Occt } from '../../occt/occt.ts';
import type { NamedShape } from '../../naming/named.ts';
import { revolved } from '../revolved.ts';

/** A tube on the origin along Z, mm. Faces: bottom, side, top, bore. */
export function buildTube(
  occt: Occt,
  { diameter, bore, height }: { readonly diameter: number; readonly bore: number; readonly height: number },
): NamedShape {
  return revolved(occt, [
    { radius: bore / 2, z: 0, name: 'bottom' },
    { radius: diameter / 2, z: 0, name: 'side' },
    { radius: diameter / 2, z: height, name: 'top' },
    { radius: bore / 2, z: height, name: 'bore' },
  ]);
}
