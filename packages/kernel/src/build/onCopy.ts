/** What changes that to which it is done. */
import { knownOfCopy } from '../facts/integrals.ts';
import type { NamedShape } from '../naming/named.ts';
import { copiedWithCurves, release, type Occt } from '../occt/occt.ts';

/**
 * Does `work` to a copy: what moves faces, or rounds edges in vain, leaves marks on what it is given, and others are built on that.
 * Throws what `work` throws.
 */
export function onCopy(occt: Occt, of: NamedShape, work: (copy: NamedShape) => NamedShape): NamedShape {
  const copy = { ...of, shape: copiedWithCurves(occt, of.shape) };
  knownOfCopy(of.shape, copy.shape);
  let made: NamedShape | undefined;
  try {
    made = work(copy);
    return made;
  } finally {
    if (made?.shape !== copy.shape) release(occt, copy.shape);
  }
}
