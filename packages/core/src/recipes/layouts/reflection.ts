import { declareKind } from '../declare.ts';
import { directionSchema, pointSchema } from '../numbers.ts';

/** The source and its mirror image. */
export const reflection = declareKind(
  'reflection',
  { point: pointSchema, normal: directionSchema },
  { words: 'a mirror image' },
);
