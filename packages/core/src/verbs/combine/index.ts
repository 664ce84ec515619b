import { union } from './union.ts';
import { subtract } from './subtract.ts';
import { intersect } from './intersect.ts';

/** In the order in which people see them. */
export const COMBINE = [union, subtract, intersect] as const;
