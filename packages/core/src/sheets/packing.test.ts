import fc from 'fast-check';
import { packed, type PieceSize } from './packing.ts';

const STOCK = { width: 100, height: 80, margin: 5, spacing: 2 };

test('rows from the top, sheet after sheet, in the order of the pieces', () => {
  const pieces = Array.from({ length: 7 }, () => ({ width: 40, height: 30 }));
  const pages = packed(pieces, STOCK) as { piece: number; at: readonly [number, number] }[][];
  expect(pages.map((page) => page.map(({ piece }) => piece))).toEqual([
    [0, 1, 2, 3],
    [4, 5, 6],
  ]);
  expect(pages[0]![0]!.at).toEqual([25, 60]);
  expect(pages[0]![2]!.at).toEqual([25, 28]);
});

test('a piece that fits on no sheet is named', () => {
  expect(
    packed(
      [
        { width: 10, height: 10 },
        { width: 91, height: 10 },
      ],
      STOCK,
    ),
  ).toEqual({ tooLarge: 1 });
});

test('every piece once, within the margin, and none nearer to another than the spacing', () => {
  const size = fc.record({
    width: fc.double({ min: 1, max: 90, noNaN: true }),
    height: fc.double({ min: 1, max: 70, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.array(size, { minLength: 1, maxLength: 30 }), (pieces: PieceSize[]) => {
      const pages = packed(pieces, STOCK) as { piece: number; at: readonly [number, number] }[][];
      expect(pages.flat().map(({ piece }) => piece)).toEqual(pieces.map((_, i) => i));
      for (const page of pages)
        page.forEach(({ piece, at: [x, y] }, i) => {
          const { width, height } = pieces[piece]!;
          expect(x - width / 2).toBeGreaterThanOrEqual(5 - 1e-9);
          expect(x + width / 2).toBeLessThanOrEqual(95 + 1e-9);
          expect(y - height / 2).toBeGreaterThanOrEqual(5 - 1e-9);
          for (const other of page.slice(0, i)) {
            const second = pieces[other.piece]!;
            const apart = [
              Math.abs(x - other.at[0]) - (width + second.width) / 2,
              Math.abs(y - other.at[1]) - (height + second.height) / 2,
            ];
            expect(Math.max(...apart)).toBeGreaterThanOrEqual(2 - 1e-9);
          }
        });
    }),
  );
});
