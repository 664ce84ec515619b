/** A solid as it was written down, and writing one down. */
import { AT_ORIGIN, faultOf, type SolidWritten } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import type { NamedShape } from '../../naming/named.ts';
import { BuildError, copied, release, scope, uniqueShapes, type Occt } from '../../occt/occt.ts';
import { isSound } from '../../occt/sound.ts';
import { requireBodies } from '../compound.ts';

type Settled = Extract<Content, { readonly kind: 'settled' }>;

/** Of edges, at the least: the kernel's own. */
const TOLERANCE_MM = 1e-7;

/** Throws BuildError where it cannot be read. */
export function buildSettled(occt: Occt, { shape: text, faces: faceNames }: Settled): NamedShape {
  const read = occt.BRepToolsWrapper.Read(text);
  if (read.IsNull()) throw unreadable();
  const shape = requireBodies(occt, read, 'The settled solid');
  const count = scope((keep) => uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').length);
  if (count === faceNames.length) {
    // By the last digit an edge may come to lie farther from its faces than the tolerance that it was written with.
    if (!isSound(occt, shape)) occt.BRepLib.SameParameter(shape, TOLERANCE_MM, true);
    return { shape, faceNames };
  }
  release(occt, shape);
  throw unreadable();
}

const unreadable = () => new BuildError(faultOf('settled.unreadable', {}));

/** Exact to fifteen digits and more. Of a copy: it has no facets, which would be written too. */
export function writtenSolid(occt: Occt, { shape, faceNames }: NamedShape): SolidWritten {
  const copy = copied(occt, shape, AT_ORIGIN);
  try {
    return { shape: occt.BRepToolsWrapper.Write(copy), faces: faceNames };
  } finally {
    release(occt, copy);
  }
}
