/** The frame of a sheet, its title block, the symbol of its projection, and its parts list. */
import { circle, line } from '../curves/curve.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { inOrder, TITLE_FIELDS, type Sheet } from '../document/sheet.ts';
import { definitionOf, isFlatPart, standingOf, visibleParts } from '../document/items.ts';
import { formatScale, MARGINS, paperWords, TITLE_BLOCK, type Paper } from './paper.ts';
import { LETTERS, stroke, textWidth, type Mark, type TextMark } from './marks.ts';
import type { Vec2 } from '../space/vector2.ts';

/** Lower left and upper right corner of the frame, mm. Source: ISO 5457, from memory. */
export const frameOf = ({ width, height }: Paper): readonly [Vec2, Vec2] => [
  [MARGINS.left, MARGINS.other],
  [width - MARGINS.other, height - MARGINS.other],
];

const box = (kind: 'frame' | 'table', [x0, y0]: Vec2, [x1, y1]: Vec2): Mark =>
  stroke(kind, [x0, y0], [x1, y0], [x1, y1], [x0, y1], [x0, y0]);

/** Everything round the views. */
export function surroundings(document: KadrelDocument, sheet: Sheet): Mark[] {
  if (sheet.border === 'none') return [];
  const [low, high] = frameOf(sheet.paper);
  const width = Math.min(TITLE_BLOCK.width, high[0] - low[0]);
  const corner: Vec2 = [high[0] - width, low[1]];
  return [
    box('frame', low, high),
    ...titleBlock(document, sheet, { corner, width }),
    ...(sheet.partsList ? partsList(document, sheet, { corner, width }) : []),
  ];
}

interface Place {
  readonly corner: Vec2;
  readonly width: number;
}

/** Rows of the block, from the top: what stands in each cell, and how much of the width it takes. */
function titleBlock(document: KadrelDocument, sheet: Sheet, { corner, width }: Place): Mark[] {
  const { title } = sheet;
  const scales = [...new Set(Object.values(sheet.views).map(({ scale }) => formatScale(scale)))];
  const unit = document.scene.units === 'ft-in' ? 'feet and inches' : document.scene.units;
  const rows: readonly (readonly (readonly [label: string, text: string, share: number])[])[] = [
    [
      [TITLE_FIELDS.title, title.title || sheet.name, 0.66],
      [TITLE_FIELDS.number, title.number, 0.34],
    ],
    [
      [TITLE_FIELDS.author, title.author, 0.28],
      [TITLE_FIELDS.date, title.date, 0.2],
      ['Scale', scales.join(', ') || '–', 0.18],
      ['Lengths in', unit, 0.2],
      ['Size', paperWords(sheet.paper), 0.14],
    ],
    [
      [TITLE_FIELDS.remarks, title.remarks, 0.66],
      ['Sheet', sheet.name, 0.34],
    ],
  ];
  const height = TITLE_BLOCK.height / rows.length;
  const marks = rows.flatMap((cells, row) => {
    const y = corner[1] + (rows.length - 1 - row) * height;
    let x = corner[0];
    return cells.flatMap(([label, text, share]) => {
      const cell = cellOf([x, y], { width: share * width, height, label, text });
      x += share * width;
      return cell;
    });
  });
  return [
    box('frame', corner, [corner[0] + width, corner[1] + TITLE_BLOCK.height]),
    ...marks,
    ...symbolOf(sheet, [corner[0] + 0.66 * width - 15, corner[1] + height / 2]),
  ];
}

interface Cell {
  readonly width: number;
  readonly height: number;
  readonly label: string;
  readonly text: string;
}

function cellOf([x, y]: Vec2, { width, height, label, text }: Cell): Mark[] {
  const room = width - 3;
  const wanted = LETTERS.usual;
  // A text that is too long is set smaller, and never cut.
  const size = Math.min(wanted, (wanted * room) / Math.max(room, textWidth(text, wanted)));
  return [
    box('table', [x, y], [x + width, y + height]),
    words([x + 1.5, y + height - 3], label, 1.8),
    words([x + 1.5, y + 2.5], text, size),
  ].filter((mark) => mark.kind !== 'text' || mark.text !== '');
}

const words = (at: Vec2, text: string, height: number): TextMark => ({
  kind: 'text',
  text,
  at,
  align: 'start',
  height,
  turn: 0,
});

/** A cone seen from the side and from its end: which stands where tells the arrangement. Source: ISO 5456-2. */
function symbolOf({ arrangement }: Sheet, [x, y]: Vec2): Mark[] {
  const [small, large, long] = [1.75, 3.5, 7];
  const isThird = arrangement === 'third';
  const ends = x + (isThird ? -6 : 6);
  const side = x + (isThird ? 0 : -long);
  const path = (curves: Extract<Mark, { kind: 'path' }>['curves']): Mark => ({
    kind: 'path',
    stroke: 'visible',
    closed: true,
    curves,
  });
  const corners: Vec2[] = [
    [side, y - small],
    [side + long, y - large],
    [side + long, y + large],
    [side, y + small],
  ];
  return [
    path([circle([ends, y], small)]),
    path([circle([ends, y], large)]),
    path(corners.map((from, i) => line(from, corners[(i + 1) % 4]!))),
  ];
}

const ROW_HEIGHT = 6;
/** Longer lists would cover the drawing. */
const MAX_ROWS = 25;

/** Above the title block: number, name and count of the parts that its views show. Links of one part are counted together. */
function partsList(document: KadrelDocument, sheet: Sheet, { corner, width }: Place): Mark[] {
  const counts = [...countedParts(document, sheet)];
  const shown = counts.slice(0, MAX_ROWS);
  const rows = [
    ['No.', 'Part', 'Count'],
    ...shown.map(([name, count], i) => [String(i + 1), name, String(count)]),
    ...(counts.length > shown.length ? [['', `and ${counts.length - shown.length} more`, '']] : []),
  ];
  const columns = [0, 0.1, 0.85, 1].map((share) => corner[0] + share * width);
  return rows.flatMap((cells, row) => {
    // The head is right above the title block, and the list grows upwards.
    const y = corner[1] + TITLE_BLOCK.height + row * ROW_HEIGHT;
    return cells.flatMap((text, i) => [
      box('table', [columns[i]!, y], [columns[i + 1]!, y + ROW_HEIGHT]),
      ...(text === '' ? [] : [words([columns[i]! + 1.5, y + 1.8], text, LETTERS.small)]),
    ]);
  });
}

/** How often each is shown, by its name, in the order of the list. */
export function countedParts(document: KadrelDocument, sheet: Sheet): Map<string, number> {
  const shown = new Set(inOrder(sheet.views).flatMap(([, { parts }]) => [...partsShown(document, parts)]));
  const counts = new Map<string, number>();
  for (const id of shown) {
    const { name } = definitionOf(document, document.items[id]!);
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return counts;
}

/** Solids that a view shows: those that it names, or all that are visible. */
export function partsShown(document: KadrelDocument, parts: readonly string[] | undefined): Set<string> {
  const ids = parts ? [...standingOf(document, parts)] : visibleParts(document).map(({ id }) => id);
  return new Set(ids.filter((id) => !isFlatPart(document, document.items[id]!)));
}
