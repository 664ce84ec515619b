/** The dimension that the statement in hand would make, with what it is tied to as far as the page knows it. */
import {
  frameOfView,
  isRefusal,
  locateTie,
  perform,
  verbNamed,
  viewNow,
  type KadrelDocument,
  type TiedDimension,
  type Placed,
  type Sheet,
} from '@kadrel/core';
import type { SessionCore } from './core.ts';
import { tiesBlank } from './onSheet.ts';
import type { Statement } from './statement.ts';

/** What can be known of dimensions before they are made. */
export const dimensioning = ({ get, worlds }: SessionCore) => ({
  /** Null where the statement makes none, or cannot make one yet. */
  dimensionInHand(statement: Pick<Statement, 'verb' | 'typed'>): TiedDimension | null {
    const { document } = get();
    if (tiesBlank(statement) === undefined) return null;
    const world = worlds.of(document);
    const done = perform(verbNamed(statement.verb)!, statement.typed, document, world);
    const made = isRefusal(done) ? undefined : dimensionMade(document, done.document);
    const featuresOf = (solid: Placed) => {
      const shape = world.shapeOf(solid.leaf, solid);
      return isRefusal(shape) ? undefined : shape.snaps;
    };
    const stored = made?.sheet.views[made.dimension.view];
    const view = stored && viewNow(document, stored, featuresOf);
    const frame = view && frameOfView(document, view);
    if (!made || !frame) return null;
    const found = made.dimension.ties.map((tie) => locateTie(document, tie, featuresOf));
    const places = found.filter((place) => place !== null);
    return places.length < found.length ? null : { document, dimension: made.dimension, view, frame, places };
  },
});

interface Made {
  readonly sheet: Sheet;
  readonly dimension: TiedDimension['dimension'];
}

/** The dimension that one document has and the other has not, or has otherwise. */
function dimensionMade(before: KadrelDocument, after: KadrelDocument): Made | undefined {
  for (const sheet of Object.values(after.sheets)) {
    const known = before.sheets[sheet.id];
    if (known === sheet) continue;
    const found = Object.entries(sheet.dimensions).find(
      ([id, dimension]) => known?.dimensions[id] !== dimension,
    );
    if (found) return { sheet, dimension: found[1] };
  }
  return undefined;
}
