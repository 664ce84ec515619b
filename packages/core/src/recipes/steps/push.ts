import { choice, faces, length } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** Faces move out of themselves, or in, and leave the others where they are. */
export const push = declareStep(
  'push',
  {
    faces: faces('Faces', 'Flat and round faces that move.'),
    by: length('Distance', 'Out of the face; less than zero is inward.'),
    sides: choice(
      'Sides',
      {
        follow: 'sides go on as they slope',
        straight: 'straight out of the face',
        copy: 'leaving its outline behind',
      },
      { about: 'What the neighbouring faces do.', default: 'follow' },
    ),
  },
  {
    title: ({ by, faces: chosen }) =>
      `${chosen.length === 1 ? 'Face' : `${chosen.length} faces`} moved ${valueOf(by) < 0 ? 'in' : 'out'}`,
    number: (step) => ({
      label: 'Distance',
      kind: 'length',
      value: step.by,
      with: (by) => ({ ...step, by }),
    }),
    fault: ({ by }) =>
      valueOf(by) === 0 ? { message: 'A distance of 0 would change nothing.', blank: 'by' } : undefined,
    make: {
      id: 'offset-face',
      name: 'Offset face',
      about: 'Moves faces of a solid out, or in, by a distance; a round face changes its radius.',
      words: ['move face', 'extrude face', 'thicker', 'deeper', 'radius'],
      sentence: 'Offset face {faces} of {part} by {by}[, {sides}]',
    },
  },
);
