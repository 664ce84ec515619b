import { declareKind } from '../declare.ts';
import { figureSchema } from '../figures/index.ts';

/** Curves in the XY plane of the own frame. */
export const profile = declareKind(
  'profile',
  { figure: figureSchema },
  { words: 'a profile', inAWord: 'profile' },
);
