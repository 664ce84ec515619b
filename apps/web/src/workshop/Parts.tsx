import {
  formatLength,
  operandsOf,
  pinsOf,
  topParts,
  vectorOf,
  verbNamed,
  type ItemId,
  type KadrelDocument,
  type Part,
} from '@kadrel/core';
import clsx from 'clsx';
import {
  ChevronDown,
  ChevronRight,
  CornerDownLeft,
  Eye,
  EyeOff,
  Lock,
  LockOpen,
  Magnet,
  MapPin,
  TriangleAlert,
  X,
} from 'lucide-react';
import { useEffect, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import { selectedWith, selectingBy } from '../session/manner.ts';
import { exactMm } from '../session/statement.ts';
import { Doubles } from './Doubles.tsx';
import { useSession, useSessionState } from './context.ts';

interface Row {
  readonly part: Part;
  readonly level: number;
  readonly open: boolean | null;
}

/** The rows on show, from the top down: operands below a part that is open, or all that match the search. */
function rowsOf(document: KadrelDocument, open: ReadonlySet<ItemId>, search: string): Row[] {
  const wanted = search.trim().toLowerCase();
  if (wanted)
    return Object.values(document.items)
      .filter((part) => part.name.toLowerCase().includes(wanted))
      .map((part) => ({ part, level: 0, open: null }));
  const below = (part: Part, level: number): Row[] => {
    const operands = operandsOf(part).flatMap((id) => document.items[id] ?? []);
    const isOpen = open.has(part.id);
    return [
      { part, level, open: operands.length > 0 ? isOpen : null },
      ...(isOpen ? operands.flatMap((operand) => below(operand, level + 1)) : []),
    ];
  };
  return topParts(document).flatMap((part) => below(part, 0));
}

const KIND_WORDS = {
  box: 'box',
  cylinder: 'cylinder',
  sphere: 'ball',
  stretched: 'stretched',
  union: 'union',
  subtract: 'cut',
  intersect: 'common',
} as const;
const kindOf = ({ recipe: { base } }: Part) => KIND_WORDS[base.kind === 'combine' ? base.how : base.kind];

/** The tree of parts, with what each is made from below it. */
export function Parts() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const selection = useSessionState((state) => state.selection);
  const failures = useSessionState((state) => state.built.failures);
  const [open, setOpen] = useState<ReadonlySet<ItemId>>(new Set());
  const [search, setSearch] = useState('');
  const [renaming, setRenaming] = useState<ItemId | null>(null);
  const [at, setAt] = useState<ItemId | null>(null);
  const tree = useRef<HTMLUListElement>(null);
  const rows = rowsOf(document, open, search);
  const current = rows.some(({ part }) => part.id === at) ? at : (rows[0]?.part.id ?? null);

  const setOpened = (id: ItemId, isOpen: boolean) => {
    const next = new Set(open);
    if (isOpen) next.add(id);
    else next.delete(id);
    setOpen(next);
  };
  const choose = (id: ItemId, event: MouseEvent | KeyboardEvent) => {
    const { statement, manner } = session.store.getState();
    const blank = statement?.phase === 'open' ? statement.focus?.blank : undefined;
    setAt(id);
    if (statement && blank !== undefined && /^parts?$/.test(verbNamed(statement.verb)!.blanks[blank]!.type))
      return session.choose(blank, id);
    const keys = { shift: event.shiftKey, ctrl: event.ctrlKey || event.metaKey, alt: event.altKey };
    session.select(selectedWith(selection, [id], selectingBy(keys, manner.selecting)));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (renaming) return;
    const index = rows.findIndex(({ part }) => part.id === current);
    const row = rows[index];
    if (!row) return;
    const go = (to: number) => {
      const next = rows[Math.max(0, Math.min(rows.length - 1, to))]!.part.id;
      setAt(next);
      tree.current?.querySelector<HTMLElement>(`[data-part="${next}"]`)?.focus();
    };
    if (event.key === 'ArrowDown') go(index + 1);
    else if (event.key === 'ArrowUp') go(index - 1);
    else if (event.key === 'ArrowRight' && row.open === false) setOpened(row.part.id, true);
    else if (event.key === 'ArrowLeft' && row.open) setOpened(row.part.id, false);
    else if ((event.key === 'Enter' && !event.ctrlKey && !event.shiftKey) || event.key === ' ')
      choose(row.part.id, event);
    else if (event.key === 'F2') setRenaming(row.part.id);
    else return;
    event.preventDefault();
  };

  return (
    <section className="flex min-h-0 flex-1 flex-col" aria-label="Parts">
      <h2 className="panel-title">
        Parts <span className="num font-normal">{topParts(document).length}</span>
      </h2>
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
      <ul
        ref={tree}
        role="tree"
        aria-label="Parts"
        aria-multiselectable
        className="min-h-0 flex-1 overflow-y-auto"
        onKeyDown={onKeyDown}
      >
        {rows.map(({ part, level, open: isOpen }) => (
          <li
            key={part.id}
            role="treeitem"
            data-part={part.id}
            aria-level={level + 1}
            aria-selected={selection.includes(part.id)}
            aria-label={part.name}
            {...(isOpen === null ? {} : { 'aria-expanded': isOpen })}
            tabIndex={part.id === current ? 0 : -1}
            className={clsx(
              'group flex h-[26px] items-center gap-1.5 pr-2',
              selection.includes(part.id) && 'bg-tint shadow-[inset_3px_0_var(--plum)]',
              !part.visible && 'opacity-60',
            )}
            style={{ paddingLeft: 8 + level * 16 }}
            onClick={(event) => choose(part.id, event)}
            onDoubleClick={() => setRenaming(part.id)}
          >
            {isOpen === null ? (
              <span className="w-4" />
            ) : (
              <button
                type="button"
                tabIndex={-1}
                className="w-4"
                aria-label={isOpen ? `Close ${part.name}` : `Open ${part.name}`}
                onClick={(event) => {
                  event.stopPropagation();
                  setOpened(part.id, !isOpen);
                }}
              >
                {isOpen ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
              </button>
            )}
            <span
              className="size-2.5 shrink-0 rounded-xs border border-black/25"
              style={{ background: part.colour }}
              aria-hidden
            />
            {renaming === part.id ? (
              <RenameField part={part} end={() => setRenaming(null)} />
            ) : (
              <span
                className={clsx('min-w-0 flex-1 truncate', selection.includes(part.id) && 'font-semibold')}
              >
                {part.name}
              </span>
            )}
            <Failed part={part.id} reasons={failures} />
            <span className="text-[11px] text-ink3 group-focus-within:hidden group-hover:hidden">
              {kindOf(part)}
            </span>
            <Marks part={part} />
          </li>
        ))}
        {rows.length === 0 && (
          <li className="px-3.5 py-1 text-ink3">{search ? 'No part has this name.' : 'No parts yet.'}</li>
        )}
      </ul>
      <Pins />
    </section>
  );
}

/** The pins, with their places. */
function Pins() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const pins = pinsOf(document);
  if (pins.length === 0) return null;
  return (
    <ul aria-label="Pins" className="max-h-32 overflow-y-auto border-t border-rule py-1">
      {pins.map(({ id, name, at }) => (
        <li key={id} className="group flex h-[26px] items-center gap-1.5 px-3">
          <MapPin size={13} aria-hidden className="text-ink2" />
          <button
            type="button"
            className="min-w-0 flex-1 truncate text-left"
            title="Place it anew"
            onClick={() => session.start('pin', { as: name, at: vectorOf(at).map(exactMm) })}
          >
            {name}
          </button>
          <span className="num truncate text-[11px] text-ink3 group-focus-within:hidden group-hover:hidden">
            {vectorOf(at)
              .map((n) => formatLength(n, document.scene))
              .join('  ')}
          </span>
          <button
            type="button"
            className="hidden text-ink2 group-focus-within:block group-hover:block hover:text-plum"
            aria-label={`Move the selection onto ${name}`}
            title="Move the selection onto it"
            onClick={() => session.start('move', { to: { pin: name } })}
          >
            <CornerDownLeft size={13} />
          </button>
          <button
            type="button"
            className="hidden text-ink2 group-focus-within:block group-hover:block hover:text-plum"
            aria-label={`Remove pin ${name}`}
            title="Remove"
            onClick={() => void session.say('unpin', { pin: name })}
          >
            <X size={13} />
          </button>
        </li>
      ))}
    </ul>
  );
}

