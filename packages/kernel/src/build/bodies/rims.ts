/** Where a shape is open. */
import {
  ShapeMap,
  occurrences,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import type { Edge } from '../../occt/edges.ts';

/** Edges that only one face has. */
export function rimsOf(occt: Occt, shape: TopoDS_Shape, keep: Keep): Edge[] {
  const uses = new ShapeMap<{ count: number; edge: TopoDS_Shape }>(occt);
  for (const face of uniqueShapes(occt, shape, 'TopAbs_FACE', keep))
    for (const edge of occurrences(occt, face, 'TopAbs_EDGE', keep))
      uses.ensure(edge, () => ({ count: 0, edge })).count += 1;
  return uniqueShapes(occt, shape, 'TopAbs_EDGE', keep)
    .filter((edge) => uses.get(edge)?.count === 1)
    .map((edge) => keep(occt.TopoDS.Edge(edge)));
}
