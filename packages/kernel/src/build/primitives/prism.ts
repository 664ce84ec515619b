import type { Vec3 } from '@kadrel/core';
import { scope, type Occt } from '../../occt/occt.ts';
import type { NamedShape } from '../../naming/named.ts';
import { polygon, pulledUp } from './pulled.ts';

type Corners = readonly (readonly [number, number])[];

/** A prism on the origin along Z, mm. Faces: bottom, top, and side1 at the front, the others counter-clockwise. */
export const buildPrism = (occt: Occt, corners: Corners, height: number): NamedShape =>
  pulledPrism(
    occt,
    corners.map(([x, y]): Vec3 => [x, y, 0]),
    [0, 0, height],
  );

/** The outline pulled along a vector, wherever both point. */
export function pulledPrism(occt: Occt, corners: readonly Vec3[], up: Vec3): NamedShape {
  // The outline begins at the right end of the front, so that its last piece is the front.
  const names = corners.map((_, i) => `side${((i + 1) % corners.length) + 1}`);
  return scope((keep) =>
    pulledUp({ occt, keep }, { rims: [polygon({ occt, keep }, corners)], sides: [names] }, up),
  );
}
