/** Sheets, what stands on them, and what dimensions are tied to, as typed or picked. */
import {
  ENTRY_KINDS,
  sheetNamed,
  sheetsOf,
  type EntryKind,
  type Sheet,
  type SheetEntry,
  type TieRead,
} from '../document/sheet.ts';
import type { KadrelDocument } from '../document/schema.ts';
import type { Vec3 } from '../space/vector.ts';
import { isRefusal, refuse, type Refusal } from './declare.ts';

/** The sheet of that name; where none is said, the last one that was made. */
export function readSheet(given: unknown, document: KadrelDocument): Sheet | Refusal {
  if (given === undefined || given === '') return sheetsOf(document).at(-1) ?? refuse('no-sheet', {});
  const found = typeof given === 'string' ? sheetNamed(document, given) : undefined;
  return found ?? refuse('unknown-sheet', { given: String(given) });
}

/** By its name on the sheet, or by its id. */
export function entryNamed(
  sheet: Sheet,
  name: string,
  among: readonly EntryKind[] = ENTRY_KINDS,
): SheetEntry | undefined {
  const all = among.flatMap((kind) =>
    Object.entries<{ readonly name: string }>(sheet[kind]).map(([id, { name }]) => ({ kind, id, name })),
  );
  return all.find((one) => one.name === name) ?? all.find(({ id }) => id === name);
}

/** Where entries are looked up. */
interface OnSheet {
  /** What stands in the blank for the sheet. */
  readonly sheet: unknown;
  readonly among: readonly EntryKind[] | undefined;
  readonly document: KadrelDocument;
}

export function readEntry(given: unknown, { sheet, among, document }: OnSheet): SheetEntry | Refusal {
  const on = readSheet(sheet, document);
  if (isRefusal(on)) return on;
  const found = typeof given === 'string' ? entryNamed(on, given, among) : undefined;
  return found ?? refuse('not-on-sheet', { given: String(given), name: on.name });
}

/** What reads a single pick, and a single point. */
interface TieReaders {
  readonly point: (given: unknown) => Vec3 | Refusal;
  readonly named: (given: unknown) => TieRead | Refusal;
}

/** One pick or a list of them; typed, `Box: top&front; Lid: top`, or `0, 0, 0; 10, 0, 0`. */
export function readTies(given: unknown, readers: TieReaders): TieRead[] | Refusal {
  const list =
    typeof given === 'string' ? given.split(';').map(pickOf) : isPoint(given) ? [given] : [given].flat();
  const read = list.map((one) => readTie(one, readers));
  return read.find(isRefusal) ?? (read as TieRead[]);
}

const isPoint = (given: unknown) =>
  Array.isArray(given) && given.length === 3 && given.every((one) => typeof one !== 'object');

function pickOf(text: string): unknown {
  const named = /^\s*([^:]+?)\s*:\s*(.+?)\s*$/.exec(text);
  return named ? { on: named[1], at: named[2] } : text.split(',').map((number) => number.trim());
}

function readTie(given: unknown, { point, named }: TieReaders): TieRead | Refusal {
  if (!Array.isArray(given) && typeof given === 'object' && given !== null && 'on' in given)
    return named(given);
  const at = point(given);
  return isRefusal(at) ? at : { tie: { point: [...at] }, geometry: { kind: 'point', at } };
}
