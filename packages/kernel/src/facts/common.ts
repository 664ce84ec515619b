/** What two faces of one surface have in common. */
import { AT_ORIGIN, type Vec3 } from '@kadrel/core';
import {
  compoundOf,
  copied,
  progressRange,
  release,
  scope,
  uniqueShapes,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { integralsOf } from './integrals.ts';

/** Its area, mm², and the middle of that; both faces in one frame, and left as they are. */
export function commonOf(occt: Occt, a: TopoDS_Shape, b: TopoDS_Shape): { area: number; at: Vec3 } {
  const copies = [copied(occt, a, AT_ORIGIN), copied(occt, b, AT_ORIGIN)] as const;
  try {
    return scope((keep) => {
      const common = keep(new occt.BRepAlgoAPI_Common(...copies, progressRange({ occt, keep })));
      const faces = uniqueShapes({ occt, keep }, keep(common.Shape()), 'TopAbs_FACE');
      common.Clear();
      if (faces.length === 0) return { area: 0, at: [0, 0, 0] };
      const { area, areaCentroid } = integralsOf(occt, keep(compoundOf(occt, faces)));
      return { area, at: areaCentroid };
    });
  } finally {
    copies.forEach((copy) => release(occt, copy));
  }
}
