import { z } from 'zod';
import { angle, length } from '../fields.ts';
import { declareStep } from './declare.ts';

const three = <T extends z.ZodType>(make: () => T) => z.tuple([make(), make(), make()]);

/** The solid and its mirror image as one. */
export const double = declareStep(
  'double',
  {
    /** The plane in the part's own frame: mm, and degrees about X, then Y, then Z. */
    frame: z.strictObject({ origin: three(() => length('Place')), turn: three(() => angle('Turn')) }),
  },
  { title: () => 'Mirrored and joined' },
);
