import type { ItemId } from '@kadrel/core';
import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useState } from 'react';
import { Doubles } from '../Doubles.tsx';
import { Pins } from '../Pins.tsx';
import { TreeRow } from '../TreeRow.tsx';
import { useSessionState } from '../context.ts';
import { kindWords } from '../tree.ts';
import { ROW_PX, useDragging, useTree, useTreeKeys, type Drop, type Tree } from './useTree.ts';

/** A press that moves less than this is a click. */
const DRAG_PX = 5;

/** The tree of parts, with what each is made from below it. */
export function Parts() {
  const [search, setSearch] = useState('');
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
      <PartTree search={search} />
      <Pins />
    </div>
  );
}

function PartTree({ search }: { readonly search: string }) {
  const tree = useTree(search);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PX } }));
  const { drop, ...dragging } = useDragging(tree);
  return (
    <DndContext
      sensors={sensors}
      {...dragging}
      accessibility={{ screenReaderInstructions: { draggable: HOW_TO_ARRANGE } }}
    >
      <Rows tree={tree} drop={drop} none={search ? 'No part has this name.' : 'No parts yet.'} />
    </DndContext>
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
