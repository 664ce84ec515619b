import { recipeFault } from '../declare.ts';
import { byRim } from '../../gestures/gesture.ts';
import { valueOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { length } from '../fields.ts';
import { ROUND_ITS_CENTRE, diameterOf } from './shared.ts';

/** Own frame: the centre at the origin, the axis along Z. */
export const torus = declareKind(
  'torus',
  {
    diameter: diameterOf('Of the circle in the middle of its material.'),
    thickness: length('Thickness', 'Across its material.', { above: 0, rare: true }),
  },
  {
    words: 'a torus',
    stretched: 'a stretched torus',
    box({ diameter, thickness }) {
      const deep = valueOf(thickness) / 2;
      const wide = valueOf(diameter) / 2 + deep;
      return { min: [-wide, -wide, -deep], max: [wide, wide, deep] };
    },
    fault: ({ diameter, thickness }) =>
      valueOf(thickness) < valueOf(diameter) ? undefined : recipeFault('recipe.torus-thick', {}, 'thickness'),
    make: {
      name: 'Torus',
      about: 'A ring with a round section: type the diameter of its middle line and its thickness.',
      words: ['ring', 'doughnut', 'tyre', 'o-ring', 'round'],
      at: ROUND_ITS_CENTRE,
      gesture: byRim([{ reads: 'thickness', into: 'thickness', from: 'diameter' }]),
      sentence: 'Torus of diameter {diameter} and thickness {thickness} round {at}[ named {as}]',
    },
  },
);
