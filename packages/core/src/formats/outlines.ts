/** Profiles of a document as outlines for a file. */
import { reasonOf } from '../language/reason.ts';
import { definitionOf } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { pathsOnPlane } from '../document/drawn.ts';
import type { DrawnPath } from '../curves/curve.ts';
import { FormatError } from './fault.ts';

/** The profiles among items, in the frame of the first. Throws FormatError when there are none, or in several planes. */
export function outlinesOf(document: KadrelDocument, ids: readonly ItemId[]): DrawnPath[] {
  const profiles = ids.filter(
    (id) => definitionOf(document, document.items[id]!).recipe.base.kind === 'profile',
  );
  if (profiles.length === 0) throw new FormatError(reasonOf('file.no-profile', {}));
  const paths = pathsOnPlane(document, profiles);
  if (!paths) throw new FormatError(reasonOf('file.several-planes', {}));
  return paths.map(({ closed, curves }) => ({ closed, curves: curves.map(({ curve }) => curve) }));
}
