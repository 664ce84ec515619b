import { length } from '../fields.ts';
import { declareStep } from './declare.ts';

/** The least solid without hollows or dents that holds it. */
export const hull = declareStep(
  'hull',
  {
    chord: length(
      'Chord',
      'How far its facets may be within the solid where that is round; flat faces are exact.',
      {
        above: 0,
        default: '0.05 mm',
        rare: true,
      },
    ),
  },
  {
    title: () => 'Hull',
    number: (step) => ({
      label: 'Chord',
      kind: 'length',
      value: step.chord,
      above: 0,
      with: (chord) => ({ ...step, chord }),
    }),
    make: {
      id: 'hull',
      name: 'Hull',
      about: 'Fills every dent, hole and hollow of a solid, as if a sheet were stretched round it.',
      words: ['convex', 'wrap', 'shrink', 'envelope', 'bounding', 'package'],
      sentence: 'Hull of {part}[, by facets within {chord} where it is round]',
    },
  },
);
