/** British English sentences: patterns. */
import type { Facts } from './facts.ts';

export const REPEAT_SENTENCES = {
  'as-it-is': ({ wrong, name, words }: Facts<'wrong' | 'name' | 'words'>) =>
    `Member ${wrong} of ${name} is ${words}.`,
  'both.count': () => 'Give the count, or have counted what fits; not both.',
  'both.gaps': () => 'Gaps, turns or sizes grow, one of them.',
  'direction.about': () => 'A point has no direction: pick an edge or a round face.',
  'direction.columns': () => 'Columns, rows and levels go in different directions.',
  gap: () => 'The parts would stand inside one another without end: give a wider gap.',
  'left-out': ({ out, name }: Facts<'out' | 'name'>) =>
    `Member ${out} of ${name} is left out. Put it back first.`,
  'missing.direction': () => 'A direction from a point to a point needs both.',
  'missing.how-many': () => 'Say how many there are in all.',
  'missing.how-many-how': () => 'Say how many there are, or how far it is from one to the next.',
  'missing.how-wide-gaps': () => 'Say how wide the gaps are.',
  'missing.point-axis': () => 'Pick the point that the axis goes through, or type it.',
  'missing.point-mirror': () => 'Pick a point of the mirror’s plane, or type it.',
  'missing.span': () => 'What fits is counted across a span: give that.',
  'no-such-number.count': () => 'A grid counts columns, rows and levels.',
  'no-such-number.none': ({ what }: Facts<'what'>) => `A ${what} has none.`,
  'no-such-number.pitch': () => 'Say which pitch: of columns, rows or levels.',
  'not-linked': ({ name }: Facts<'name'>) => `${name} shares its recipe with no other part.`,
  'not-positive.pitch': () => 'The pitch must be more than zero.',
  'nothing-left': ({ name }: Facts<'name'>) => `Nothing would be left of ${name}. Delete it instead.`,
  'same-point': () => 'These are the same point.',
  span: () => 'The parts themselves are longer than that: give more, or fewer of them.',
  'too-long.count': ({ length, reach }: Facts<'length' | 'reach'>) =>
    `The path is ${length} mm long, and these need ${reach} mm.`,
  'too-many.parts': ({ name, layout, maxParts }: Facts<'name' | 'layout' | 'maxParts'>) =>
    `${name} would become ${layout} parts; at most ${maxParts} at once.`,
};
