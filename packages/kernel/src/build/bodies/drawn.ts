/** Drawn things that are no solids: the curves of a profile, and the sheet of a plane. */
import type { Path } from '@kadrel/core';
import { ShapeMap, scope, uniqueShapes, type Occt } from '../../occt/occt.ts';
import { edgesOfPath, type DrawnEdge } from '../../occt/edges.ts';
import type { NamedShape } from '../../naming/named.ts';

/** Loose edges in the XY plane; no faces. */
export function buildDrawn(occt: Occt, paths: readonly Path[]): NamedShape {
  return scope((keep) => {
    const build = keep(new occt.TopoDS_Builder());
    const compound = new occt.TopoDS_Compound();
    build.MakeCompound(compound);
    const drawn = new ShapeMap<DrawnEdge>(occt);
    for (const path of paths)
      for (const made of edgesOfPath({ occt, keep }, path)) {
        build.Add(compound, made.edge);
        drawn.ensure(made.edge, () => made);
      }
    const edges = uniqueShapes({ occt, keep }, compound, 'TopAbs_EDGE').map((edge) => drawn.get(edge)!);
    return {
      shape: compound,
      faceNames: [],
      edgeNames: edges.map(({ name }) => name),
      edgeCurves: edges.map(({ curve }) => curve),
    };
  });
}

/** A square face round the origin, ruled with its own grid. Face: sheet. */
export function buildSheet(occt: Occt, size: number, grid: number): NamedShape {
  return scope((keep) => {
    const plane = keep(new occt.gp_Pln(keep(new occt.gp_Pnt(0, 0, 0)), keep(new occt.gp_Dir(0, 0, 1))));
    const half = size / 2;
    const face = keep(new occt.BRepBuilderAPI_MakeFace(plane, -half, half, -half, half));
    return { shape: face.Face(), faceNames: ['sheet'], ruled: gridLines(half, grid) };
  });
}

/** More lines than this each way would be a grey field: then every second, fifth, tenth … is drawn. */
const MAX_LINES = 24;

function gridLines(half: number, grid: number): number[] {
  let step = grid;
  for (const by of cycle([2, 2.5, 2])) {
    if ((2 * half) / step <= MAX_LINES) break;
    step *= by;
  }
  const lines: number[] = [];
  const count = Math.floor(half / step - 1e-9);
  for (let i = -count; i <= count; i++) {
    const at = i * step;
    lines.push(at, -half, 0, at, half, 0, -half, at, 0, half, at, 0);
  }
  return lines;
}

function* cycle(list: readonly number[]): Generator<number> {
  for (;;) yield* list;
}
