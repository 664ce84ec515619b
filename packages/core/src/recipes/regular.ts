/** Regular outlines: where their corners stand. */
import { cosDegrees, sinDegrees, tanDegrees } from '../space/angle.ts';
import { choice, count } from './fields.ts';
import { valueOf, type Num } from './numbers.ts';

/** More sides than this look round, and are better a circle. */
const MAX_SIDES = 1000;

/** Whether a regular polygon may have so many sides. */
export const isSides = (sides: number): boolean =>
  Number.isInteger(sides) && sides >= 3 && sides <= MAX_SIDES;

/** How many sides a regular polygon has. */
export const sidesOf = () =>
  count('Sides', 'How many, 3 or more.', {
    least: 3,
    most: MAX_SIDES,
    default: '6',
    rare: true,
    says: '{sides} sides',
  });
/** How a regular polygon is measured, in words. */
export const ACROSS = {
  corners: 'across its corners',
  flats: 'across its flats',
  side: 'along each side',
} as const;
/** How a regular polygon is measured. */
export const acrossOf = () =>
  choice('Measured', ACROSS, {
    about: 'What the width says.',
    default: 'corners',
    rare: true,
    says: '{across}',
  });

interface Regular {
  readonly sides: number;
  /** What `size` says: across the circle through the corners, across that on the flats, or one side. */
  readonly across: 'corners' | 'flats' | 'side';
  readonly size: Num;
}

/** Radius of the circle through the corners, mm. Source: trigonometry; flats = 2R cos(180°/n), side = 2R sin(180°/n). */
export function cornerRadius({ sides, across, size }: Regular): number {
  const half = 180 / sides;
  const length = valueOf(size);
  if (across === 'corners') return length / 2;
  return across === 'flats' ? length / 2 / cosDegrees(half) : length / 2 / sinDegrees(half);
}

/** Distance of the sides from the axis, mm: half of what is across the flats. */
export function flatRadius({ sides, across, size }: Regular): number {
  const half = 180 / sides;
  const length = valueOf(size);
  if (across === 'flats') return length / 2;
  return across === 'corners' ? (length / 2) * cosDegrees(half) : length / 2 / tanDegrees(half);
}

/**
 * Corners of the outline, mm, counter-clockwise from the right end of the side at the front: a side faces −Y, so that the
 * outline is its own mirror image in X, and a square stands along the axes.
 */
export function prismCorners(regular: Regular): (readonly [x: number, y: number])[] {
  const { sides } = regular;
  const radius = cornerRadius(regular);
  const flat = flatRadius(regular);
  return Array.from({ length: sides }, (_, i) => {
    const angle = -90 + (180 + 360 * i) / sides;
    // The corners of a square have its half size for coordinates, without the noise of a root.
    const along = (n: number) => (sides === 4 ? Math.sign(n) * flat : radius * n) + 0;
    return [along(cosDegrees(angle)), along(sinDegrees(angle))] as const;
  });
}
