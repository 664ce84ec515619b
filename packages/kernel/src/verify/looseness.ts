/** How near the edges of a solid are to its faces, and to its corners. */
import { distance, type Vec3 } from '@kadrel/core';
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

/** Between an edge and a face of it, or a corner. */
export interface Gap {
  readonly mm: number;
  /** On the edge; undefined where nothing was measured. */
  readonly at?: Vec3;
}

const NONE: Gap = { mm: 0 };

/**
 * Where edges are farthest off their faces, or off their corners. What the kernel says of corners is room for both; where that is much,
 * it is measured, since it may be more than is needed: chamfers leave a ten-thousandth at corners and edges that are exact.
 */
export function widestGap(occt: Occt, shape: TopoDS_Shape): Gap {
  const room = occt.BRep_Tool.MaxTolerance(shape, 'TopAbs_VERTEX');
  if (room <= LOOSE_MM) return { mm: room };
  return widest([edgesOffCorners(occt, shape), edgesOffFaces(occt, shape)]);
}

/** mm. */
export const loosenessOf = (occt: Occt, shape: TopoDS_Shape): number => widestGap(occt, shape).mm;

const edgesOffCorners = (occt: Occt, shape: TopoDS_Shape): Gap =>
  scope((keep) => {
    const edges = inSpace({ occt, keep }, uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE'));
    return widest(edges.map((edge) => scope((inner) => offCorners({ occt, keep: inner }, edge))));
  });

const edgesOffFaces = (occt: Occt, shape: TopoDS_Shape): Gap =>
  scope((keep) => {
    const gaps = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').flatMap((found) => {
      const face = keep(occt.TopoDS.Face(found));
      const edges = inSpace({ occt, keep }, occurrences({ occt, keep }, face, 'TopAbs_EDGE'));
      return edges.map((edge) => scope((inner) => offFace({ occt, keep: inner }, edge, face)));
    });
    return widest(gaps);
  });

/** Those of some edges that are curves, and no mere points. */
const inSpace = ({ occt, keep }: Scoped, shapes: readonly TopoDS_Shape[]): TopoDS_Edge[] =>
  shapes.map((shape) => keep(occt.TopoDS.Edge(shape))).filter((edge) => !occt.BRep_Tool.Degenerated(edge));

const widest = (gaps: readonly Gap[]): Gap =>
  gaps.reduce((most, gap) => (gap.mm > most.mm ? gap : most), NONE);

function offCorners({ occt, keep }: Scoped, edge: TopoDS_Edge): Gap {
  const curve = keep(new occt.BRepAdaptor_Curve(edge));
  const ends = [curve.FirstParameter(), curve.LastParameter()].map((at) => read(curve.EvalD0(at), keep));
  const gaps = occurrences({ occt, keep }, edge, 'TopAbs_VERTEX').map((corner) => {
    const at = read(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(corner))), keep);
    return { mm: Math.min(...ends.map((end) => distance(end, at))), at };
  });
  return widest(gaps);
}

/** Stretches between the points of an edge that are held against its face. */
const STRETCHES = 22;

/** In space, and by its parameters on the surface of the face. */
function offFace({ occt, keep }: Scoped, edge: TopoDS_Edge, face: TopoDS_Face): Gap {
  if (occt.BRep_Tool.Tolerance(edge) <= LOOSE_MM) return NONE;
  const [curve, onFace] = [
    keep(new occt.BRepAdaptor_Curve(edge)),
    keep(new occt.BRepAdaptor_Curve2d(edge, face)),
  ];
  const surface = keep(new occt.BRepAdaptor_Surface(face, false));
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const gaps = Array.from({ length: STRETCHES + 1 }, (_, i) => {
    const parameter = first + ((last - first) * i) / STRETCHES;
    const flat = keep(onFace.EvalD0(parameter));
    const at = read(curve.EvalD0(parameter), keep);
    return { mm: distance(at, read(surface.EvalD0(flat.X(), flat.Y()), keep)), at };
  });
  return widest(gaps);
}

/** With enough digits to see how little it is, without an exponent, and without zeros behind. */
export const shortMm = (mm: number): string => mm.toFixed(9).replace(/0+$/, '');

/** To two digits: it is only a bound. */
export const looseWords = (looseMm: number): string =>
  `Some edges are only within ${shortMm(Number(looseMm.toPrecision(2)))} mm of their faces.`;
