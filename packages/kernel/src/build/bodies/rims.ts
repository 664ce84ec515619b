/** Where a shape is open. */
import { ShapeMap, occurrences, uniqueShapes, type Scoped, type TopoDS_Shape } from '../../occt/occt.ts';
import type { Edge } from '../../occt/edges.ts';

/** Edges that only one face has. */
export function rimsOf({ occt, keep }: Scoped, shape: TopoDS_Shape): Edge[] {
  const uses = new ShapeMap<{ count: number; edge: TopoDS_Shape }>(occt);
  for (const face of uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE'))
    for (const edge of occurrences({ occt, keep }, face, 'TopAbs_EDGE'))
      uses.ensure(edge, () => ({ count: 0, edge })).count += 1;
  return uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE')
    .filter((edge) => uses.get(edge)?.count === 1)
    .map((edge) => keep(occt.TopoDS.Edge(edge)));
}
