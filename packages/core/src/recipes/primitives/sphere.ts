import { byRim } from '../../gestures/gesture.ts';
import { valueOf } from '../numbers.ts';
import { declareKind } from '../declare.ts';
import { ROUND_ITS_CENTRE, diameterOf } from './shared.ts';

/** Own frame: the centre at the origin. */
export const sphere = declareKind(
  'sphere',
  { diameter: diameterOf('Across the ball.') },
  {
    words: 'a ball',
    stretched: 'an ellipsoid',
    inAWord: 'ball',
    box({ diameter }) {
      const radius = valueOf(diameter) / 2;
      return { min: [-radius, -radius, -radius], max: [radius, radius, radius] };
    },
    make: {
      name: 'Sphere',
      about: 'A ball: type its diameter and where its centre is.',
      words: ['ball', 'globe', 'round', 'marble', 'bowl', 'knob'],
      at: ROUND_ITS_CENTRE,
      gesture: byRim(),
      sentence: 'Sphere of diameter {diameter} round {at}[ named {as}]',
    },
  },
);
