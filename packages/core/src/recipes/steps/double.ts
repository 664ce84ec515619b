import { declareStep } from './declare.ts';
import { frameSchema } from './frame.ts';

/** The solid and its mirror image as one. */
export const double = declareStep(
  'double',
  {
    /** The plane in the part's own frame: mm, and degrees about X, then Y, then Z. */
    frame: frameSchema(),
  },
  { title: () => 'Mirrored and joined' },
);
