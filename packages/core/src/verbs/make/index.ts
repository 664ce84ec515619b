import type { Kind } from '../../recipes/declare.ts';
import { PRIMITIVES } from '../../recipes/primitives/index.ts';
import { makingVerb } from '../shared/makingVerb.ts';
import { tiers } from './tiers.ts';
import { pin } from './pin.ts';

/** In the order in which people see them. */
export const MAKE = [...PRIMITIVES.map((kind) => makingVerb(kind as unknown as Kind)), tiers, pin] as const;
