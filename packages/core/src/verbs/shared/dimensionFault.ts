/** Whether a dimension can be drawn as it is tied. */
import type { KadrelDocument } from '../../document/schema.ts';
import type { Dimension, Sheet, TieRead } from '../../document/sheet.ts';
import { drawDimension } from '../../sheets/dimensions.ts';
import { isMeasured } from '../../sheets/measuring.ts';
import { frameOfView } from '../../sheets/looks.ts';
import { refuse, type Refusal } from '../../statement/declare.ts';

/** A dimension with what it is tied to. */
export interface Made {
  readonly made: Dimension;
  readonly ties: readonly TieRead[];
}

/** What cannot be drawn is refused. */
export function dimensionFault(
  document: KadrelDocument,
  sheet: Sheet,
  { made, ties }: Made,
): Refusal | undefined {
  const view = sheet.views[made.view]!;
  const frame = frameOfView(document, view);
  if (!frame) return refuse('gone', {}, 'view');
  const places = ties.map(({ geometry }) => geometry);
  const found = drawDimension({ document, dimension: made, view, frame, places });
  return isMeasured(found) ? undefined : refuse('not-measured', { words: found.words }, 'ties');
}
