/** Exact measures of a shape: from its true surfaces, not from facets. */
import type { Box, Vec3 } from '@kadrel/core';
import {
  ShapeMap,
  occurrences,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';

export interface Measures {
  /** mm³ */
  readonly volume: number;
  /** mm² */
  readonly area: number;
  readonly centroid: Vec3;
  /** Exact, in the frame of the shape. */
  readonly box: Box;
  /** Every edge has exactly two faces beside it: nothing is open and nothing touches along a mere edge. */
  readonly watertight: boolean;
  readonly faces: number;
  readonly edges: number;
  readonly solids: number;
  /** Of drawn curves: their length, mm. */
  readonly length?: number;
}

export function measureShape(occt: Occt, shape: TopoDS_Shape): Measures {
  return scope((keep) => {
    const faces = uniqueShapes(occt, shape, 'TopAbs_FACE', keep);
    const edges = edgesOf(occt, faces, keep);
    const properties = keep(new occt.GProp_GProps());
    const surface = keep(new occt.GProp_GProps());
    if (edges.every(({ isPlain }) => isPlain)) {
      occt.BRepGProp.VolumeProperties(shape, properties, false, false, false);
      occt.BRepGProp.SurfaceProperties(shape, surface, false, false);
    } else {
      occt.BRepGProp.VolumeProperties(shape, properties, ADAPTIVE, false, false);
      occt.BRepGProp.SurfaceProperties(shape, surface, ADAPTIVE, false);
    }
    const centre = keep(properties.CentreOfMass());
    return {
      volume: properties.Mass(),
      area: surface.Mass(),
      centroid: [centre.X(), centre.Y(), centre.Z()],
      box: exactBox(occt, shape),
      // What has no faces encloses nothing.
      watertight: faces.length > 0 && edges.every(({ uses, degenerated }) => degenerated || uses === 2),
      faces: faces.length,
      edges: edges.length,
      solids: occurrences(occt, shape, 'TopAbs_SOLID', keep).length,
    };
  });
}

export function exactBox(occt: Occt, shape: TopoDS_Shape): Box {
  return scope((keep) => {
    const bounds = keep(new occt.Bnd_Box());
    occt.BRepBndLib.AddOptimal(shape, bounds, false, false);
    // Where a curve is neither a line nor a circle, the kernel widens the box by its tolerance: that is taken back.
    bounds.SetGap(0);
    const [min, max] = [keep(bounds.CornerMin()), keep(bounds.CornerMax())];
    return {
      min: [clean(min.X()), clean(min.Y()), clean(min.Z())],
      max: [clean(max.X()), clean(max.Y()), clean(max.Z())],
    };
  });
}

/** The box of round things comes with noise of some 1e-15 round a zero. */
const clean = (n: number) => (Math.abs(n) < 1e-12 ? 0 : n);

/**
 * Relative error that the integration aims at where faces are bounded by more than lines and circles. The plain one is
 * exact for lines and circles, and up to 9e-5 off elsewhere (measured on 200 random pairs of solids; adaptive 2e-8, and
 * nine in ten below 6e-10).
 */
const ADAPTIVE = 1e-9;

interface EdgeUse {
  uses: number;
  readonly degenerated: boolean;
  readonly isPlain: boolean;
}

function edgesOf(occt: Occt, faces: readonly TopoDS_Shape[], keep: Keep): EdgeUse[] {
  const counted = new ShapeMap<EdgeUse>(occt);
  const list: EdgeUse[] = [];
  for (const face of faces)
    for (const shape of occurrences(occt, face, 'TopAbs_EDGE', keep)) {
      const entry = counted.ensure(shape, () => {
        const edge = keep(occt.TopoDS.Edge(shape));
        const degenerated = occt.BRep_Tool.Degenerated(edge);
        const made = { uses: 0, degenerated, isPlain: degenerated || isLineOrCircle(occt, edge) };
        list.push(made);
        return made;
      });
      entry.uses += 1;
    }
  return list;
}

function isLineOrCircle(occt: Occt, edge: ReturnType<Occt['TopoDS']['Edge']>): boolean {
  return scope((keep) => {
    const type: string = keep(new occt.BRepAdaptor_Curve(edge)).GetType();
    return type === 'GeomAbs_Line' || type === 'GeomAbs_Circle';
  });
}
