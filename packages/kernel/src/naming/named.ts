/** A solid with the names of its faces. */
import type { Curve, Path } from '@kadrel/core';
import type { Occt, TopoDS_Face, TopoDS_Shape } from '../occt/occt.ts';
import type { Unstretched } from '../content/unstretched.ts';
import { ShapeMap, scope, uniqueShapes } from '../occt/occt.ts';

/** A shape with the names of its faces. */
export interface NamedShape {
  readonly shape: TopoDS_Shape;
  /** One for each face, in the kernel's order of faces. */
  readonly faceNames: readonly string[];
  /** The kernel's own check has passed already. */
  readonly isSound?: true;
  /** What drawn curves they are. */
  readonly drawn?: readonly Path[] | undefined;
  /** Lines that are drawn on it and are no edges: ends of each, mm. */
  readonly ruled?: readonly number[];
  /** Of loose edges, one for each in the kernel's order of edges. */
  readonly edgeNames?: readonly string[];
  /** And the curve that each was made from. */
  readonly edgeCurves?: readonly Curve[];
  /** The solid that this one is the linear image of, where it is one. */
  readonly unstretched?: Unstretched | undefined;
}

/** What a face is called of which nothing is known. */
export const UNNAMED = 'face';

/** Names each face by asking which of the given ones it is. */
export function nameFaces(
  occt: Occt,
  shape: TopoDS_Shape,
  roles: readonly { readonly face: TopoDS_Face; readonly name: string }[],
): NamedShape {
  const names = new ShapeMap<string>(occt);
  for (const { face, name } of roles) names.ensure(face, () => name);
  const faceNames = scope((keep) =>
    uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((face) => names.get(face) ?? UNNAMED),
  );
  return { shape, faceNames };
}
