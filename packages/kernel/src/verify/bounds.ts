/** Bounds of volumes and boxes that every combination obeys. */
import { boxSize, carryBox, unionBoxes, type Box } from '@kadrel/core';
import { SAME_VOLUME, type Claim, type Part } from './claim.ts';

const SAME_BOX_MM = 1e-5;

/**
 * What no combination may fall short of, or exceed, is kept to more closely: of two rings 0.000001 mm apart the union came out smaller
 * than either by 5.5e-7 of it.
 */
const NO_LESS = 1e-7;

/** max(A, B) ≤ A ∪ B ≤ A + B, A ∩ B ≤ min(A, B), A − B ≤ A, and boxes inside boxes. */
export function isBounded({ how, parts, measures }: Claim): boolean {
  const volumes = parts.map((part) => part.measures.volume);
  const boxes = parts.map(boxOfPart);
  const [slack, hair] = [SAME_VOLUME, NO_LESS].map((part) => part * Math.max(...volumes)) as [number, number];
  const { volume, box } = measures;
  const outer = how === 'union' ? unionBoxes(boxes)! : boxes[0]!;
  if (!liesWithin(box, outer)) return false;
  if (how === 'subtract') {
    const taken = volumes.slice(1).reduce((sum, one) => sum + one, 0);
    return volume <= volumes[0]! + hair && volume >= volumes[0]! - taken - slack;
  }
  if (how === 'intersect')
    return volume <= Math.min(...volumes) + hair && boxes.every((one) => liesWithin(box, one));
  const sum = volumes.reduce((all, one) => all + one, 0);
  return volume >= Math.max(...volumes) - hair && volume <= sum + slack;
}

/** A box in the frame of the whole that holds the part; exact for turns by quarters. */
export const boxOfPart = ({ pose, measures }: Pick<Part, 'pose' | 'measures'>): Box =>
  carryBox(pose, measures.box);

function liesWithin(inner: Box, outer: Box): boolean {
  const slack = SAME_BOX_MM + SAME_VOLUME * Math.hypot(...boxSize(outer));
  return [0, 1, 2].every(
    (i) => inner.min[i]! >= outer.min[i]! - slack && inner.max[i]! <= outer.max[i]! + slack,
  );
}
