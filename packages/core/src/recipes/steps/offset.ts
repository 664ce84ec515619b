import { recipeFault } from '../declare.ts';
import { choice, length } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** All faces of what was made so far move out by as much, or in. */
export const offset = declareStep(
  'offset',
  {
    by: length('Clearance', 'How far every face moves out; less than zero is inward.'),
    corners: choice(
      'Corners',
      { round: 'round corners', square: 'square corners' },
      { about: 'What edges become.', default: 'round' },
    ),
  },
  {
    title: ({ by, corners }) => `${valueOf(by) < 0 ? 'Shrunk' : 'Grown'}, ${corners} corners`,
    number: (step) => ({
      label: 'Clearance',
      kind: 'length',
      value: step.by,
      with: (by) => ({ ...step, by }),
    }),
    fault: ({ by }) => (valueOf(by) === 0 ? recipeFault('recipe.clearance-0', {}, 'by') : undefined),
    make: {
      id: 'offset-solid',
      name: 'Offset solid',
      about: 'Moves every face of a solid out, or in, by one clearance: for what fits round it, or into it.',
      words: ['clearance', 'grow', 'shrink', 'inflate', 'play', 'gap', 'tolerance', 'allowance'],
      sentence: 'Offset solid {part} by {by}, {corners}',
    },
  },
);
