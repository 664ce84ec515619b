import { finite } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** All that was made so far, larger or smaller about the part's own origin, alike in all directions. */
export const scale = declareStep(
  'scale',
  { by: finite.positive() },
  { title: ({ by }) => `Resized by ${by}` },
);
