/** A report for other programs: as a table, and as pages for print. */
import { stroke, textWidth, type Mark, type SheetPicture } from '../sheets/marks.ts';
import type { Paper } from '../sheets/paper.ts';
import type { Vec2 } from '../space/vector2.ts';
import { FINDING_WORDS, type Finding } from './finding.ts';

const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;

/** Comma-separated values after RFC 4180; lengths in mm, volumes in mm³. */
export function csvOf(findings: readonly Finding[]): string {
  const head = ['kind', 'state', 'what', 'words', 'size', 'x', 'y', 'z', 'why'];
  const lines = findings.map(({ kind, state, what, words, size, box: { min, max }, why }) => [
    FINDING_WORDS[kind],
    state,
    quoted(what),
    quoted(words),
    size,
    ...min.map((n, i) => (n + max[i]!) / 2),
    quoted(why ?? ''),
  ]);
  return [head, ...lines].map((line) => `${line.join(',')}\r\n`).join('');
}

/** ISO 216. */
const A4: Paper = { width: 210, height: 297 };
const MARGIN_MM = 15;
const ROW_MM = 5;
const LETTER_MM = 2.2;
const TITLE_MM = 4;
/** Where the columns begin, and where the last one ends. */
const COLUMNS = { kind: MARGIN_MM, what: MARGIN_MM + 34, words: MARGIN_MM + 90, end: A4.width - MARGIN_MM };
const GAP_MM = 2;

/** What a report is called, and what it tells. */
export interface WrittenReport {
  readonly title: string;
  readonly findings: readonly Finding[];
}

/** Pages of A4 with all findings in a table; faults in the tone of warnings, and said in words as well. */
export function reportPages({ title, findings }: WrittenReport): SheetPicture[] {
  const rows = findings.map(rowOf);
  const room = A4.height - 2 * MARGIN_MM - 2 * TITLE_MM - 2 * ROW_MM;
  const pages: Row[][] = [[]];
  let used = 0;
  for (const row of rows) {
    const high = row.lines * ROW_MM;
    if (used + high > room) {
      pages.push([]);
      used = 0;
    }
    pages.at(-1)!.push(row);
    used += high;
  }
  return pages.map((page, i) => pictureOf(page, { title, number: i + 1, of: pages.length }));
}

interface Row {
  readonly cells: readonly (readonly [at: number, lines: readonly string[]])[];
  readonly lines: number;
  readonly isFault: boolean;
}

const STATES = { fault: 'fault', fine: '', meant: 'meant' } as const;

function rowOf({ kind, state, what, words, why }: Finding): Row {
  const label = STATES[state] === '' ? FINDING_WORDS[kind] : `${FINDING_WORDS[kind]}, ${STATES[state]}`;
  const cells = [
    [COLUMNS.kind, wrapped(label, COLUMNS.what - COLUMNS.kind)],
    [COLUMNS.what, wrapped(what, COLUMNS.words - COLUMNS.what)],
    [
      COLUMNS.words,
      wrapped(why === undefined ? words : `${words} Meant: ${why}`, COLUMNS.end - COLUMNS.words),
    ],
  ] as const;
  return { cells, lines: Math.max(...cells.map(([, lines]) => lines.length)), isFault: state === 'fault' };
}

/** Lines that are no wider than a column; a word that is wider is parted. */
function wrapped(text: string, column: number): string[] {
  const room = column - GAP_MM;
  const lines = [''];
  for (const word of text.split(' ').flatMap((one) => parted(one, room))) {
    const longer = lines.at(-1) === '' ? word : `${lines.at(-1)!} ${word}`;
    if (textWidth(longer, LETTER_MM) <= room) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}

function parted(word: string, room: number): string[] {
  const pieces = [''];
  for (const letter of word) {
    const longer = pieces.at(-1)! + letter;
    if (textWidth(longer, LETTER_MM) <= room) pieces[pieces.length - 1] = longer;
    else pieces.push(letter);
  }
  return pieces;
}

interface Page {
  readonly title: string;
  readonly number: number;
  readonly of: number;
}

function pictureOf(rows: readonly Row[], { title, number, of }: Page): SheetPicture {
  const top = A4.height - MARGIN_MM - TITLE_MM;
  const marks: Mark[] = [
    textAt([MARGIN_MM, top], title, TITLE_MM),
    { ...textAt([COLUMNS.end, top], `${number} of ${of}`, LETTER_MM), align: 'end' },
    stroke('table', [MARGIN_MM, top - ROW_MM / 2], [COLUMNS.end, top - ROW_MM / 2]),
  ];
  let y = top - TITLE_MM - ROW_MM;
  for (const { cells, lines, isFault } of rows) {
    for (const [x, cell] of cells)
      cell.forEach((text, i) =>
        marks.push({
          ...textAt([x, y - i * ROW_MM], text, LETTER_MM),
          ...(isFault ? { tone: 'warning' as const } : {}),
        }),
      );
    y -= lines * ROW_MM;
  }
  return { name: title, paper: A4, lineWidth: 0.35, marks, faults: [] };
}

const textAt = (at: Vec2, text: string, height: number) =>
  ({ kind: 'text', text, at, align: 'start', height, turn: 0 }) as const;
