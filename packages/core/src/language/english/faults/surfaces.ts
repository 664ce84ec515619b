/** British English sentences: what cannot be built of surfaces. What is wrong, and what to do. */
import type { Facts } from '../facts.ts';
import type { FaultSentences } from './sentences.ts';

export const SURFACES_FAULTS = {
  'surface.curves-do-not-join': () => ['These curves do not join.', 'Close the gaps between their ends.'],
  'surface.flat': () => ['A flat surface encloses nothing.', 'Thicken it, or raise its outline.'],
  'surface.no-loop': () => [
    'These curves do not run round in one loop.',
    'Close the gaps between their ends.',
  ],
  'surface.no-rim': () => [
    'A surface that is closed has no rim to be joined at.',
    'Move one of them, or allow a wider gap.',
  ],
  'surface.not-laid': () => [
    'No surface could be laid within these curves.',
    'Make them smoother, or split them.',
  ],
  'surface.opening-not-flat': () => [
    'An opening of this surface is not flat.',
    'Fill it, or thicken the surface instead.',
  ],
  'surface.pieces': ({ what, pieces }: Facts<'what' | 'pieces'>) => [
    `${what} falls into ${pieces} pieces.`,
    'Look for gaps between its faces.',
  ],
  'surface.rim-open': () => [
    'The rim of this surface does not run round.',
    'Join it with what is missing, or thicken it instead.',
  ],
  'surface.rims-apart': ({ apart }: Facts<'apart'>) => [
    `No rim of these surfaces runs along one of the other within the gap; at their nearest they are ${apart} mm apart.`,
    'Move one of them, or allow a wider gap.',
  ],
  'surface.several-loops': ({ loops }: Facts<'loops'>) => [
    `These curves run round in ${loops} loops.`,
    'Fill one loop at a time.',
  ],
  'surface.thickened-pieces': () => [
    'Only what stands on one outline can be thickened.',
    'Thicken the pieces one by one.',
  ],
  'surface.too-thick': () => [
    'This surface cannot be made so thick.',
    'Make it thinner than its narrowest bend.',
  ],
} satisfies FaultSentences;
