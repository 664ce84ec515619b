/** Points put onto true surfaces. */
import { add, dot, scale, subtract, type Vec3 } from '@kadrel/core';
import { scope, type Scoped, type TopoDS_Face } from '../occt/occt.ts';

/** The nearest point of a surface, whatever its border. */
export type SurfaceFoot = (point: Vec3) => Vec3 | undefined;

export function surfaceFoot({ occt, keep }: Scoped, face: TopoDS_Face): SurfaceFoot {
  const surface = keep(occt.BRep_Tool.Surface(face));
  return ([x, y, z]) =>
    scope((inner) => {
      const projection = inner(new occt.GeomAPI_ProjectPointOnSurf(inner(new occt.gp_Pnt(x, y, z)), surface));
      if (projection.NbPoints() === 0) return undefined;
      const foot = inner(projection.NearestPoint());
      return [foot.X(), foot.Y(), foot.Z()];
    });
}

/** Farther than this (mm) a point does not belong to the surfaces: it stays where it is. */
const NEAR_MM = 1e-4;

/** A point near two surfaces or more → the nearest one that lies on all of them, by Newton's method on their distances. */
export function onSurfaces(feet: readonly SurfaceFoot[]): (point: Vec3) => Vec3 {
  return (start) => {
    let point = start;
    for (let round = 0; round < 4; round++) {
      const gaps = feet.map((foot) => {
        const there = foot(point);
        return there ? subtract(there, point) : undefined;
      });
      const known = gaps.filter((gap): gap is Vec3 => gap !== undefined && dot(gap, gap) > 1e-28);
      if (known.length === 0) return point;
      if (known.some((gap) => dot(gap, gap) > NEAR_MM ** 2)) return start;
      point = add(point, stepTo(known));
    }
    return point;
  };
}

/** The shortest step s with s·nᵢ = |gapᵢ| for the first two gaps, whose directions are nᵢ. */
function stepTo([a, b]: readonly Vec3[]): Vec3 {
  if (!b) return a!;
  const [aa, bb, ab] = [dot(a!, a!), dot(b, b), dot(a!, b)];
  const size = aa * bb - ab * ab;
  // Surfaces that touch: one step onto the first is as good as it gets.
  if (size < 1e-6 * aa * bb) return a!;
  // With s = p·a + q·b: s·a = aa and s·b = bb.
  const p = (aa * bb - bb * ab) / size;
  const q = (bb * aa - aa * ab) / size;
  return add(scale(a!, p), scale(b, q));
}
