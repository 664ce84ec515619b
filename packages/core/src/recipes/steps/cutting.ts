/** Steps that cut the curves of a profile at a point, or let them go on to others. */
import { z } from 'zod';
import { idSchema } from '../ids.ts';
import { finite } from '../numbers.ts';
import { declareStep } from './declare.ts';

const near = z.tuple([finite, finite]);
const profiles = z.array(idSchema);

/** The piece of a curve at a point is taken out, as far as the next crossings with its own curves and those of others. */
export const trim = declareStep(
  'trim',
  { near, profiles },
  { title: (_, names) => (names === '' ? 'Trimmed' : `Trimmed by ${names}`) },
);

/** The free end nearest to a point goes on, straight or round as it ends, to where it first meets a curve. */
export const extend = declareStep(
  'extend',
  { near, profiles },
  { title: (_, names) => (names === '' ? 'Extended' : `Extended to ${names}`) },
);

/** Cut at the point of its curves that is nearest: a closed path opens there. */
export const split = declareStep('split', { near }, { title: () => 'Split' });

export const reverse = declareStep('reverse', {}, { title: () => 'Reversed' });
