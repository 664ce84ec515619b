/** What verbs make of a direction: a world vector of length 1. */
import type { Turn } from '../space/pose.ts';
import { column } from '../space/matrix.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Direction } from './declare.ts';

/** The direction in the world; an axis is taken from `axes`, whose columns are X, Y and Z. */
export const worldDirection = (direction: Direction, axes: Turn): Vec3 =>
  'vector' in direction
    ? direction.vector
    : (column(axes, direction.axis).map((n) => n * direction.sign + 0) as unknown as Vec3);
