/** The cells of tables in the statement bar. */
import { typedRows, type Blank, type Column, type TypedRow } from '@kadrel/core';
import clsx from 'clsx';
import { Plus, X } from 'lucide-react';
import { useEffect, useRef, type ClipboardEvent, type KeyboardEvent } from 'react';
import { exactNumber } from '../session/statement.ts';
import { useSession, useSessionState } from './context.ts';
import { shownText } from './shown.ts';

export interface TableProps {
  readonly rows: readonly TypedRow[];
  readonly set: (rows: readonly TypedRow[]) => void;
  readonly blank: Blank;
}

export function withCell(row: TypedRow, name: string, value: string): TypedRow {
  const { [name]: _, ...others } = row;
  return value === '' ? others : { ...others, [name]: value };
}

export function RemoveRow({ at, rows, set }: Omit<TableProps, 'blank'> & { at: number }) {
  return (
    <button
      type="button"
      className="quiet px-1"
      aria-label={`Remove row ${at + 1}`}
      onClick={() => set(rows.filter((_, i) => i !== at))}
    >
      <X size={13} aria-hidden />
    </button>
  );
}

export function AddRow({ add, words }: { add: () => void; words: string }) {
  return (
    <button
      type="button"
      className="quiet mt-1 inline-flex items-center gap-1"
      onClick={add}
      aria-label={words}
      data-add-row=""
    >
      <Plus size={13} aria-hidden /> row
    </button>
  );
}

/** A pasted block of several cells becomes rows. */
export function pasteRows(
  event: ClipboardEvent,
  rows: readonly TypedRow[],
  set: (rows: readonly TypedRow[]) => void,
  blank: Blank,
): void {
  const text = event.clipboardData.getData('text');
  if (!/[\t\n;]/.test(text.trim()) && !/,\s*\S/.test(text.trim())) return;
  const pasted = typedRows(text, blank);
  if ('code' in pasted || pasted.length === 0) return;
  event.preventDefault();
  const kept = rows.filter((row) => Object.values(row).some((cell) => cell !== ''));
  set([...kept, ...pasted]);
}

export function Cell({
  label,
  column,
  value,
  set,
  onEnter,
  isBad = false,
}: {
  label: string;
  column: Column;
  value: unknown;
  set: (value: string) => void;
  onEnter?: (() => void) | undefined;
  isBad?: boolean;
}) {
  const scene = useSessionState((state) => state.document.scene);
  const raw = value === undefined || value === null ? '' : String(value);
  if (column.kind === 'choice')
    return (
      <select
        className="field"
        aria-label={label}
        value={raw || column.default}
        onChange={(event) => set(event.target.value)}
      >
        {Object.entries(column.choices ?? {}).map(([choice, words]) => (
          <option key={choice} value={choice}>
            {words}
          </option>
        ))}
      </select>
    );
  return (
    <CellInput
      label={label}
      shown={exactNumber(raw) === undefined ? raw : shownText(raw, scene)}
      isBad={isBad}
      placeholder={column.default ?? ''}
      set={set}
      onEnter={onEnter}
    />
  );
}

/** A text that is taken as it is typed; Enter goes to the row below. */
function CellInput({
  label,
  shown,
  isBad,
  placeholder,
  set,
  onEnter,
}: {
  label: string;
  shown: string;
  isBad: boolean;
  placeholder: string;
  set: (value: string) => void;
  onEnter: (() => void) | undefined;
}) {
  const session = useSession();
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (field.current && globalThis.document.activeElement !== field.current) field.current.value = shown;
  }, [shown]);
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    event.stopPropagation();
    // With Ctrl the whole statement is carried out.
    if (event.ctrlKey || event.metaKey) return void session.commit();
    const cell = event.currentTarget.closest('td')!;
    const column = [...cell.parentElement!.children].indexOf(cell);
    onEnter?.();
    const below = cell.parentElement!;
    requestAnimationFrame(() => {
      const next = below.nextElementSibling?.children[column]?.querySelector('input');
      next?.focus();
    });
  };
  return (
    <input
      ref={field}
      className={clsx('field num w-24 text-right', isBad && 'border-bad!')}
      aria-label={label}
      aria-invalid={isBad}
      defaultValue={shown}
      placeholder={placeholder}
      autoComplete="off"
      spellCheck={false}
      onFocus={(event) => event.currentTarget.select()}
      onInput={(event) => set(event.currentTarget.value)}
      onKeyDown={onKeyDown}
    />
  );
}
