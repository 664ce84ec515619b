/** What stands at the pointer: a list of what is within reach or of the parts under it, and the field for a distance along a guide. */
import { alongGuide, partsUnder, selectableOf, type Guide, type ItemId, type Snap } from '@kadrel/core';
import { createStore } from 'zustand/vanilla';
import type { Pane } from './pane.ts';
import type { Stage } from './stage.ts';

/** What is within reach, as a list at the pointer. */
export interface CatchList {
  readonly left: number;
  readonly top: number;
  readonly rows: readonly { readonly title: string; readonly detail: string }[];
  readonly choose: (row: number) => void;
}

/** A distance that is being typed along a guide. */
export interface Typing {
  readonly left: number;
  readonly top: number;
  readonly text: string;
  /** What the guide runs along. */
  readonly words: string;
  readonly take: (mm: number) => void;
}

/** One for all views: at most one list and one field are open. */
export class CatchLists {
  readonly shown = createStore<{ readonly list: CatchList | null; readonly typing: Typing | null }>(() => ({
    list: null,
    typing: null,
  }));

  constructor(private readonly stage: Stage) {}

  /** Opens a list, where there is anything to be listed. @param choose what happens with the row that is chosen */
  open(pane: Pane, rows: CatchList['rows'], choose: (row: number) => void): boolean {
    const list = {
      ...this.besidePointer(pane),
      rows,
      choose: (row: number) => {
        this.close();
        choose(row);
      },
    };
    if (rows.length > 0) this.shown.setState({ list });
    return rows.length > 0;
  }

  /** A list of the parts under the pointer. */
  openParts(pane: Pane): boolean {
    const { x, y } = this.stage.pointer.at ?? { x: 0, y: 0 };
    const { session } = this.stage;
    const { items } = session.store.getState().document;
    const parts = this.partsUnder(pane, x, y);
    const rows = parts.map((id, i) => ({
      title: items[id]!.name,
      detail: i === 0 ? 'in front' : `${i} behind`,
    }));
    return this.open(pane, rows, (row) => session.select([parts[row]!]));
  }

  private besidePointer(pane: Pane) {
    const { x, y } = this.stage.pointer.at ?? { x: 0, y: 0 };
    const rect = pane.host.getBoundingClientRect();
    const outer = this.stage.canvas.getBoundingClientRect();
    return { left: rect.left - outer.left + x + 14, top: rect.top - outer.top + y + 14 };
  }

  /** Opens the field for a distance along the guide that is caught; false where none is. */
  typeAlong(
    pane: Pane,
    { caught, text }: { readonly caught: Snap | null; readonly text: string },
    take: (guide: Guide, mm: number) => void,
  ): boolean {
    const guide = caught?.guide;
    if (!guide) return false;
    const side = alongGuide(guide, caught.point) < 0 ? -1 : 1;
    this.shown.setState({
      typing: {
        ...this.besidePointer(pane),
        text,
        words: guide.words,
        // A number without a sign counts towards the side that the pointer is on.
        take: (mm) => take(guide, side * mm),
      },
    });
    return true;
  }

  stopTyping(): void {
    this.shown.setState({ typing: null });
  }

  close(): void {
    this.shown.setState({ list: null });
  }

  /** Selects the part behind the selected one under the pointer, and round. */
  selectBehind(pane: Pane, x: number, y: number): void {
    const parts = this.partsUnder(pane, x, y);
    if (parts.length === 0) return;
    const { session } = this.stage;
    const [only] = session.store.getState().selection;
    session.select([parts[(parts.indexOf(only ?? '') + 1) % parts.length]!]);
  }

  private partsUnder(pane: Pane, x: number, y: number): ItemId[] {
    const { document, openGroup } = this.stage.session.store.getState();
    const under = partsUnder(pane.camera, [x, y], pane.scene);
    return [...new Set(under.map((id) => selectableOf(document, id, openGroup)))];
  }
}
