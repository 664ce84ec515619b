/** The area that drawn paths fill. */
import { areasOf } from './arrangement.ts';
import { areClear } from './crossing.ts';
import { clearArea, depthAt, type Path } from './outline.ts';

/**
 * What the even-odd rule fills, mm², never below zero. Paths that cross themselves or each other are taken apart first; where they
 * lie on each other, so that formulas do not tell, each counts as if it kept clear of the others.
 */
export function filledArea(paths: readonly Path[]): number {
  const closed = paths.filter((path) => path.closed && path.curves.length > 0);
  const areas = areClear(closed) ? undefined : areasOf(closed);
  if (!areas) return Math.abs(clearArea(closed));
  return areas.reduce((sum, { at, area }) => sum + (depthAt(closed, at) % 2 === 1 ? area : 0), 0);
}
