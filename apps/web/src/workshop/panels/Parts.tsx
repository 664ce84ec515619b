import {
  DndContext,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
} from '@dnd-kit/core';
import type { ItemId } from '@kadrel/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import { selectedWith, selectingBy } from '../../session/manner.ts';
import { gatheringBlank } from '../../session/waiting.ts';
import { Doubles } from '../Doubles.tsx';
import { Pins } from '../Pins.tsx';
import { TreeRow } from '../TreeRow.tsx';
import { useSession, useSessionState } from '../context.ts';
import { arrangement, kindWords, placeAt, rowsOf, sentBy, type Place } from '../tree.ts';

const ROW_PX = 26;
/** Rows kept beyond what is in sight. */
const OVERSCAN = 24;
/** A press that moves less than this is a click. */
const DRAG_PX = 5;

/** The tree of parts, with what each is made from below it. */
export function Parts() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const selection = useSessionState((state) => state.selection);
  const openGroup = useSessionState((state) => state.openGroup);
  const failures = useSessionState((state) => state.built.failures);
  const [open, setOpen] = useState<ReadonlySet<ItemId>>(new Set());
  const [search, setSearch] = useState('');
  const [renaming, setRenaming] = useState<ItemId | null>(null);
  const [at, setAt] = useState<ItemId | null>(null);
  const [isInTree, setIsInTree] = useState(false);
  const [drop, setDrop] = useState<{ over: ItemId; place: Place } | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => rowsOf(document, open, search), [document, open, search]);
  const selected = useMemo(() => new Set(selection), [selection]);
  const current = rows.some(({ part }) => part.id === at) ? at : (rows[0]?.part.id ?? null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PX } }));
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
  });

  // What is selected in a view comes into sight here.
  const [only] = selection.length === 1 ? selection : [];
  const { scrollToIndex } = virtual;
  useEffect(() => {
    const index = rows.findIndex(({ part }) => part.id === only);
    if (index >= 0) scrollToIndex(index, { align: 'auto' });
    // Scrolling follows the selection, and not the rows, which change under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [only, scrollToIndex]);

  const setOpened = (id: ItemId, { isOpen }: { readonly isOpen: boolean }) => {
    const next = new Set(open);
    if (isOpen) next.add(id);
    else next.delete(id);
    setOpen(next);
  };
  const choose = (id: ItemId, event: MouseEvent | KeyboardEvent) => {
    const { statement, manner } = session.store.getState();
    const blank = gatheringBlank(statement);
    setAt(id);
    if (blank !== null) return session.choose(blank, id);
    const keys = { shift: event.shiftKey, ctrl: event.ctrlKey || event.metaKey, alt: event.altKey };
    session.select(selectedWith(selection, [id], selectingBy(keys, manner.selecting)));
    // A row stands for the whole pattern.
    session.set({ member: null });
  };
  /** What goes along with a dragged row: all that is selected, where it is one of them. */
  const carried = (id: ItemId): readonly ItemId[] => (selected.has(id) ? selection : [id]);

  const onKeyDown = (event: KeyboardEvent) => {
    if (renaming) return;
    const index = rows.findIndex(({ part }) => part.id === current);
    const row = rows[index];
    if (!row) return;
    const go = (to: number) => {
      const next = Math.max(0, Math.min(rows.length - 1, to));
      const { id } = rows[next]!.part;
      setAt(id);
      virtual.scrollToIndex(next, { align: 'auto' });
      requestAnimationFrame(() =>
        frame.current?.querySelector<HTMLElement>(`[data-part="${id}"]`)?.focus({ preventScroll: true }),
      );
    };
    if (event.altKey) {
      const sent = sentBy(document, row.part, event.key);
      if (!sent) return;
      if (sent.place === 'into') setOpened(sent.over.id, { isOpen: true });
      void session.say('arrange', arrangement(document, carried(row.part.id), sent.over, sent.place));
    } else if (event.key === 'ArrowDown') go(index + 1);
    else if (event.key === 'ArrowUp') go(index - 1);
    else if (event.key === 'Home') go(0);
    else if (event.key === 'End') go(rows.length - 1);
    else if (event.key === 'ArrowRight' && row.open === false) setOpened(row.part.id, { isOpen: true });
    else if (event.key === 'ArrowLeft' && row.open) setOpened(row.part.id, { isOpen: false });
    else if ((event.key === 'Enter' && !event.ctrlKey && !event.shiftKey) || event.key === ' ')
      choose(row.part.id, event);
    else if (event.key === 'F2' && selection.length > 1) session.start('number');
    else if (event.key === 'F2') setRenaming(row.part.id);
    else return;
    event.preventDefault();
  };

  const onDragMove = ({ over, active, activatorEvent, delta }: DragMoveEvent) => {
    const target = over && document.items[String(over.id)];
    if (!target || over.id === active.id || !(activatorEvent instanceof MouseEventOfPage))
      return setDrop(null);
    const height = (activatorEvent.clientY + delta.y - over.rect.top) / over.rect.height;
    setDrop({ over: target.id, place: placeAt(target, height) });
  };
  const onDragEnd = ({ active }: DragEndEvent) => {
    const target = drop && document.items[drop.over];
    setDrop(null);
    if (!target) return;
    if (drop.place === 'into') setOpened(target.id, { isOpen: true });
    void session.say('arrange', arrangement(document, carried(String(active.id)), target, drop.place));
  };

  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <Doubles />
      <div className="px-3.5 pb-1.5">
        <input
          className="field"
          type="search"
          placeholder="Find a part"
          aria-label="Find a part"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </div>
      <DndContext
        sensors={sensors}
        onDragMove={onDragMove}
        onDragEnd={onDragEnd}
        onDragCancel={() => setDrop(null)}
        accessibility={{ screenReaderInstructions: { draggable: HOW_TO_ARRANGE } }}
      >
        <div className="relative flex min-h-0 flex-1 flex-col">
          {isInTree && <TreeKeys />}
          <div ref={frame} className="min-h-0 flex-1 overflow-y-auto">
            {rows.length === 0 && (
              <p className="px-3.5 py-1 text-ink3">{search ? 'No part has this name.' : 'No parts yet.'}</p>
            )}
            {rows.length > 0 && (
              <ul
                role="tree"
                aria-label="Parts"
                aria-multiselectable
                className="relative"
                style={{ height: Math.max(virtual.getTotalSize(), ROW_PX) }}
                onKeyDown={onKeyDown}
                onFocus={() => setIsInTree(true)}
                onBlur={() => setIsInTree(false)}
              >
                {virtual.getVirtualItems().map(({ index, start }) => {
                  const row = rows[index]!;
                  const { part } = row;
                  return (
                    <TreeRow
                      key={part.id}
                      row={row}
                      words={kindWords(part)}
                      isSelected={selected.has(part.id)}
                      isCurrent={part.id === current}
                      isRenaming={renaming === part.id}
                      isOpenGroup={openGroup === part.id}
                      drop={drop?.over === part.id ? drop.place : null}
                      failures={failures}
                      style={{ position: 'absolute', top: start }}
                      onFocus={() => setAt(part.id)}
                      choose={(event) => choose(part.id, event)}
                      setOpened={(isOpen) => setOpened(part.id, { isOpen })}
                      setRenaming={(isOn) => setRenaming(isOn ? part.id : null)}
                    />
                  );
                })}
              </ul>
            )}
          </div>
        </div>
      </DndContext>
      <Pins />
    </div>
  );
}

/** Says where the arrows go. It lies over the list, so that nothing moves under the pointer when it comes. */
const TreeKeys = () => (
  <p
    className="pointer-events-none absolute inset-x-0 bottom-0 z-10 border-t border-rule bg-paper px-3.5 py-0.5 text-[11px] text-ink2"
    data-testid="tree-keys"
  >
    Arrows walk this list; Esc leaves it.
  </p>
);

const HOW_TO_ARRANGE =
  'Alt with the arrows sends the part up, down, into the group above it, or out of its own.';
/** The page's own mouse events, beside React's of that name. */
const MouseEventOfPage = window.MouseEvent;
