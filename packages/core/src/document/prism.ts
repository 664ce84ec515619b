/** Regular prisms: where their corners stand. */
import { cosDegrees, sinDegrees, tanDegrees } from '../space/angle.ts';
import { valueOf } from './numbers.ts';
import type { SolidBase } from './schema.ts';

type Prism = Extract<SolidBase, { kind: 'prism' }>;

/** Radius of the circle through the corners, mm. Source: trigonometry; flats = 2R cos(180°/n), side = 2R sin(180°/n). */
export function cornerRadius({ sides, across, size }: Prism): number {
  const half = 180 / sides;
  const length = valueOf(size);
  if (across === 'corners') return length / 2;
  return across === 'flats' ? length / 2 / cosDegrees(half) : length / 2 / sinDegrees(half);
}

/** Distance of the sides from the axis, mm: half of what is across the flats. */
export function flatRadius({ sides, across, size }: Prism): number {
  const half = 180 / sides;
  const length = valueOf(size);
  if (across === 'flats') return length / 2;
  return across === 'corners' ? (length / 2) * cosDegrees(half) : length / 2 / tanDegrees(half);
}

/**
 * Corners of the outline, mm, counter-clockwise from the right end of the side at the front: a side faces −Y, so that the
 * outline is its own mirror image in X, and a square stands along the axes.
 */
export function prismCorners(prism: Prism): (readonly [x: number, y: number])[] {
  const { sides } = prism;
  const radius = cornerRadius(prism);
  const flat = flatRadius(prism);
  return Array.from({ length: sides }, (_, i) => {
    const angle = -90 + (180 + 360 * i) / sides;
    // The corners of a square have its half size for coordinates, without the noise of a root.
    const along = (n: number) => (sides === 4 ? Math.sign(n) * flat : radius * n) + 0;
    return [along(cosDegrees(angle)), along(sinDegrees(angle))] as const;
  });
}
