/** What two faces of one surface have in common. */
import { AT_ORIGIN, boxSize, type Vec3 } from '@kadrel/core';
import {
  compoundOf,
  copied,
  progressRange,
  release,
  roughBox,
  scope,
  uniqueShapes,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { areaCentroidOf, integralsOf } from './integrals.ts';
import { displayChord, meshShape, type Mesh } from './mesh.ts';

/** Its area, mm², and the middle of that; both faces in one frame, and left as they are. */
export const commonOf = (occt: Occt, a: TopoDS_Shape, b: TopoDS_Shape): { area: number; at: Vec3 } =>
  withCommon(occt, [a, b], (common) => areaAndMiddle(occt, common)) ?? { area: 0, at: [0, 0, 0] };

/** And the corners of its facets, three times three numbers each. */
export const commonFacets = (occt: Occt, a: TopoDS_Shape, b: TopoDS_Shape) =>
  withCommon(occt, [a, b], (common) => ({
    ...areaAndMiddle(occt, common),
    corners: cornersOfFacets(
      meshShape(occt, common, displayChord(Math.hypot(...boxSize(roughBox(occt, common))))),
    ),
  }));

const areaAndMiddle = (occt: Occt, common: TopoDS_Shape) => ({
  area: integralsOf(occt, common).area,
  at: areaCentroidOf(occt, common),
});

const cornersOfFacets = ({ triangles, positions }: Mesh): number[] =>
  [...triangles].flatMap((i) => [...positions.subarray(3 * i, 3 * i + 3)]);

/** Undefined where they have nothing in common. */
function withCommon<T>(
  occt: Occt,
  [a, b]: readonly [TopoDS_Shape, TopoDS_Shape],
  work: (common: TopoDS_Shape) => T,
): T | undefined {
  const copies = [copied(occt, a, AT_ORIGIN), copied(occt, b, AT_ORIGIN)] as const;
  try {
    return scope((keep) => {
      const common = keep(new occt.BRepAlgoAPI_Common(...copies, progressRange({ occt, keep })));
      const faces = uniqueShapes({ occt, keep }, keep(common.Shape()), 'TopAbs_FACE');
      common.Clear();
      return faces.length === 0 ? undefined : work(keep(compoundOf(occt, faces)));
    });
  } finally {
    copies.forEach((copy) => release(occt, copy));
  }
}
