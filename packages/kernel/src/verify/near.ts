/** Operands whose surfaces lie on each other but for a hair. */
import type { Vec3 } from '@kadrel/core';
import type { Part } from './claim.ts';
import { placedSamples } from './points.ts';

/** Surfaces that differ by less than this (mm) nearly coincide; by less than the kernel's tolerance they are one. */
const NEAR_MM = 1e-2;
const SAME_MM = 1e-9;
/** So many points must be near for surfaces to lie on each other, rather than to cross there. */
const MIN_NEAR = 3;

/** The two operands whose surfaces lie on each other but for a hair, and by how much they differ at the most. */
export function nearCoincidence(
  parts: readonly Part[],
): { gapMm: number; operands: readonly string[]; places: readonly Vec3[] } | undefined {
  const samples = placedSamples(parts);
  for (const [i, { field, id }] of parts.entries()) {
    if (!field) continue;
    for (const [j, other] of parts.entries()) {
      if (j === i) continue;
      const near = samples
        .filter(({ part }) => part === j)
        .map(({ point }) => ({ point, gap: Math.abs(field.at(point)) }))
        .filter(({ gap }) => gap > SAME_MM && gap < NEAR_MM);
      if (near.length >= MIN_NEAR)
        return {
          gapMm: Math.max(...near.map(({ gap }) => gap)),
          operands: [id, other.id],
          places: near.slice(0, MIN_NEAR).map(({ point }) => point),
        };
    }
  }
  return undefined;
}
