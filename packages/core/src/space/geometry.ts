/** Points, lines, axes and planes as statements refer to them. */
import type { Vec3 } from './vector.ts';

/** Directions and normals have length 1; lengths in mm. */
export type Geometry =
  | { readonly kind: 'point'; readonly at: Vec3 }
  /** A straight edge; `at` is its middle. */
  | { readonly kind: 'line'; readonly at: Vec3; readonly direction: Vec3; readonly length?: number }
  /** The axis of a round face or of a circular edge. `at` is on it: at the circle's centre, or where the face's own axis begins. */
  | {
      readonly kind: 'axis';
      readonly at: Vec3;
      readonly direction: Vec3;
      readonly radius: number;
      readonly arc?: Arc;
    }
  /** A flat face; the normal points outward, `at` is its centre. */
  | { readonly kind: 'plane'; readonly at: Vec3; readonly normal: Vec3 };

/** How far a circular edge goes: where it begins, and degrees about the direction of its axis. */
export interface Arc {
  readonly from: Vec3;
  readonly sweep: number;
}
