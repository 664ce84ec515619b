import { recipeFault } from '../declare.ts';
import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { angle, choice, length } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { endsOf } from './ends.ts';
import { profilesSchema, regionsSchema } from './regions.ts';

export const revolve = declareKind(
  'revolve',
  {
    profiles: profilesSchema,
    regions: regionsSchema,
    axis: z.strictObject({
      point: z.tuple([length('Axis X'), length('Axis Y')]),
      /** From X towards Y. */
      angle: angle('Axis angle'),
    }),
    angle: angle('Angle', 'How far round a turned part goes.', { rare: true }),
    half: choice(
      'Half',
      { whole: 'all', left: 'left', right: 'right' },
      { about: 'Which side of the axis is turned.', rare: true },
    ),
    ends: endsOf(),
  },
  {
    words: 'a turned part',
    inAWord: 'turned',
    fault({ angle: around }) {
      const by = Math.abs(valueOf(around));
      return by > 0 && by <= 360 ? undefined : recipeFault('recipe.revolve-angle', {}, 'angle');
    },
  },
);
