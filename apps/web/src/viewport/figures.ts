/** Drawing a rectangle from corner to corner, or what is round from its centre outward, by one drag. */
import { distance, type Vec3 } from '@kadrel/core';
import { withPointer, type Statement } from '../session/statement.ts';
import type { Hand } from './hand.ts';

/** The blank that a drag gives a size to, by verb; a rectangle goes to its opposite corner. */
const SIZES: Readonly<Record<string, string>> = {
  rectangle: 'to',
  circle: 'diameter',
  polygon: 'width',
};

export interface Figuring {
  readonly from: Vec3;
  readonly x: number;
  readonly y: number;
}

export const isFiguring = (statement: Statement | null): statement is Statement =>
  statement !== null && SIZES[statement.verb] !== undefined;

/** Null where there is nothing under the pointer. */
export function startFigure(hand: Hand): Figuring | null {
  const caught = hand.catchPoint();
  const { x, y } = hand.last;
  return caught && { from: caught.point, x, y };
}

export function dragFigure(hand: Hand, { from }: Figuring): void {
  const caught = hand.catchPoint();
  hand.showCaught(caught);
  const statement = hand.openStatement();
  const size = statement ? SIZES[statement.verb] : undefined;
  if (!caught || size === undefined) return;
  hand.session.update((s) => {
    const placed = withPointer(s, 'at', from);
    // Across all of it, by how far the pointer is from the centre.
    const told = size === 'to' ? caught.point : [2 * distance(from, caught.point)];
    return { ...withPointer(placed, size, told), refusal: null };
  });
}
