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
}

export function measureShape(occt: Occt, shape: TopoDS_Shape): Measures {
  return scope((keep) => {
    const properties = keep(new occt.GProp_GProps());
    occt.BRepGProp.VolumeProperties(shape, properties, false, false, false);
    const centre = keep(properties.CentreOfMass());
    const surface = keep(new occt.GProp_GProps());
    occt.BRepGProp.SurfaceProperties(shape, surface, false, false);
    const faces = uniqueShapes(occt, shape, 'TopAbs_FACE' as never, keep);
    const edges = edgeUses(occt, faces, keep);
    return {
      volume: properties.Mass(),
      area: surface.Mass(),
      centroid: [centre.X(), centre.Y(), centre.Z()],
      box: exactBox(occt, shape),
      watertight: edges.every(({ uses, degenerated }) => degenerated || uses === 2),
      faces: faces.length,
      edges: edges.length,
      solids: occurrences(occt, shape, 'TopAbs_SOLID' as never, keep).length,
    };
  });
}

export function exactBox(occt: Occt, shape: TopoDS_Shape): Box {
  return scope((keep) => {
    const bounds = keep(new occt.Bnd_Box());
    occt.BRepBndLib.AddOptimal(shape, bounds, false, false);
    const [min, max] = [keep(bounds.CornerMin()), keep(bounds.CornerMax())];
    return {
      min: [clean(min.X()), clean(min.Y()), clean(min.Z())],
      max: [clean(max.X()), clean(max.Y()), clean(max.Z())],
    };
  });
}

/** The box of round things comes with noise of some 1e-15 round a zero. */
const clean = (n: number) => (Math.abs(n) < 1e-12 ? 0 : n);

function edgeUses(
  occt: Occt,
  faces: readonly TopoDS_Shape[],
  keep: Keep,
): { uses: number; degenerated: boolean }[] {
  const counted = new ShapeMap<{ uses: number; degenerated: boolean }>(occt);
  const list: { uses: number; degenerated: boolean }[] = [];
  for (const face of faces)
    for (const edge of occurrences(occt, face, 'TopAbs_EDGE' as never, keep)) {
      const entry = counted.ensure(edge, () => {
        const made = { uses: 0, degenerated: occt.BRep_Tool.Degenerated(keep(occt.TopoDS.Edge(edge))) };
        list.push(made);
        return made;
      });
      entry.uses += 1;
    }
  return list;
}
