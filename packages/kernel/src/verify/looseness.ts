/** How near the edges of a solid are to its faces, and to its corners. */
import { distance } from '@kadrel/core';
import {
  occurrences,
  read,
  scope,
  uniqueShapes,
  type Occt,
  type Scoped,
  type TopoDS_Edge,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';

/** Edges that are off their faces by more than this (mm) make volumes wrong in their sixth digit; usually it is 0.0000001. */
export const LOOSE_MM = 5e-6;

/**
 * How far (mm) edges are off their faces, or off their corners, at the most. What the kernel says of corners is room for both; where that
 * is much, it is measured, since it may be more than is needed: chamfers leave a ten-thousandth at corners and edges that are exact.
 */
export function loosenessOf(occt: Occt, shape: TopoDS_Shape): number {
  const room = occt.BRep_Tool.MaxTolerance(shape, 'TopAbs_VERTEX');
  if (room <= LOOSE_MM) return room;
  return Math.max(edgesOffCorners(occt, shape), edgesOffFaces(occt, shape));
}

const edgesOffCorners = (occt: Occt, shape: TopoDS_Shape): number =>
  scope((keep) => {
    const edges = inSpace({ occt, keep }, uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE'));
    return greatest(edges.map((edge) => scope((inner) => offCorners({ occt, keep: inner }, edge))));
  });

const edgesOffFaces = (occt: Occt, shape: TopoDS_Shape): number =>
  scope((keep) => {
    const gaps = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').flatMap((found) => {
      const face = keep(occt.TopoDS.Face(found));
      const edges = inSpace({ occt, keep }, occurrences({ occt, keep }, face, 'TopAbs_EDGE'));
      return edges.map((edge) => scope((inner) => offFace({ occt, keep: inner }, edge, face)));
    });
    return greatest(gaps);
  });

/** Those of some edges that are curves, and no mere points. */
const inSpace = ({ occt, keep }: Scoped, shapes: readonly TopoDS_Shape[]): TopoDS_Edge[] =>
  shapes.map((shape) => keep(occt.TopoDS.Edge(shape))).filter((edge) => !occt.BRep_Tool.Degenerated(edge));

const greatest = (gaps: readonly number[]): number => gaps.reduce((most, gap) => Math.max(most, gap), 0);

function offCorners({ occt, keep }: Scoped, edge: TopoDS_Edge): number {
  const curve = keep(new occt.BRepAdaptor_Curve(edge));
  const ends = [curve.FirstParameter(), curve.LastParameter()].map((at) => read(curve.EvalD0(at), keep));
  const gaps = occurrences({ occt, keep }, edge, 'TopAbs_VERTEX').map((corner) => {
    const at = read(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(corner))), keep);
    return Math.min(...ends.map((end) => distance(end, at)));
  });
  return greatest(gaps);
}

/** Stretches between the points of an edge that are held against its face. */
const STRETCHES = 22;

/** In space, and by its parameters on the surface of the face. */
function offFace({ occt, keep }: Scoped, edge: TopoDS_Edge, face: TopoDS_Face): number {
  if (occt.BRep_Tool.Tolerance(edge) <= LOOSE_MM) return 0;
  const [curve, onFace] = [
    keep(new occt.BRepAdaptor_Curve(edge)),
    keep(new occt.BRepAdaptor_Curve2d(edge, face)),
  ];
  const surface = keep(new occt.BRepAdaptor_Surface(face, false));
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const gaps = Array.from({ length: STRETCHES + 1 }, (_, i) => {
    const at = first + ((last - first) * i) / STRETCHES;
    const flat = keep(onFace.EvalD0(at));
    return distance(read(curve.EvalD0(at), keep), read(surface.EvalD0(flat.X(), flat.Y()), keep));
  });
  return greatest(gaps);
}

/** With enough digits to see how little it is, without an exponent, and without zeros behind. */
export const shortMm = (mm: number): string => mm.toFixed(9).replace(/0+$/, '');

/** To two digits: it is only a bound. */
export const looseWords = (looseMm: number): string =>
  `Some edges are only within ${shortMm(Number(looseMm.toPrecision(2)))} mm of their faces.`;