function Failed({
  part,
  reasons,
}: {
  part: ItemId;
  reasons: readonly { part: ItemId; reason: string; remedy: string }[];
}) {
  const failure = reasons.find((f) => f.part === part);
  if (!failure) return null;
  return (
    <span
      title={`${failure.reason} ${failure.remedy}`}
      role="img"
      aria-label={`Cannot be built: ${failure.reason}`}
      className="text-bad"
    >
      <TriangleAlert size={14} />
    </span>
  );
}

/** Shown, free and snappable: what is not as usual stays in sight, the rest comes with the pointer or the focus. */
function Marks({ part }: { part: Part }) {
  const session = useSession();
  const mark = (
    key: 'visible' | 'locked' | 'snappable',
    value: boolean,
    label: string,
    icon: React.ReactNode,
    isUsual: boolean,
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
        !part.visible,
        part.visible ? 'Hide' : 'Show',
        part.visible ? <Eye size={13} /> : <EyeOff size={13} />,
        part.visible,
      )}
      {mark(
        'locked',
        !part.locked,
        part.locked ? 'Unlock' : 'Lock',
        part.locked ? <Lock size={13} /> : <LockOpen size={13} />,
        !part.locked,
      )}
      {mark(
        'snappable',
        !part.snappable,
        part.snappable ? 'Keep snaps off' : 'Let snaps catch',
        <Magnet size={13} className={part.snappable ? '' : 'opacity-35'} />,
        part.snappable,
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
