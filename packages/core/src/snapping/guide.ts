import type { Vec3 } from '../space/vector.ts';

/** A line to snap to. `direction` has length 1. */
export interface Guide {
  readonly from: Vec3;
  readonly direction: Vec3;
  /** What it runs along: *X*, *edge*, *square to the edge*, *normal*. */
  readonly words: string;
  /** Runs through the from-point instead of through what was touched. */
  readonly isParallel?: boolean;
}
