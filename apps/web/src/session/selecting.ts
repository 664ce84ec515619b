/** Selecting by what parts are: like those that are selected, by name, all others, and what was selected or made before. */
import {
  doublesAmong,
  carry,
  carryBox,
  partsLeftOut,
  partsLike,
  partsNamed,
  undoStacks,
  visibleParts,
  worldFromPart,
  type Edit,
  type ItemId,
  type KadrelDocument,
  type Likeness,
} from '@kadrel/core';
import { factsOfPart, type Built } from './built.ts';

/** What selecting asks of the session. */
interface Selectable {
  readonly document: KadrelDocument;
  readonly built: Built;
  readonly edits: readonly Edit[];
  readonly selection: readonly ItemId[];
  readonly lastSelection: readonly ItemId[];
}

export function selectingActions(get: () => Selectable, select: (parts: readonly ItemId[]) => void) {
  return {
    selectLike(how: Likeness): void {
      const state = get();
      select(partsLike(state.document, state.selection, how, (id) => factsOfPart(state, id)?.measures.box));
    },
    selectNamed: (text: string) => select(partsNamed(get().document, text)),
    selectOthers: () => select(partsLeftOut(get().document, get().selection)),
    selectAll: () => select(visibleParts(get().document).map(({ id }) => id)),
    selectLast: () => select(get().lastSelection.filter((id) => get().document.items[id])),
    /** What the last statement made. */
    selectLastMade(): void {
      const { edits, document } = get();
      for (const id of [...undoStacks(edits).undo].reverse()) {
        const made = (edits.find((edit) => edit.id === id)?.patches ?? []).flatMap(({ op, path }) =>
          op === 'add' && path.length === 2 && path[0] === 'items' ? [String(path[1])] : [],
        );
        const standing = made.filter((one) => document.items[one]?.parent === null);
        if (standing.length > 0) return select(standing);
      }
    },
  };
}

/** Groups of parts that lie exactly on each other, as far as they are built. */
export function doublesIn(document: KadrelDocument, built: Built): ItemId[][] {
  return doublesAmong(
    visibleParts(document).flatMap(({ id }) => {
      const measures = factsOfPart({ built }, id)?.measures;
      if (!measures) return [];
      const pose = worldFromPart(document, id);
      const { volume, centroid, box } = measures;
      return [{ part: id, volume, centroid: carry(pose, centroid), box: carryBox(pose, box) }];
    }),
  );
}
