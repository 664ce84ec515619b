import { z } from 'zod';
import { declareKind } from '../declare.ts';

/** A solid that takes more than this many characters to write down stays as its recipe tells it: a request holds four million. */
export const MAX_SETTLED = 1_000_000;

/** A solid as it is, without what it was made by. */
export const settled = declareKind(
  'settled',
  {
    /** Its exact surfaces and their borders, as the kernel writes them down. */
    shape: z.string().min(1).max(MAX_SETTLED),
    /** What its faces are called, in the order of the shape; one that many operands share has all their names. */
    faces: z.array(z.string().max(100_000)).min(1),
  },
  { words: 'a settled solid', inAWord: 'settled' },
);
