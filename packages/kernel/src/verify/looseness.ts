/** How near the edges of a solid are to its faces, and to its corners. */
import { distance, type Vec3 } from '@kadrel/core';
import {
  occurrences,
  read,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type Scoped,
  type TopoDS_Edge,
  type TopoDS_Shape,
} from '../occt/occt.ts';

/** Edges that are off their faces by more than this (mm) make volumes wrong in their sixth digit; usually it is 0.0000001. */
export const LOOSE_MM = 5e-6;

/**
 * How far (mm) edges may be off their faces, as the kernel itself says, or are off their corners, at the most. What it says of corners is
 * room for both; where that is much, it may be more than is needed: a chamfer leaves a ten-thousandth at each of its own.
 */
export function loosenessOf(occt: Occt, shape: TopoDS_Shape): number {
  const room = occt.BRep_Tool.MaxTolerance(shape, 'TopAbs_VERTEX');
  return room <= LOOSE_MM ? room : Math.max(edgesOffFaces(occt, shape), edgesOffCorners(occt, shape));
}

const edgesOffFaces = (occt: Occt, shape: TopoDS_Shape): number =>
  occt.BRep_Tool.MaxTolerance(shape, 'TopAbs_EDGE');

const edgesOffCorners = (occt: Occt, shape: TopoDS_Shape): number =>
  scope((keep) =>
    uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE').reduce((most, one) => {
      const edge = keep(occt.TopoDS.Edge(one));
      if (occt.BRep_Tool.Degenerated(edge)) return most;
      return Math.max(
        most,
        scope((inner) => offCorners({ occt, keep: inner }, edge)),
      );
    }, 0),
  );

function offCorners({ occt, keep }: Scoped, edge: TopoDS_Edge): number {
  const curve = keep(new occt.BRepAdaptor_Curve(edge));
  const ends = [curve.FirstParameter(), curve.LastParameter()].map((at) => read(curve.EvalD0(at), keep));
  const gaps = occurrences({ occt, keep }, edge, 'TopAbs_VERTEX').map((corner) => {
    const at = pointOf(occt, corner, keep);
    return Math.min(...ends.map((end) => distance(end, at)));
  });
  return Math.max(0, ...gaps);
}

const pointOf = (occt: Occt, corner: TopoDS_Shape, keep: Keep): Vec3 =>
  read(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(corner))), keep);

/** Without an exponent, and without zeros behind. */
export const shortMm = (mm: number): string => mm.toFixed(9).replace(/0+$/, '');

/** To two digits: it is only a bound. */
export const looseWords = (looseMm: number): string =>
  `Some edges are only within ${shortMm(Number(looseMm.toPrecision(2)))} mm of their faces.`;
