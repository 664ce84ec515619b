/** Where the standard views go on a sheet, and at which scale. Source: ISO 5456-2, first-angle and third-angle projection. */
import type { Sheet, StandardLook } from '../document/sheet.ts';
import type { Box } from '../space/box.ts';
import { boxCorners } from '../space/box.ts';
import { carryBack } from '../space/pose.ts';
import { emptyDocument } from '../document/items.ts';
import type { Vec2 } from '../space/vector2.ts';
import { frameOfLook } from './looks.ts';
import { MARGINS, SCALES, TITLE_BLOCK, type Paper } from './paper.ts';

/** Columns and rows in third-angle projection, from the front view: to the right, and up. */
const THIRD: Readonly<Record<StandardLook, readonly [column: number, row: number]>> = {
  front: [0, 0],
  plan: [0, 1],
  below: [0, -1],
  right: [1, 0],
  left: [-1, 0],
  rear: [2, 0],
  isometric: [1, 1],
};

/** In first-angle projection each stands on the other side. */
const placeOf = (look: StandardLook, arrangement: Sheet['arrangement']) => {
  const [column, row] = THIRD[look];
  return arrangement === 'third' ? { column, row } : { column: look === 'rear' ? 2 : -column, row: -row };
};

/** Between views, and from them to the frame, mm: room for two rows of dimensions. Common practice, no source. */
const GAP = 24;

/** What is to be laid out on paper. */
export interface Arranging {
  readonly looks: readonly StandardLook[];
  /** Of what is drawn, in the world. */
  readonly box: Box;
  readonly paper: Paper;
  readonly arrangement: Sheet['arrangement'];
  /** The largest of the usual ones that fits, where it is not given. */
  readonly scale?: number | undefined;
}

/** Where views come to stand, and at which scale. */
export interface Arranged {
  readonly scale: number;
  /** Where the middle of the box is drawn. */
  readonly places: ReadonlyMap<StandardLook, Vec2>;
}

/** Undefined where it does not fit: at the scale that is given, or at any. */
export function arranged(arranging: Arranging): Arranged | undefined {
  const { scale } = arranging;
  if (scale !== undefined) return arrangedAt(arranging, scale);
  for (const one of SCALES) {
    const found = arrangedAt(arranging, one);
    if (found) return found;
  }
  return undefined;
}

/** What views come to at a scale: width and height with the room between them, mm. */
export function roomFor(arranging: Arranging, scale: number): Paper {
  const { columns, rows } = grid(arranging, scale);
  const sum = (sizes: ReadonlyMap<number, number>) => [...sizes.values()].reduce((a, b) => a + b + GAP, GAP);
  return { width: sum(columns), height: sum(rows) };
}

/** Within the frame, above the title block. */
export const roomOn = ({ width, height }: Paper): Paper => ({
  width: width - MARGINS.left - MARGINS.other,
  height: height - 2 * MARGINS.other - TITLE_BLOCK.height,
});

function arrangedAt(arranging: Arranging, scale: number): Arranged | undefined {
  const [room, taken] = [roomOn(arranging.paper), roomFor(arranging, scale)];
  if (taken.width > room.width || taken.height > room.height) return undefined;
  const { columns, rows } = grid(arranging, scale);
  const x = middles(columns, MARGINS.left, room.width);
  const y = middles(rows, MARGINS.other + TITLE_BLOCK.height, room.height);
  const places = new Map(
    arranging.looks.map((look) => {
      const { column, row } = placeOf(look, arranging.arrangement);
      return [look, [x.get(column)!, y.get(row)!] as Vec2] as const;
    }),
  );
  return { scale, places };
}

/** Widths of the columns and heights of the rows, by their numbers, mm on paper. */
function grid({ looks, box, arrangement }: Arranging, scale: number) {
  const [columns, rows] = [new Map<number, number>(), new Map<number, number>()];
  for (const look of looks) {
    const { column, row } = placeOf(look, arrangement);
    const [width, height] = extentOf(look, box);
    columns.set(column, Math.max(columns.get(column) ?? 0, width * scale));
    rows.set(row, Math.max(rows.get(row) ?? 0, height * scale));
  }
  return { columns, rows };
}

function extentOf(look: StandardLook, box: Box): Vec2 {
  const frame = frameOfLook(emptyDocument(), { kind: 'standard', from: look })!;
  const corners = boxCorners(box).map((corner) => carryBack(frame, corner));
  const extent = (axis: 0 | 1) => {
    const all = corners.map((corner) => corner[axis]);
    return Math.max(...all) - Math.min(...all);
  };
  return [extent(0), extent(1)];
}

/** The middle of each, in order, with room that is left shared out alike. */
function middles(sizes: ReadonlyMap<number, number>, from: number, room: number): Map<number, number> {
  const ordered = [...sizes].sort(([a], [b]) => a - b);
  const gap = (room - ordered.reduce((sum, [, size]) => sum + size, 0)) / (ordered.length + 1);
  let at = from;
  return new Map(
    ordered.map(([number, size]) => {
      const middle = at + gap + size / 2;
      at += gap + size;
      return [number, middle];
    }),
  );
}
