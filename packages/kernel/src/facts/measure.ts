/** Exact measures of a shape: from its true surfaces, not from facets. */
import { boxOfCurves, filledArea, pathLength, type Box, type Path, type Vec3 } from '@kadrel/core';
import {
  ShapeMap,
  occurrences,
  read,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { exactBox } from './extent.ts';
import { areaCentroidOf, integralsOf } from './integrals.ts';
import { doTouch } from './touching.ts';

/** Sizes of a built solid, in its own frame, mm, mm², mm³. */
export interface Measures {
  /** mm³ */
  readonly volume: number;
  /** mm² */
  readonly area: number;
  readonly centroid: Vec3;
  /** Exact, in the frame of the shape. */
  readonly box: Box;
  /** Every edge has exactly two faces beside it, and no two solids touch along a mere edge. */
  readonly watertight: boolean;
  /** Nothing is open: every edge has two faces beside it, or four where it touches itself. */
  readonly closed: boolean;
  /** Solids of it touch one another along an edge or in a point, or one touches itself. */
  readonly touching: boolean;
  readonly faces: number;
  readonly edges: number;
  readonly solids: number;
  /** Of drawn curves: their length, mm. */
  readonly length?: number;
}

/** All but whether its solids touch one another, which costs more than all else: `withTouching` adds that. */
export function measureShape(occt: Occt, shape: TopoDS_Shape): Measures {
  return scope((keep) => {
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    const edges = edgesOf({ occt, keep }, faces);
    const whole = integralsOf(occt, shape);
    const solids = occurrences({ occt, keep }, shape, 'TopAbs_SOLID').length;
    const uses = edges
      .filter(({ degenerated, uses: count }) => !degenerated && count > 0)
      .map((edge) => edge.uses);
    // What has no faces encloses nothing.
    const closed = faces.length > 0 && uses.every((count) => count === 2 || count === 4);
    const touching = closed && uses.includes(4);
    return {
      volume: solids > 0 ? whole.volume : 0,
      area: whole.area,
      // An open surface encloses nothing: its middle is that of its area.
      centroid: solids > 0 ? whole.centroid : areaCentroidOf(occt, shape),
      box: exactBox(occt, shape),
      watertight: closed && !touching,
      closed,
      touching,
      faces: faces.length,
      edges: edges.length,
      solids,
    };
  });
}

/** Whether solids of a shape, or one of them with itself, touch along mere edges or in points. */
export const isTouching = (occt: Occt, shape: TopoDS_Shape): boolean =>
  touchingEdges(occt, shape).length > 0 || doTouch(occt, shape);

/** Points in the middle of edges beside which a solid has four faces: where it touches itself. */
export function touchingEdges(occt: Occt, shape: TopoDS_Shape): Vec3[] {
  return scope((keep) =>
    edgesOf({ occt, keep }, uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE'))
      .filter(({ degenerated, uses }) => !degenerated && uses === 4)
      .map(({ edge }) => pointOn({ occt, keep }, edge)),
  );
}

function pointOn({ occt, keep }: Scoped, edge: TopoDS_Shape): Vec3 {
  const curve = keep(new occt.BRepAdaptor_Curve(keep(occt.TopoDS.Edge(edge))));
  return read(keep(curve.Value((curve.FirstParameter() + curve.LastParameter()) / 2)), keep);
}

/** The measures of a shape, with whether its solids touch one another. */
export function withTouching(occt: Occt, shape: TopoDS_Shape, measures: Measures): Measures {
  const { closed, touching, solids } = measures;
  if (!closed || touching || solids < 2 || !doTouch(occt, shape)) return measures;
  return { ...measures, touching: true, watertight: false };
}

/** Of drawn curves: what they fill, by their own formulas; no kernel is asked. */
export function drawnMeasures(paths: readonly Path[]): Measures {
  const curves = paths.flatMap((path) => path.curves.map(({ curve }) => curve));
  const { min, max } = boxOfCurves(curves) ?? { min: [0, 0], max: [0, 0] };
  return {
    volume: 0,
    area: filledArea(paths),
    centroid: [0, 0, 0],
    box: { min: [...min, 0], max: [...max, 0] },
    watertight: false,
    closed: false,
    touching: false,
    faces: 0,
    edges: curves.length,
    solids: 0,
    length: paths.reduce((all, path) => all + pathLength(path), 0),
  };
}

interface EdgeUse {
  readonly edge: TopoDS_Shape;
  uses: number;
  readonly degenerated: boolean;
}

function edgesOf({ occt, keep }: Scoped, faces: readonly TopoDS_Shape[]): EdgeUse[] {
  const counted = new ShapeMap<EdgeUse>(occt);
  const list: EdgeUse[] = [];
  for (const face of faces)
    for (const shape of occurrences({ occt, keep }, face, 'TopAbs_EDGE')) {
      const entry = counted.ensure(shape, () => {
        const edge = keep(occt.TopoDS.Edge(shape));
        const degenerated = occt.BRep_Tool.Degenerated(edge);
        const made = { edge: shape, uses: 0, degenerated };
        list.push(made);
        return made;
      });
      // A line on a face that parts nothing, as where another solid touches it, is no border.
      const way = shape.Orientation() as unknown as string;
      if (way === 'TopAbs_FORWARD' || way === 'TopAbs_REVERSED') entry.uses += 1;
    }
  return list;
}
