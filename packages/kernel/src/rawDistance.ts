/** What the kernel alone takes for a distance, for the bench. */
import { worldFromPart, type ItemId, type KadrelDocument } from '@kadrel/core';
import type { Libraries } from './builder.ts';
import type { Evaluator } from './evaluate.ts';
import { distanceBetween, moved } from './occt/occt.ts';

/** The distance of two parts, mm, as the kernel tells it of whole solids. Throws BuildError. */
export function rawDistance(
  { occt }: Libraries,
  kernel: Evaluator,
  {
    document,
    parts: [a, b],
  }: { readonly document: KadrelDocument; readonly parts: readonly [ItemId, ItemId] },
): number {
  const placed = [a, b].map((id) => moved(occt, kernel.shapeFor(document, id), worldFromPart(document, id)));
  try {
    return distanceBetween(occt, placed[0]!, placed[1]!);
  } finally {
    placed.forEach((shape) => shape.delete());
  }
}
