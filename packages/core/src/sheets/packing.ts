/** Pieces laid out on sheets in rows: simple, and cut off one after another. */
import type { Vec2 } from '../space/vector2.ts';

/** mm */
export interface PieceSize {
  readonly width: number;
  readonly height: number;
}

/** The sheets that pieces are cut out of, mm. */
export interface Stock extends PieceSize {
  readonly margin: number;
  readonly spacing: number;
}

/** A piece, and where on which sheet it lies. */
export interface PackedPiece {
  /** Its number in the list of pieces, from 0. */
  readonly piece: number;
  /** Where its middle goes, from the lower left corner of the sheet. */
  readonly at: Vec2;
}

/** Sheet by sheet; or the number of a piece that fits on none. Rows go from left to right and from the top down, in the order of the pieces. */
export function packed(
  pieces: readonly PieceSize[],
  { width, height, margin, spacing }: Stock,
): PackedPiece[][] | { readonly tooLarge: number } {
  const tooLarge = pieces.findIndex(
    (one) => one.width > width - 2 * margin || one.height > height - 2 * margin,
  );
  if (tooLarge >= 0) return { tooLarge };
  const pages: PackedPiece[][] = [[]];
  let [x, top, row] = [margin, height - margin, 0];
  pieces.forEach((one, piece) => {
    if (x + one.width > width - margin) [x, top, row] = [margin, top - row - spacing, 0];
    if (top - one.height < margin) {
      pages.push([]);
      [x, top, row] = [margin, height - margin, 0];
    }
    pages.at(-1)!.push({ piece, at: [x + one.width / 2, top - one.height / 2] });
    x += one.width + spacing;
    row = Math.max(row, one.height);
  });
  return pages;
}
