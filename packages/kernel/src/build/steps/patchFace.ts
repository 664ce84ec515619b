/** A face on a Bézier patch. */
import type { Vec3 } from '@kadrel/core';
import type { Scoped } from '../../occt/occt.ts';
import type { NamedFace } from '../surfaces.ts';

const TOLERANCE_MM = 1e-7;

/** @param patch n² control points, row by row, of the same degree both ways */
export function patchFace(
  { occt, keep }: Scoped,
  { name, poles }: { readonly name: string; readonly poles: readonly Vec3[] },
): NamedFace {
  const order = Math.sqrt(poles.length);
  const grid = keep(new occt.NCollection_Array2_gp_Pnt(1, order, 1, order));
  poles.forEach((pole, i) =>
    grid.SetValue((i % order) + 1, Math.floor(i / order) + 1, keep(new occt.gp_Pnt(...pole))),
  );
  const knots = keep(new occt.NCollection_Array1_double(1, 2));
  const multiplicities = keep(new occt.NCollection_Array1_int(1, 2));
  [1, 2].forEach((i) => {
    knots.SetValue(i, i - 1);
    multiplicities.SetValue(i, order);
  });
  const degree = order - 1;
  const surface = keep(
    new occt.Geom_BSplineSurface(
      grid,
      knots,
      knots,
      multiplicities,
      multiplicities,
      degree,
      degree,
      false,
      false,
    ),
  );
  return { name, face: keep(keep(new occt.BRepBuilderAPI_MakeFace(surface, TOLERANCE_MM)).Face()) };
}
