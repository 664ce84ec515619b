import { recipeFault } from '../declare.ts';
import { declareKind } from '../declare.ts';
import { angle, length } from '../fields.ts';
import { valueOf } from '../numbers.ts';

/** Its centre at the own origin. */
export const arc = declareKind(
  'arc',
  {
    radius: length('Radius', 'From its centre.', { above: 0 }),
    first: angle('From', 'Where it begins, from X towards Y.', { rare: true }),
    sweep: angle('Sweep', 'How far it goes, positive from X towards Y.', { rare: true }),
  },
  {
    words: 'an arc',
    inAWord: 'arc',
    fault({ sweep }) {
      const by = Math.abs(valueOf(sweep));
      return by > 0 && by <= 360 ? undefined : recipeFault('figure.arc-sweep', {}, 'sweep');
    },
  },
);
