import { z } from 'zod';
import { angle, length } from '../fields.ts';

const three = <T extends z.ZodType>(make: () => T) => z.tuple([make(), make(), make()]);

/** Where a plane stands in the part's own frame: mm, and degrees about X, then Y, then Z. */
export const frameSchema = () =>
  z.strictObject({ origin: three(() => length('Place')), turn: three(() => angle('Turn')) });
