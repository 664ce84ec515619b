/** What a flat face adds to a solid, and where its middle is. */
import { add, cross, dot, scale, subtract, unit, type Vec3 } from '@kadrel/core';
import type { Scoped, TopoDS_Face } from '../occt/occt.ts';
import { borderOf } from './border.ts';
import type { Share } from './share.ts';
import { firstDerivatives } from './surface.ts';

/** A flat face by its border: ½∮(x dy − y dx), ½∮x² dy and −½∮y² dx in axes of its own. Source: Green's theorem. */
export function flatShare(site: Scoped, face: TopoDS_Face): Share {
  const { area, middle, height } = flatSums(site, face);
  return { area, volume: (height * area) / 3, moment: scale(middle, height / 4) };
}

/** The middle of a flat face: where it would balance. */
export function flatMiddleOf(site: Scoped, face: TopoDS_Face): Vec3 {
  const { area, middle } = flatSums(site, face);
  return scale(middle, 1 / area);
}

/** The area of a flat face, ∫ p dA over it, and how far in front of the origin it is. */
function flatSums({ occt, keep }: Scoped, face: TopoDS_Face) {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  const { point, along, across } = firstDerivatives(surface, { u: 0, v: 0 }, keep);
  const turned = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED' ? -1 : 1;
  const normal = scale(unit(cross(along, across)), turned);
  const x = unit(along);
  const y = cross(normal, x);
  let [area, mx, my] = [0, 0, 0];
  for (const { point: p, way } of borderOf({ occt, keep }, face, 'polynomial')) {
    const q = subtract(p, point);
    const [u, v, du, dv] = [dot(q, x), dot(q, y), dot(way, x), dot(way, y)];
    area += (u * dv - v * du) / 2;
    mx += (u * u * dv) / 2;
    my -= (v * v * du) / 2;
  }
  const middle = add(scale(point, area), add(scale(x, mx), scale(y, my)));
  return { area, middle, height: dot(point, normal) };
}
