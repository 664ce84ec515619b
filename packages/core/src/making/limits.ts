/** What making a part asks of it. */
import type { Vec3 } from '../space/vector.ts';
import type { Material } from '../document/materials.ts';

/** What a machine can make, mm and degrees. */
export interface MakeLimits {
  /** The thinnest wall and the narrowest gap that come out, mm. */
  readonly wall: number;
  readonly gap: number;
  /** Degrees from upright that need no support. */
  readonly overhang: number;
  /** The thinnest pin and the narrowest bore: a nozzle's or a cutter's width, mm. */
  readonly feature: number;
  /** The diameter of the round cutter that sheets are cut out with, mm; none is not looked at: a beam of light has none. */
  readonly cutter?: number | undefined;
  /** What fits on the bed, mm along X, Y and Z; none is not looked at. */
  readonly bed?: Vec3 | undefined;
  readonly material: Material;
}

/** Common practice for plastic laid in lines of 0.4 mm; no source. */
export const USUAL_LIMITS: MakeLimits = {
  wall: 0.8,
  gap: 0.3,
  overhang: 45,
  feature: 0.4,
  material: 'pla',
};

/** What misses a limit by less than this, mm, keeps to it: sizes are given to a tenth of it. */
export const HAIR_MM = 1e-6;
