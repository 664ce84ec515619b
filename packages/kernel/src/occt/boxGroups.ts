/** Boxes that hang together. */
import { boxesMeet, type Box } from '@kadrel/core';
import { Sets } from './sets.ts';

/** Indices of boxes in groups, in order: boxes of different groups are farther apart than `gapMm`. */
export function boxGroups(boxes: readonly Box[], gapMm = 0): number[][] {
  const sets = new Sets(boxes.length);
  const order = boxes.map((_, i) => i).sort((i, j) => boxes[i]!.min[0] - boxes[j]!.min[0]);
  order.forEach((i, at) => {
    const grown = grownBy(boxes[i]!, gapMm);
    for (let k = at + 1; k < order.length && boxes[order[k]!]!.min[0] <= grown.max[0]; k++)
      if (boxesMeet(grown, boxes[order[k]!]!)) sets.join(i, order[k]!);
  });
  return sets.all();
}

/** A box that reaches so much farther on every side, mm. */
export const grownBy = ({ min, max }: Box, mm: number): Box => ({
  min: [min[0] - mm, min[1] - mm, min[2] - mm],
  max: [max[0] + mm, max[1] + mm, max[2] + mm],
});
