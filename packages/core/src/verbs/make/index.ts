import type { Kind } from '../../recipes/declare.ts';
import { PRIMITIVES } from '../../recipes/primitives/index.ts';
import { makingVerb } from '../shared/makingVerb.ts';
import { tiers } from './tiers.ts';
import { pin } from './pin.ts';
import { take } from './take.ts';

/** In the order in which people see them. */
export const MAKE = [
  ...PRIMITIVES.map((kind) => makingVerb(kind as unknown as Kind)),
  tiers,
  take,
  pin,
] as const;
