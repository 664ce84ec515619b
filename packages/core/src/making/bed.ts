/** Whether a solid fits on a bed as it lies, and which quarter turn would make it fit: by its box. */
import type { Vec3 } from '../space/vector.ts';
import { HAIR_MM } from './limits.ts';

/** It may be laid down lengthwise or across. */
export function fitsBed([x, y, z]: Vec3, bed: Vec3): boolean {
  const [long, wide, high] = bed.map((mm) => mm + HAIR_MM) as unknown as Vec3;
  return z <= high && ((x <= long && y <= wide) || (y <= long && x <= wide));
}

/** Which turn about X or Y would make it fit; undefined where none does. @param size of its box, mm */
export function bedTurn([x, y, z]: Vec3, bed: Vec3): { about: 'x' | 'y'; angle: 90 } | undefined {
  if (fitsBed([x, z, y], bed)) return { about: 'x', angle: 90 };
  return fitsBed([z, y, x], bed) ? { about: 'y', angle: 90 } : undefined;
}
