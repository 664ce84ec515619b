/** One row of the tree: what it is, what is not as usual about it, and its name, which can be changed in place. */
import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { Part } from '@kadrel/core';
import clsx from 'clsx';
import { ChevronDown, ChevronRight, Eye, EyeOff, Lock, LockOpen, Magnet, TriangleAlert } from 'lucide-react';
import { useEffect, useRef, type CSSProperties, type MouseEvent, type KeyboardEvent } from 'react';
import type { Built } from '../session/built.ts';
import { useSession } from './context.ts';
import type { Place, Row } from './tree.ts';

interface TreeRowProps {
  readonly row: Row;
  readonly words: string;
  readonly isSelected: boolean;
  readonly isCurrent: boolean;
  readonly isRenaming: boolean;
  readonly isOpenGroup: boolean;
  /** Where what is dragged over this row would go. */
  readonly drop: Place | null;
  readonly failures: Built['failures'];
  readonly style: CSSProperties;
  readonly onFocus: () => void;
  readonly choose: (event: MouseEvent | KeyboardEvent) => void;
  readonly setOpened: (isOpen: boolean) => void;
  readonly setRenaming: (isRenaming: boolean) => void;
}

export function TreeRow({
  row: { part, level, open },
  words,
  isSelected,
  isCurrent,
  isRenaming,
  isOpenGroup,
  drop,
  failures,
  style,
  onFocus,
  choose,
  setOpened,
  setRenaming,
}: TreeRowProps) {
  const drag = useDraggable({ id: part.id, disabled: isRenaming });
  const over = useDroppable({ id: part.id });
  return (
    <li
      ref={(element) => {
        drag.setNodeRef(element);
        over.setNodeRef(element);
      }}
      {...drag.listeners}
      role="treeitem"
      data-part={part.id}
      aria-level={level + 1}
      aria-selected={isSelected}
      aria-label={part.name}
      {...(open === null ? {} : { 'aria-expanded': open })}
      tabIndex={isCurrent ? 0 : -1}
      className={clsx(
        'group flex h-[26px] w-full items-center gap-1.5 pr-2',
        isSelected && 'bg-tint shadow-[inset_3px_0_var(--plum)]',
        drag.isDragging && 'opacity-60',
        !part.visible && 'text-ink2',
        drop === 'into' && 'outline-2 -outline-offset-2 outline-plum',
        drop === 'before' && 'shadow-[inset_0_2px_var(--plum)]',
        drop === 'after' && 'shadow-[inset_0_-2px_var(--plum)]',
      )}
      style={{ ...style, paddingLeft: 8 + level * 16 }}
      onClick={choose}
      onFocus={onFocus}
      onDoubleClick={() => setRenaming(true)}
    >
      <Opener part={part} open={open} setOpened={setOpened} />
      <span
        className={clsx('size-2.5 shrink-0 rounded-xs border border-black/25', !part.visible && 'opacity-40')}
        style={{ background: part.colour }}
        aria-hidden
      />
      {isRenaming ? (
        <RenameField part={part} end={() => setRenaming(false)} />
      ) : (
        <span className={clsx('min-w-0 flex-1 truncate', isSelected && 'font-semibold')} title={part.name}>
          {part.name}
        </span>
      )}
      <Failed part={part} reasons={failures} />
      {isOpenGroup && <CloseGroup />}
      <span className="num text-[11px] whitespace-nowrap text-ink3 group-focus-within:hidden group-hover:hidden">
        {words}
      </span>
      <Marks part={part} />
    </li>
  );
}

interface OpenerProps extends Pick<TreeRowProps, 'setOpened'> {
  readonly part: Part;
  readonly open: Row['open'];
}

/** Opens and closes what the part is made from. */
function Opener({ part, open, setOpened }: OpenerProps) {
  if (open === null) return <span className="w-4" />;
  return (
    <button
      type="button"
      tabIndex={-1}
      className="w-4"
      aria-label={open ? `Close ${part.name}` : `Open ${part.name}`}
      onClick={(event) => {
        event.stopPropagation();
        setOpened(!open);
      }}
      onDoubleClick={(event) => event.stopPropagation()}
    >
      {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
    </button>
  );
}

/** Ends the work inside a group. */
function CloseGroup() {
  const session = useSession();
  return (
    <button
      type="button"
      className="text-[11px] font-semibold text-plum hover:underline"
      onClick={(event) => {
        event.stopPropagation();
        session.openGroup(null);
      }}
    >
      close
    </button>
  );
}

const LOST = 'Nothing is cut there now: these are the curves of the last cut.';
const aboutStep = (step: number | null) =>
  step === null ? 'Cannot be built' : `Step ${step + 1} cannot be done`;

interface FailedProps {
  readonly part: Part;
  readonly reasons: Built['failures'];
}

/** It cannot be built, or follows a cut that is none any more. */
function Failed({ part, reasons }: FailedProps) {
  const failure = reasons.find((f) => f.part === part.id);
  if (!failure && !part.traced?.lost) return null;
  const [title, heard] = failure
    ? [`${failure.reason} ${failure.remedy}`, `${aboutStep(failure.step)}: ${failure.reason}`]
    : [LOST, LOST];
  return (
    <span title={title} role="img" aria-label={heard} className="text-bad">
      <TriangleAlert size={14} />
    </span>
  );
}

/** Shown, free and snappable: what is not as usual stays in sight, the rest comes with the pointer or the focus. */
function Marks({ part }: { part: Part }) {
  const session = useSession();
  const mark = (
    key: 'visible' | 'locked' | 'snappable',
    { value, isUsual }: { readonly value: boolean; readonly isUsual: boolean },
    { label, icon }: { readonly label: string; readonly icon: React.ReactNode },
  ) => (
    <button
      type="button"
      tabIndex={-1}
      aria-label={`${label} ${part.name}`}
      title={label}
      className={clsx(
        'text-ink2 hover:text-plum',
        isUsual && 'hidden group-focus-within:block group-hover:block',
      )}
      onClick={(event) => {
        event.stopPropagation();
        void session.say('change', { parts: [part.id], [key]: value ? 'yes' : 'no' });
      }}
      onDoubleClick={(event) => event.stopPropagation()}
    >
      {icon}
    </button>
  );
  return (
    <>
      {mark(
        'visible',
        { value: !part.visible, isUsual: part.visible },
        {
          label: part.visible ? 'Hide' : 'Show',
          icon: part.visible ? <Eye size={13} /> : <EyeOff size={13} />,
        },
      )}
      {mark(
        'locked',
        { value: !part.locked, isUsual: !part.locked },
        {
          label: part.locked ? 'Unlock' : 'Lock',
          icon: part.locked ? <Lock size={13} /> : <LockOpen size={13} />,
        },
      )}
      {mark(
        'snappable',
        { value: !part.snappable, isUsual: part.snappable },
        {
          label: part.snappable ? 'Keep snaps off' : 'Let snaps catch',
          icon: <Magnet size={13} className={part.snappable ? '' : 'opacity-35'} />,
        },
      )}
    </>
  );
}

function RenameField({ part, end }: { part: Part; end: () => void }) {
  const session = useSession();
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    field.current?.select();
  }, []);
  const commit = () => {
    const name = field.current?.value.trim();
    end();
    if (name && name !== part.name) void session.say('rename', { part: part.id, to: name });
  };
  return (
    <input
      ref={field}
      className="field h-5 flex-1"
      aria-label={`New name of ${part.name}`}
      defaultValue={part.name}
      autoFocus
      maxLength={120}
      onBlur={commit}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') end();
        if (event.key === 'Enter') commit();
      }}
    />
  );
}
