/** What a page begins with: what the server has, and what former visits left unsaved, where the two go together. */
import { afterEdits, editsCollide, isEditFault, type Edit, type KadrelDocument } from '@kadrel/core';
import type { Left } from './shelf.ts';

/** What a session begins with. */
export interface Resumed {
  readonly document: KadrelDocument;
  /** What is in the document beyond what the server has. */
  readonly edits: readonly Edit[];
  /** What is still to be saved. */
  readonly unsaved: readonly Edit[];
  /** False where somebody changed the same meanwhile. */
  readonly fits: boolean;
}

/** Puts what was left unsaved after what the server has. */
export function resume(opened: {
  readonly document: KadrelDocument;
  readonly revision: number;
  /** The last ones up to the revision: all that came after what was left was made, at least. */
  readonly edits: readonly Edit[];
  readonly left: Left | undefined;
}): Resumed {
  const { document, edits, left, revision } = opened;
  if (!left) return { document, edits: [], unsaved: [], fits: true };
  const known = new Set(edits.map((edit) => edit.id));
  const own = new Set(left.edits.map((edit) => edit.id));
  const unsaved = left.edits.filter((edit) => !known.has(edit.id));
  const first = revision - edits.length;
  const missed = edits
    .slice(Math.max(0, Math.min(left.base, revision) - first))
    .filter((edit) => !own.has(edit.id));
  const after = editsCollide(missed, unsaved) ? undefined : afterEdits(document, unsaved);
  if (!after || isEditFault(after)) return { document, edits: [], unsaved, fits: unsaved.length === 0 };
  const shown = withAside(
    after,
    left.aside.map(({ edit }) => edit),
  );
  return { document: shown.document, edits: [...unsaved, ...shown.edits], unsaved, fits: true };
}

/** What the server would not take is shown all the same, as far as it still goes. */
function withAside(
  start: KadrelDocument,
  aside: readonly Edit[],
): { document: KadrelDocument; edits: Edit[] } {
  let document = start;
  const edits = aside.filter((edit) => {
    const next = afterEdits(document, [edit]);
    if (isEditFault(next)) return false;
    document = next;
    return true;
  });
  return { document, edits };
}
