/** Tables in blanks: rows given as records, as lists in the order of the columns, or as pasted lines of a spreadsheet. */
import { reasonOf, type Reason } from '../language/reason.ts';
import type { Num } from '../document/schema.ts';
import type { QuantityKind } from '../quantity/units.ts';
import {
  isRefusal,
  refuse,
  refuseFor,
  type Blank,
  type Asked,
  type Column,
  type Refusal,
  type Row,
} from './declare.ts';

/** More rows than this are a file, not a table. */
const MAX_ROWS = 5000;

/** Cells of a row as typed. */
export type TypedRow = Readonly<Record<string, unknown>>;

/** Lines with cells between tabs, semicolons or commas → rows in the order of the columns. */
export function rowsOfText(text: string, columns: readonly string[]): TypedRow[] {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  return lines.map((line) => {
    const mark = line.includes('\t') ? '\t' : line.includes(';') ? ';' : ',';
    const cells = line.split(mark).map((cell) => cell.trim());
    return rowOfCells(cells, columns);
  });
}

const rowOfCells = (cells: readonly unknown[], columns: readonly string[]): TypedRow =>
  Object.fromEntries(columns.flatMap((column, i) => (isBlank(cells[i]) ? [] : [[column, cells[i]]])));

const isBlank = (cell: unknown) => cell === undefined || cell === null || cell === '';

/** Rows as records, or why they are none. */
export function typedRows(given: unknown, blank: Blank): TypedRow[] | Reason {
  const names = Object.keys(blank.columns ?? {});
  if (typeof given === 'string') return rowsOfText(given, names);
  const columns = names.join(', ');
  if (!Array.isArray(given)) return reasonOf('rows.list', {});
  const rows: TypedRow[] = [];
  for (const [i, row] of (given as unknown[]).entries()) {
    if (typeof row === 'string') rows.push(...rowsOfText(row, names));
    else if (Array.isArray(row)) rows.push(rowOfCells(row, names));
    else if (typeof row === 'object' && row !== null) {
      const odd = Object.keys(row).find((key) => !names.includes(key));
      if (odd) return reasonOf('rows.odd', { row: i + 1, odd, columns });
      rows.push(Object.fromEntries(Object.entries(row).filter(([, cell]) => !isBlank(cell))));
    } else return reasonOf('rows.no-row', { row: i + 1, columns });
  }
  // A row that nothing stands in is not there yet.
  return rows.filter((row) => Object.keys(row).length > 0);
}

/** Reads one number of a table. */
type ReadNumber = (given: unknown, kind: QuantityKind, label: string) => Num | Refusal;

export function readRows(given: unknown, { blank, id }: Asked, readNumber: ReadNumber): Row[] | Refusal {
  const typed = typedRows(given, blank);
  if ('code' in typed) return refuseFor(typed, id);
  if (typed.length > MAX_ROWS) return refuse('rows.most', { typed: typed.length, maxRows: MAX_ROWS }, id);
  const rows: Row[] = [];
  for (const [i, row] of typed.entries()) {
    const read = readRow(row, { blank, id }, readNumber);
    if (isRefusal(read)) return { ...read, message: `Row ${i + 1}: ${read.message}` };
    rows.push(read);
  }
  return rows;
}

function readRow(row: TypedRow, { blank, id }: Asked, readNumber: ReadNumber): Row | Refusal {
  const cells: Record<string, Num | string> = {};
  for (const [name, column] of Object.entries(blank.columns ?? {})) {
    const cell = row[name] ?? column.default;
    if (isBlank(cell)) {
      if (column.needed) return refuse('missing.empty', { label: column.label }, id);
      continue;
    }
    const read = readCell(cell, column, { id, readNumber });
    if (isRefusal(read)) return { ...read, message: `${column.label}: ${read.message}` };
    cells[name] = read;
  }
  return cells;
}

function readCell(
  cell: unknown,
  column: Column,
  { id, readNumber }: { readonly id: string; readonly readNumber: ReadNumber },
): Num | string | Refusal {
  const { kind, label, choices } = column;
  if (kind !== 'text' && kind !== 'choice') return readNumber(cell, kind, label);
  const text = typeof cell === 'string' || typeof cell === 'number' ? String(cell).trim() : '';
  if (kind === 'text' && text !== '' && text.length <= 40) return text;
  if (kind === 'choice' && Object.hasOwn(choices ?? {}, text)) return text;
  return kind === 'text'
    ? refuse('text.in-table', {}, id)
    : refuse('choice.offered', { given: text, choices: Object.keys(choices ?? {}).join(', ') }, id);
}
