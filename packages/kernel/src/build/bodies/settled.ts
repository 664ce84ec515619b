/** A solid as it was written down, and writing one down. */
import { AT_ORIGIN, faultOf, type SolidWritten } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import type { NamedShape } from '../../naming/named.ts';
import { BuildError, copied, release, scope, uniqueShapes, type Occt } from '../../occt/occt.ts';
import { requireBodies } from '../compound.ts';

type Settled = Extract<Content, { readonly kind: 'settled' }>;

/** How far an edge may lie from its faces, as the text has it: of a corner, an edge or a face, with all the digits that are written. */
const TOLERANCES = /^(Ve\n|Ed\n |Fa\n[01] +)(\d\S{15,})/gm;
/** Relative: more than what is lost behind the fifteenth digit. */
const ROUNDED_OFF = 1e-12;

/** Rounded to what is written, a tolerance may be less than what it is to allow for. */
const withRoom = (text: string): string =>
  text.replace(
    TOLERANCES,
    (_, before: string, digits: string) => before + String(Number(digits) * (1 + ROUNDED_OFF)),
  );

/** Throws BuildError where it cannot be read. */
export function buildSettled(occt: Occt, { shape: text, faces: faceNames }: Settled): NamedShape {
  const read = occt.BRepToolsWrapper.Read(withRoom(text));
  if (read.IsNull()) throw unreadable();
  const shape = requireBodies(occt, read, 'The settled solid');
  const count = scope((keep) => uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').length);
  if (count === faceNames.length) return { shape, faceNames };
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
