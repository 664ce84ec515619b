/** Which boxes come near one another, in n log n. */
import type { Box } from '../space/box.ts';
import { buildBvh, searchBvh } from '../space/bvh.ts';

/** Pairs of places in the list whose boxes are no farther apart than a reach along each axis, mm; each once, in order. */
export function nearBoxes(boxes: readonly Box[], reach: number): [number, number][] {
  const packed = new Float64Array(6 * boxes.length);
  boxes.forEach(({ min, max }, i) => {
    packed.set(min, 6 * i);
    packed.set(max, 6 * i + 3);
  });
  const tree = buildBvh(packed);
  const found: [number, number][] = [];
  boxes.forEach(({ min, max }, i) => {
    searchBvh(
      tree,
      (b, at) => [0, 1, 2].every((k) => b[at + k]! <= max[k]! + reach && b[at + 3 + k]! >= min[k]! - reach),
      (j) => {
        if (j > i && [0, 1, 2].every((k) => isNear(boxes[j]!, { min, max }, k, reach))) found.push([i, j]);
      },
    );
  });
  return found.sort((p, q) => p[0] - q[0] || p[1] - q[1]);
}

const isNear = (a: Box, b: Box, k: number, reach: number): boolean =>
  a.min[k]! <= b.max[k]! + reach && a.max[k]! >= b.min[k]! - reach;
