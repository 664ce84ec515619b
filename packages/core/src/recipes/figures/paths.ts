import { z } from 'zod';
import { curveSchema } from '../../curves/curve.ts';
import { declareKind } from '../declare.ts';

/** Curves as they came from a file or from an operation, end to end. */
export const paths = declareKind(
  'paths',
  {
    paths: z
      .array(z.strictObject({ closed: z.boolean(), curves: z.array(curveSchema).min(1) }))
      .min(1)
      .max(20_000),
  },
  { words: 'curves', inAWord: 'curves' },
);
