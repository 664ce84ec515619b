import type { Vec3 } from '@kadrel/core';

/** What a face adds to a solid: its area (mm²), and the volume (mm³) of the cone from the origin to it. */
export interface Share {
  readonly area: number;
  readonly volume: number;
  /** ∫ p dV over that cone. */
  readonly moment: Vec3;
}
