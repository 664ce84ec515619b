/** Which rows the tree of parts has, and what the pointer and the keys do with them. */
import type { DragEndEvent, DragMoveEvent } from '@dnd-kit/core';
import type { ItemId } from '@kadrel/core';
import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import { selectedWith, selectingBy } from '../../session/manner.ts';
import type { Session } from '../../session/store.ts';
import { gatheringBlank } from '../../session/waiting.ts';
import { useSession, useSessionState } from '../context.ts';
import { arrangement, placeAt, rowsOf, sentBy, type Place, type Row } from '../tree.ts';

export const ROW_PX = 26;
/** Rows kept beyond what is in sight. */
const OVERSCAN = 24;

export type Tree = ReturnType<typeof useTree>;

/** Which rows there are, which is current, and what choosing and opening them does. */
export function useTree(search: string) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const selection = useSessionState((state) => state.selection);
  const [open, setOpen] = useState<ReadonlySet<ItemId>>(new Set());
  const [at, setAt] = useState<ItemId | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => rowsOf(document, open, search), [document, open, search]);
  const selected = useMemo(() => new Set(selection), [selection]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
  });
  useScrollToSelected(rows, selection, virtual);
  return {
    rows,
    selected,
    setAt,
    frame,
    virtual,
    current: rows.some(({ part }) => part.id === at) ? at : (rows[0]?.part.id ?? null),
    setOpened(id: ItemId, { isOpen }: { readonly isOpen: boolean }) {
      const next = new Set(open);
      if (isOpen) next.add(id);
      else next.delete(id);
      setOpen(next);
    },
    choose(id: ItemId, event: MouseEvent | KeyboardEvent) {
      const { statement, manner } = session.store.getState();
      const blank = gatheringBlank(statement);
      setAt(id);
      if (blank !== null) return session.choose(blank, id);
      const keys = { shift: event.shiftKey, ctrl: event.ctrlKey || event.metaKey, alt: event.altKey };
      session.select(selectedWith(selection, [id], selectingBy(keys, manner.selecting)));
      // A row stands for the whole pattern.
      session.set({ member: null });
    },
  };
}

/** What goes along with a dragged row: all that is selected, where it is one of them. */
function carriedWith(id: ItemId, session: Session): readonly ItemId[] {
  const { selection } = session.store.getState();
  return selection.includes(id) ? selection : [id];
}

/** What is selected in a view comes into sight here. */
function useScrollToSelected(
  rows: readonly Row[],
  selection: readonly ItemId[],
  virtual: Virtualizer<HTMLDivElement, Element>,
): void {
  const [only] = selection.length === 1 ? selection : [];
  useEffect(() => {
    const index = rows.findIndex(({ part }) => part.id === only);
    if (index < 0 || isInSight(index, virtual)) return;
    // With the next picture: now it would have the whole page laid out first.
    const request = requestAnimationFrame(() => virtual.scrollToIndex(index, { align: 'auto' }));
    return () => cancelAnimationFrame(request);
    // Scrolling follows the selection, and not the rows, which change under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [only, virtual]);
}

/** By what is known of the list: to scroll would have the whole page laid out first. */
function isInSight(
  index: number,
  { scrollOffset, scrollRect }: Virtualizer<HTMLDivElement, Element>,
): boolean {
  if (scrollOffset === null || scrollRect === null) return false;
  const top = index * ROW_PX - scrollOffset;
  return top >= 0 && top + ROW_PX <= scrollRect.height;
}

interface Renaming {
  readonly renaming: ItemId | null;
  readonly setRenaming: (id: ItemId) => void;
}

/** Arrows walk, open and close; with Alt they send a part elsewhere. */
export function useTreeKeys(tree: Tree, { renaming, setRenaming }: Renaming) {
  const session = useSession();
  const { rows, current, frame, virtual } = tree;
  const go = (to: number) => {
    const next = Math.max(0, Math.min(rows.length - 1, to));
    const { id } = rows[next]!.part;
    tree.setAt(id);
    virtual.scrollToIndex(next, { align: 'auto' });
    requestAnimationFrame(() =>
      frame.current?.querySelector<HTMLElement>(`[data-part="${id}"]`)?.focus({ preventScroll: true }),
    );
  };
  /** Whether there is somewhere to send it. */
  const send = (part: Row['part'], key: string): boolean => {
    const { document } = session.store.getState();
    const sent = sentBy(document, part, key);
    if (!sent) return false;
    if (sent.place === 'into') tree.setOpened(sent.over.id, { isOpen: true });
    void session.say('arrange', arrangement(document, carriedWith(part.id, session), sent.over, sent.place));
    return true;
  };
  return (event: KeyboardEvent) => {
    const index = rows.findIndex(({ part }) => part.id === current);
    const row = rows[index];
    if (renaming || !row) return;
    const { id } = row.part;
    const to = { ArrowDown: index + 1, ArrowUp: index - 1, Home: 0, End: rows.length - 1 }[event.key];
    if (event.altKey) {
      if (!send(row.part, event.key)) return;
    } else if (to !== undefined) go(to);
    else if (event.key === 'ArrowRight' && row.open === false) tree.setOpened(id, { isOpen: true });
    else if (event.key === 'ArrowLeft' && row.open) tree.setOpened(id, { isOpen: false });
    else if ((event.key === 'Enter' && !event.ctrlKey && !event.shiftKey) || event.key === ' ')
      tree.choose(id, event);
    else if (event.key === 'F2' && session.store.getState().selection.length > 1) session.start('number');
    else if (event.key === 'F2') setRenaming(id);
    else return;
    event.preventDefault();
  };
}

/** Where what is dragged would go. */
export interface Drop {
  readonly over: ItemId;
  readonly place: Place;
}

/** Rows are dragged into groups, before and after others. */
export function useDragging(tree: Tree) {
  const session = useSession();
  const documentNow = () => session.store.getState().document;
  const [drop, setDrop] = useState<Drop | null>(null);
  return {
    drop,
    onDragMove({ over, active, activatorEvent, delta }: DragMoveEvent) {
      const target = over && documentNow().items[String(over.id)];
      if (!target || over.id === active.id || !(activatorEvent instanceof MouseEventOfPage))
        return setDrop(null);
      const height = (activatorEvent.clientY + delta.y - over.rect.top) / over.rect.height;
      setDrop({ over: target.id, place: placeAt(target, height) });
    },
    onDragEnd({ active }: DragEndEvent) {
      const document = documentNow();
      const target = drop && document.items[drop.over];
      setDrop(null);
      if (!target) return;
      if (drop.place === 'into') tree.setOpened(target.id, { isOpen: true });
      const carried = carriedWith(String(active.id), session);
      void session.say('arrange', arrangement(document, carried, target, drop.place));
    },
    onDragCancel: () => setDrop(null),
  };
}

/** The page's own mouse events, beside React's of that name. */
const MouseEventOfPage = window.MouseEvent;
