/** Cages for tests. */
import type { Vec3 } from '@kadrel/core';
import type { Cage } from './refined.ts';

/** A cube of side 2; corner i is at the end of X, Y and Z where its first, second and third bit says so. */
export const CUBE: Omit<Cage, 'sharp'> = {
  points: Array.from({ length: 8 }, (_, i): Vec3 => [2 * (i & 1), i & 2, (i & 4) / 2]),
  faces: [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ].map((corners, i) => ({ name: `face ${i}`, corners })),
  fixed: new Set(),
};
