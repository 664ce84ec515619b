/** Which faces of a shape share an edge. */
import { ShapeMap, occurrences, scope, uniqueShapes, type Occt, type TopoDS_Shape } from '../occt/occt.ts';

/** Faces by their places in the kernel's order. */
export interface FacesOfEdges {
  /** The other faces along the border of a face; undefined where it comes to a point, as a cone does. */
  neighbours(face: number): readonly number[] | undefined;
}

/** A shape is asked again for every other that comes near. */
const known = new WeakMap<TopoDS_Shape, FacesOfEdges>();

export function facesOfEdges(occt: Occt, shape: TopoDS_Shape): FacesOfEdges {
  const before = known.get(shape);
  if (before) return before;
  const beside = neighboursOf(occt, shape);
  const found = { neighbours: (face: number) => beside[face] && [...beside[face]] };
  known.set(shape, found);
  return found;
}

function neighboursOf(occt: Occt, shape: TopoDS_Shape): (Set<number> | undefined)[] {
  return scope((keep) => {
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    const users = new ShapeMap<Set<number>>(occt);
    const edges = faces.map((face) => occurrences({ occt, keep }, face, 'TopAbs_EDGE'));
    edges.forEach((own, i) => own.forEach((edge) => users.ensure(edge, () => new Set()).add(i)));
    return edges.map((own, i) => {
      if (own.some((edge) => occt.BRep_Tool.Degenerated(keep(occt.TopoDS.Edge(edge))))) return undefined;
      const beside = new Set(own.flatMap((edge) => [...users.get(edge)!]));
      beside.delete(i);
      return beside;
    });
  });
}
