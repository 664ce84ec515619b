import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { angle, choice, factor } from '../fields.ts';
import { idSchema } from '../ids.ts';
import { finite } from '../numbers.ts';
import { endsOf } from './ends.ts';

export const sweep = declareKind(
  'sweep',
  {
    /** The path, and then the section, whose datum runs along it. */
    profiles: z.tuple([idSchema, idSchema]),
    corners: choice(
      'Corners',
      { square: 'square', round: 'round' },
      { about: 'Of a swept part.', rare: true },
    ),
    /** Where the Y of the section points: out of the plane of the path, or always in one direction of the path's frame. */
    up: z.union([z.literal('plane'), z.tuple([finite, finite, finite])]).optional(),
    twist: angle('Twist', 'Of a swept part, from its start to its end, right-handed.', {
      rare: true,
      absent: 0,
      says: 'twisted {twist}',
    }).optional(),
    scale: factor('End size', 'How many times as large a swept part is at its end.', {
      rare: true,
      absent: 1,
    }).optional(),
    ends: endsOf(),
  },
  { words: 'a swept part', inAWord: 'sweep' },
);
