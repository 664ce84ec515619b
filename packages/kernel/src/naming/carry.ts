/** Names of faces through an operation, by the kernel's own history. */
import { MERGED } from '@kadrel/core';
import { ShapeMap, fromList, uniqueShapes, type Scoped, type TopoDS_Shape } from '../occt/occt.ts';
import type { NamedShape } from './named.ts';

interface WithHistory {
  Modified(shape: TopoDS_Shape): { IsEmpty(): boolean; delete(): void };
  IsDeleted(shape: TopoDS_Shape): boolean;
}

/** Names for the faces of `result`, in order. A face that came from several has all their names, joined by +. */
export function carryNames(
  { occt, keep }: Scoped,
  operation: WithHistory,
  { inputs, result }: { readonly inputs: readonly NamedShape[]; readonly result: TopoDS_Shape },
): string[] {
  const faces = uniqueShapes({ occt, keep }, result, 'TopAbs_FACE');
  const names = new ShapeMap<Set<string>>(occt);
  const order = faces.map((face) => names.ensure(face, () => new Set<string>()));
  for (const { shape, faceNames } of inputs)
    uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').forEach((face, i) => {
      const later = fromList({ occt, keep }, keep(operation.Modified(face)));
      const now = later.length === 0 && !operation.IsDeleted(face) ? [face] : later;
      // History also lists faces that were lost on the way: only those of the result count.
      for (const one of now) for (const name of faceNames[i]!.split(MERGED)) names.get(one)?.add(name);
    });
  return order.map((set) => [...set].join(MERGED) || 'face');
}
