/** The mark of a level: a triangle that stands on it, and its height above the world's zero. */
import type { Vec2 } from '../space/vector2.ts';
import { LETTERS, stroke, textWidth, type Mark } from './marks.ts';

/** Of the triangle, mm. Common practice, no source. */
const TRIANGLE = { height: 3, half: 1.75 } as const;
/** From the place itself to where its line begins, and between the line and the text, mm. */
const GAP = 1;

/** @param offset mm on paper from the place to the mark: to the right where more than 0, to the left where less */
export function levelMark([x, y]: Vec2, offset: number, text: string): Mark[] {
  const side = offset < 0 ? -1 : 1;
  const foot = x + offset;
  const width = textWidth(text, LETTERS.usual);
  const words = foot + side * (TRIANGLE.half + GAP);
  const corners: readonly Vec2[] = [
    [foot, y],
    [foot - TRIANGLE.half, y + TRIANGLE.height],
    [foot + TRIANGLE.half, y + TRIANGLE.height],
    [foot, y],
  ];
  return [
    stroke('dimension', [x + side * Math.min(GAP, Math.abs(offset)), y], [words + side * width, y]),
    stroke('dimension', ...corners),
    {
      kind: 'text',
      text,
      at: [words, y + GAP],
      align: side > 0 ? 'start' : 'end',
      height: LETTERS.usual,
      turn: 0,
    },
  ];
}
