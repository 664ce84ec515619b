/** A solid with the names of its faces. */
import type { Occt, TopoDS_Face, TopoDS_Shape } from '../occt/occt.ts';
import type { Unstretched } from './unstretched.ts';
import { scope, uniqueShapes } from '../occt/occt.ts';

export interface NamedShape {
  readonly shape: TopoDS_Shape;
  /** One for each face, in the kernel's order of faces. */
  readonly faceNames: readonly string[];
  /** The solid that this one is the linear image of, where it is one. */
  readonly unstretched?: Unstretched | undefined;
}

/** Names each face by asking which of the given ones it is. */
export function nameFaces(
  occt: Occt,
  shape: TopoDS_Shape,
  roles: readonly { readonly face: TopoDS_Face; readonly name: string }[],
): NamedShape {
  const faceNames = scope((keep) =>
    uniqueShapes(occt, shape, 'TopAbs_FACE', keep).map(
      (face) => roles.find((role) => role.face.IsSame(face))?.name ?? 'face',
    ),
  );
  return { shape, faceNames };
}
