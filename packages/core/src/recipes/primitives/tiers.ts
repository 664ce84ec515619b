import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';

export const TIER_FLANKS = ['step', 'slope', 'curve'] as const;

const tierSchema = z.strictObject({
  outline: z.enum(['round', 'square', 'polygon']),
  sides: z.number().int().min(3).max(100),
  /** Of polygons across the flats. */
  below: length('Width below', 'Across the bottom.', { above: 0 }),
  above: length('Width above', 'Across the top.', { least: 0 }),
  height: length('Height', '', { above: 0 }),
  /** How it goes from the lower to the upper width: at once at its top, straight, or as a quarter of an ellipse. */
  flank: z.enum(TIER_FLANKS),
});
export type Tier = z.infer<typeof tierSchema>;

/** Own frame: the centre of the bottom at the origin, the axis along Z. */
export const tiers = declareKind(
  'tiers',
  { levels: z.array(tierSchema).min(1).max(200) },
  { words: 'a stack of tiers', inAWord: 'tiers' },
);
