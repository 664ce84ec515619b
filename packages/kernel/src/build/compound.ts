/** Several named solids as one shape, and what makes a shape a body. */
import { AT_ORIGIN, faultOf, type Vec3 } from '@kadrel/core';
import {
  BuildError,
  compoundOf,
  moved,
  occurrences,
  scope,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { plainVolumeOf } from '../facts/integrals.ts';
import type { NamedShape } from '../naming/named.ts';
import { rimsOf } from './bodies/rims.ts';

/** One solid as it is; several in a compound, with the names of their faces in the kernel's order. Takes the shapes over. */
export function together(occt: Occt, solids: readonly NamedShape[]): NamedShape {
  if (solids.length === 1) return solids[0]!;
  const shape = compoundOf(
    occt,
    solids.map((one) => one.shape),
  );
  for (const one of solids) one.shape.delete();
  return { shape, faceNames: solids.flatMap(({ faceNames }) => faceNames) };
}

/** Volumes at or below this (mm³) are none: the cube of the kernel's tolerance for touching. */
const MIN_VOLUME_MM3 = 1e-12;

/**
 * Every solid of a shape faces outward and holds something; returns the shape with those that were inside out turned.
 * Throws BuildError when there is none, or one without volume.
 */
export function requireBodies(occt: Occt, shape: TopoDS_Shape, what: string): TopoDS_Shape {
  return scope((keep) => {
    // One that is a solid itself is asked as it is, so that what is known of it is not asked again.
    const isSolid = (shape.ShapeType() as unknown as string) === 'TopAbs_SOLID';
    const solids = isSolid ? [shape] : occurrences({ occt, keep }, shape, 'TopAbs_SOLID');
    if (solids.length === 0)
      throw new BuildError(faultOf('body.not-closed', { what }), openingsOf({ occt, keep }, shape));
    const volumes = solids.map((solid) => plainVolumeOf(occt, solid));
    if (volumes.some((volume) => Math.abs(volume) <= MIN_VOLUME_MM3))
      throw new BuildError(faultOf('body.no-volume', { what }));
    if (volumes.every((volume) => volume > 0)) return shape;
    const outward = solids.map((solid, i) => (volumes[i]! > 0 ? solid : keep(solid.Reversed())));
    if (outward.length === 1) return moved(occt, outward[0]!, AT_ORIGIN);
    return compoundOf(occt, outward);
  });
}

/** The middle of each edge that only one face has, of the first few: enough to look at. */
const openingsOf = ({ occt, keep }: Scoped, shape: TopoDS_Shape): Vec3[] =>
  rimsOf({ occt, keep }, shape)
    .slice(0, 12)
    .map((edge) => {
      const curve = keep(new occt.BRepAdaptor_Curve(edge));
      const middle = keep(curve.EvalD0((curve.FirstParameter() + curve.LastParameter()) / 2));
      return [middle.X(), middle.Y(), middle.Z()];
    });
