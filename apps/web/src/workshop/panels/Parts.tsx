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
import type { Session } from '../../session/store.ts';
import { gatheringBlank } from '../../session/waiting.ts';
import { Doubles } from '../Doubles.tsx';
import { Pins } from '../Pins.tsx';
import { TreeRow } from '../TreeRow.tsx';
import { useSession, useSessionState } from '../context.ts';
import { arrangement, kindWords, placeAt, rowsOf, sentBy, type Place, type Row } from '../tree.ts';

const ROW_PX = 26;
/** Rows kept beyond what is in sight. */
const OVERSCAN = 24;
/** A press that moves less than this is a click. */
const DRAG_PX = 5;

/** The tree of parts, with what each is made from below it. */
export function Parts() {
  const [search, setSearch] = useState('');
  const tree = useTree(search);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PX } }));
  const { drop, ...dragging } = useDragging(tree);
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
        {...dragging}
        accessibility={{ screenReaderInstructions: { draggable: HOW_TO_ARRANGE } }}
      >
        <Rows tree={tree} drop={drop} none={search ? 'No part has this name.' : 'No parts yet.'} />
      </DndContext>
      <Pins />
    </div>
  );
}

interface RowsProps {
  readonly tree: Tree;
  readonly drop: Drop | null;
  /** Said where there are no rows. */
  readonly none: string;
}

function Rows({ tree, drop, none }: RowsProps) {
  const openGroup = useSessionState((state) => state.openGroup);
  const failures = useSessionState((state) => state.built.failures);
  const [isInTree, setIsInTree] = useState(false);
  const [renaming, setRenaming] = useState<ItemId | null>(null);
  const onKeyDown = useTreeKeys(tree, { renaming, setRenaming });
  const { rows, selected, current, virtual } = tree;
  return (
    <div className="relative flex min-h-0 flex-1 flex-col">
      {isInTree && <TreeKeys />}
      <div ref={tree.frame} className="min-h-0 flex-1 overflow-y-auto">
        {rows.length === 0 && <p className="px-3.5 py-1 text-ink3">{none}</p>}
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
                  onFocus={() => tree.setAt(part.id)}
                  choose={(event) => tree.choose(part.id, event)}
                  setOpened={(isOpen) => tree.setOpened(part.id, { isOpen })}
                  setRenaming={(isOn) => setRenaming(isOn ? part.id : null)}
                />
              );
            })}
          </ul>
        )}
      </div>
    </div>
  );
}

type Tree = ReturnType<typeof useTree>;

/** Which rows there are, which is current, and what choosing and opening them does. */
function useTree(search: string) {
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
  useScrollToSelected(rows, virtual.scrollToIndex);
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
  scrollToIndex: (index: number, options: { align: 'auto' }) => void,
): void {
  const selection = useSessionState((state) => state.selection);
  const [only] = selection.length === 1 ? selection : [];
  useEffect(() => {
    const index = rows.findIndex(({ part }) => part.id === only);
    if (index >= 0) scrollToIndex(index, { align: 'auto' });
    // Scrolling follows the selection, and not the rows, which change under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [only, scrollToIndex]);
}

interface Renaming {
  readonly renaming: ItemId | null;
  readonly setRenaming: (id: ItemId) => void;
}

/** Arrows walk, open and close; with Alt they send a part elsewhere. */
function useTreeKeys(tree: Tree, { renaming, setRenaming }: Renaming) {
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
interface Drop {
  readonly over: ItemId;
  readonly place: Place;
}

/** Rows are dragged into groups, before and after others. */
function useDragging(tree: Tree) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const [drop, setDrop] = useState<Drop | null>(null);
  return {
    drop,
    onDragMove({ over, active, activatorEvent, delta }: DragMoveEvent) {
      const target = over && document.items[String(over.id)];
      if (!target || over.id === active.id || !(activatorEvent instanceof MouseEventOfPage))
        return setDrop(null);
      const height = (activatorEvent.clientY + delta.y - over.rect.top) / over.rect.height;
      setDrop({ over: target.id, place: placeAt(target, height) });
    },
    onDragEnd({ active }: DragEndEvent) {
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
