/** British English sentences: what cannot be built of combinations and sections. What is wrong, and what to do. */
import type { Facts } from '../facts.ts';
import type { FaultSentences } from './sentences.ts';

export const COMBINING_FAULTS = {
  'combine.cut-misses': () => [
    'The part that it is cut by does not go through it: nothing would be left on one side.',
    'Move one of the two, or cut by another part.',
  ],
  'combine.nearly-coincide': ({ gap }: Facts<'gap'>) => [
    `They nearly coincide: their surfaces differ by ${gap} mm there, which cannot be combined safely.`,
    'Move the second onto the first, or clearly away from it.',
  ],
  'combine.no-way': () => [
    'No way of combining these gave a solid that passes its checks.',
    'Move one of them a little, change a size, or combine them in smaller steps.',
  ],
  'combine.not-combined': () => [
    'These parts could not be combined.',
    'Move one of them a little, or change a size.',
  ],
  'nothing-left.intersect': () => [
    'The parts do not meet, so that they have nothing in common.',
    'Move them into one another first.',
  ],
  'nothing-left.subtract': () => [
    'Nothing is left: what is taken out covers the whole part.',
    'Make the taken-out part smaller, or move it.',
  ],
  'nothing-left.union': () => [
    'The union came out empty.',
    'Look at the parts one by one; one of them may have no volume.',
  ],
  'section.uncertain': () => [
    'The cut face of a solid could not be found with certainty.',
    'Move the section plane a little.',
  ],
} satisfies FaultSentences;
