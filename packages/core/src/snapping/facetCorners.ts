/** Facets by their corners. */
import type { Vec3 } from '../space/vector.ts';
import type { ShapeFeatures } from './shape.ts';

/** The three corners of a facet, mm. */
export type Corners = readonly [Vec3, Vec3, Vec3];

/** The corners of a facet by its number. */
export const facetCorners = (
  { positions, triangles }: Pick<ShapeFeatures, 'positions' | 'triangles'>,
  t: number,
): Corners =>
  [0, 1, 2].map((k) => {
    const at = 3 * triangles[3 * t + k]!;
    return [positions[at]!, positions[at + 1]!, positions[at + 2]!] as const;
  }) as unknown as Corners;
