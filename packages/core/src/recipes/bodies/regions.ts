/** Which areas of profiles something is made from. */
import { z } from 'zod';
import { idSchema } from '../ids.ts';
import { finite } from '../numbers.ts';

const pairSchema = z.tuple([finite, finite]);
/**
 * A bounded area of a plane, by the curves round it and a point inside. After a change of the profiles it is the area round
 * which the same curves run; where there are several, the one nearest to the point.
 */
const regionSchema = z.strictObject({
  at: pairSchema,
  curves: z.array(z.string().max(80)).min(1),
});
export type Region2 = z.infer<typeof regionSchema>;
/** The areas that the even-odd rule fills, or picked ones. */
export const regionsSchema = z.union([z.literal('all'), z.array(regionSchema).min(1)]);
export type Regions = z.infer<typeof regionsSchema>;

export const profilesSchema = z.array(idSchema).min(1);
