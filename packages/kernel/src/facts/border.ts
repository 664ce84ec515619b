/** Borders of faces, as integrals along them want them. */
import { scale, type Vec3 } from '@kadrel/core';
import { ShapeMap, occurrences, type Scoped, type TopoDS_Face } from '../occt/occt.ts';
import { alongEdge, type Integrand } from './alongEdge.ts';

export interface BorderPoint {
  readonly point: Vec3;
  /** Its derivative, weighted for the integral. */
  readonly way: Vec3;
}

/** Points round a face, with the face to their left seen from outside. Seams cancel out and are left out. */
export function borderOf({ occt, keep }: Scoped, face: TopoDS_Face, integrand: Integrand): BorderPoint[] {
  const edges = occurrences({ occt, keep }, face, 'TopAbs_EDGE');
  const uses = new ShapeMap<{ count: number }>(occt);
  for (const edge of edges) uses.ensure(edge, () => ({ count: 0 })).count += 1;
  return edges.flatMap((shape) => {
    const side = shape.Orientation() as unknown as string;
    const isSeam = uses.get(shape)!.count > 1;
    if ((side !== 'TopAbs_FORWARD' && side !== 'TopAbs_REVERSED') || isSeam) return [];
    const sign = side === 'TopAbs_FORWARD' ? 1 : -1;
    const found: BorderPoint[] = [];
    for (const { point, derivative, weight } of alongEdge(occt, keep(occt.TopoDS.Edge(shape)), integrand))
      found.push({ point, way: scale(derivative, sign * weight) });
    return found;
  });
}
