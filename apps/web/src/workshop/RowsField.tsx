/** Tables in the statement bar: the blank itself is a button, and the table hangs below the bar while it has the focus. */
import { typedRows, verbNamed, wordBlank, type Blank, type Column, type TypedRow } from '@kadrel/core';
import { useEffect, useRef } from 'react';
import type { Statement } from '../session/statement.ts';
import { useSession, useSessionState } from './context.ts';
import { LegsTable } from './LegsTable.tsx';
import { AddRow, Cell, RemoveRow, pasteRows, withCell, type TableProps } from './TableCells.tsx';

/** Rows that are being typed stay as they are, with their empty cells. */
function rowsAsTyped(value: unknown, blank: Blank): readonly TypedRow[] {
  const isTyped =
    Array.isArray(value) && value.every((row) => typeof row === 'object' && !Array.isArray(row));
  if (isTyped) return value as TypedRow[];
  const shownRows = typedRows(value ?? [], blank);
  return 'code' in shownRows ? [] : shownRows;
}

export function RowsField({
  id,
  blank,
  statement,
  isBad,
}: {
  id: string;
  blank: Blank;
  statement: Statement;
  isBad: boolean;
}) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const isActive = statement.focus?.blank === id && statement.phase !== 'working';
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (isActive) button.current?.focus();
  }, [isActive]);
  const words = wordBlank(blank, statement.typed[id], document);
  return (
    <button
      ref={button}
      type="button"
      className="blank"
      data-blank={id}
      data-active={isActive}
      data-bad={isBad}
      aria-expanded={isActive}
      aria-label={`${blank.label}: ${words}`}
      title={blank.about}
      disabled={statement.phase === 'working'}
      onFocus={() => !isActive && session.focus({ blank: id, axis: null })}
      onClick={() => !isActive && session.focus({ blank: id, axis: null })}
    >
      {words === '…' ? <span className="text-ink3">table…</span> : words}
    </button>
  );
}

/** The blank whose table is shown: the one in focus, or of what is drawn while its plane is chosen. */
function tableInHand({ verb, focus, typed }: Statement): string | undefined {
  const { blanks } = verbNamed(verb)!;
  if (focus === null || blanks[focus.blank]!.type !== 'plane') return focus?.blank;
  return Object.keys(blanks).find((id) => blanks[id]!.type === 'rows' && Array.isArray(typed[id]));
}

/** The table of the blank in focus. */
export function RowsPanel({ statement }: { statement: Statement }) {
  const session = useSession();
  const id = tableInHand(statement);
  const blank = id === undefined ? undefined : verbNamed(statement.verb)!.blanks[id];
  if (id === undefined || blank?.type !== 'rows' || statement.phase === 'working') return null;
  const rows = rowsAsTyped(statement.typed[id], blank);
  const set = (next: readonly TypedRow[]) => session.setBlank(id, next);
  const isLegs = blank.columns?.dx !== undefined;
  return (
    <section
      className="absolute top-full left-2 z-20 mt-1 max-h-[62vh] overflow-auto rounded-md border border-rule bg-sheet p-2.5 shadow-lg"
      aria-label={isLegs ? 'Traverse table' : `Table of ${blank.label}`}
      data-rows=""
      onKeyDown={(event) => event.key === 'Escape' && session.focus(null)}
    >
      {isLegs ? (
        <LegsTable rows={rows} set={set} statement={statement} blank={blank} />
      ) : (
        <PlainTable rows={rows} set={set} blank={blank} />
      )}
    </section>
  );
}

function PlainTable({ rows, set, blank }: TableProps) {
  const columns = Object.entries(blank.columns ?? {});
  const add = () => set([...rows, firstRow(blank.columns ?? {}, rows.at(-1))]);
  return (
    <>
      <table className="text-[13px]" onPaste={(event) => pasteRows(event, rows, set, blank)}>
        <thead>
          <tr className="text-left text-[12px] text-ink2">
            <th className="w-6 font-normal">
              <span className="sr-only">Row</span>
            </th>
            {columns.map(([name, { label }]) => (
              <th key={name} className="px-1 font-normal">
                {label}
              </th>
            ))}
            <th>
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              <td className="num pr-1 text-right text-ink3">{i + 1}</td>
              {columns.map(([name, column]) => (
                <td key={name} className="px-0.5 py-px">
                  <Cell
                    label={`${column.label}, row ${i + 1}`}
                    column={column}
                    value={row[name]}
                    set={(value) => set(rows.map((one, k) => (k === i ? withCell(one, name, value) : one)))}
                    onEnter={i === rows.length - 1 ? add : undefined}
                  />
                </td>
              ))}
              <td>
                <RemoveRow at={i} rows={rows} set={set} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <AddRow add={add} words={`Add a row to ${blank.label}`} />
    </>
  );
}

/** A new row like the last one, or with what the columns begin with. */
function firstRow(columns: Readonly<Record<string, Column>>, last: TypedRow | undefined): TypedRow {
  return (
    last ??
    Object.fromEntries(
      Object.entries(columns).flatMap(([name, column]) =>
        column.default === undefined ? (column.needed ? [[name, '']] : []) : [[name, column.default]],
      ),
    )
  );
}
