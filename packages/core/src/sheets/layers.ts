/** What is cut of several parts at one height, as one piece of card. */
import type { DrawnPath } from '../curves/curve.ts';
import { paintedBorders } from '../formats/fill.ts';
import type { ItemOutlines } from '../questions/question.ts';

/** Outlines round all of them together: what overlaps or lies within others is joined. Where that cannot be determined they stay as they are. */
export function unitedOutlines(items: readonly ItemOutlines[]): DrawnPath[] {
  const all = items.flatMap(({ paths }) => paths);
  if (items.length < 2) return all;
  return paintedBorders(items.map(({ paths }) => ({ rule: 'evenodd', loops: paths }))) ?? all;
}
