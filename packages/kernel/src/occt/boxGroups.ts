/** Boxes that meet, and that hang together. */
import { boxesMeet, grownBy, type Box } from '@kadrel/core';
import { Sets } from './sets.ts';

/** Indices of boxes in groups, in order: boxes of different groups are farther apart than `gapMm`. */
export function boxGroups(boxes: readonly Box[], gapMm = 0): number[][] {
  const sets = new Sets(boxes.length);
  for (const [i, k] of boxPairs(boxes.map((box) => grownBy(box, gapMm / 2)))) sets.join(i, k);
  return sets.all();
}

/** Indices of boxes that meet, each pair once and the lower index first. */
export function boxPairs(boxes: readonly Box[]): (readonly [number, number])[] {
  const order = boxes.map((_, i) => i).sort((i, j) => boxes[i]!.min[0] - boxes[j]!.min[0]);
  return order.flatMap((i, at) => {
    const { max } = boxes[i]!;
    const found: (readonly [number, number])[] = [];
    for (let k = at + 1; k < order.length && boxes[order[k]!]!.min[0] <= max[0]; k++) {
      const j = order[k]!;
      if (boxesMeet(boxes[i]!, boxes[j]!)) found.push(i < j ? [i, j] : [j, i]);
    }
    return found;
  });
}
