import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { tally } from '../fields.ts';
import { directionSchema } from '../numbers.ts';
import { lengthSpacing } from './spacing.ts';

const row = () =>
  z.strictObject({ direction: directionSchema, count: tally('Count'), spacing: lengthSpacing() });

export const grid = declareKind(
  'grid',
  {
    /** Columns, rows, levels. */
    rows: z.tuple([row(), row(), row()]),
    /** Every other row is shifted by this part of the columns' pitch. */
    stagger: z.number().min(0).max(1),
  },
  { words: 'a grid' },
);
