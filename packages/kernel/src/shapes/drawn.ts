/** Drawn things that are no solids: the curves of a profile, and the sheet of a plane. */
import type { Path } from '@kadrel/core';
import { ShapeMap, scope, uniqueShapes, type Occt } from '../occt/occt.ts';
import { edgesOfPath } from './edges.ts';
import type { NamedShape } from './named.ts';

/** Loose edges in the XY plane; no faces. */
export function buildDrawn(occt: Occt, paths: readonly Path[]): NamedShape {
  return scope((keep) => {
    const build = keep(new occt.TopoDS_Builder());
    const compound = new occt.TopoDS_Compound();
    build.MakeCompound(compound);
    const names = new ShapeMap<string>(occt);
    for (const path of paths)
      for (const { name, edge } of edgesOfPath(occt, path, keep)) {
        build.Add(compound, edge);
        names.ensure(edge, () => name);
      }
    const edgeNames = uniqueShapes(occt, compound, 'TopAbs_EDGE', keep).map((edge) => names.get(edge)!);
    return { shape: compound, faceNames: [], edgeNames };
  });
}

/** A square face round the origin. Face: sheet. */
export function buildSheet(occt: Occt, size: number): NamedShape {
  return scope((keep) => {
    const plane = keep(new occt.gp_Pln(keep(new occt.gp_Pnt(0, 0, 0)), keep(new occt.gp_Dir(0, 0, 1))));
    const half = size / 2;
    const face = keep(new occt.BRepBuilderAPI_MakeFace(plane, -half, half, -half, half));
    return { shape: face.Face(), faceNames: ['sheet'] };
  });
}
