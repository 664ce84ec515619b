import { recipeFault } from '../declare.ts';
import { choice, faces, length } from '../fields.ts';
import { pointSchema, valueOf } from '../numbers.ts';
import { declareStep } from './declare.ts';

/** Faces move out of themselves, or in, and leave the others where they are. */
export const push = declareStep(
  'push',
  {
    faces: faces('Faces', 'Flat and round faces that move.'),
    by: length('Distance', 'Out of the face; less than zero is inward.'),
    /** A point of the part's own frame that the face goes to; the distance is then from there. mm. */
    to: pointSchema.optional(),
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
    title({ by, to, faces: chosen }) {
      const what = chosen.length === 1 ? 'Face' : `${chosen.length} faces`;
      return `${what} moved ${to ? 'to a point' : valueOf(by) < 0 ? 'in' : 'out'}`;
    },
    number: (step) => ({
      label: 'Distance',
      kind: 'length',
      value: step.by,
      with: (by) => ({ ...step, by }),
    }),
    fault: ({ by, to }) =>
      valueOf(by) === 0 && !to ? recipeFault('recipe.distance-0', {}, 'by') : undefined,
  },
);
