import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { choice, length } from '../fields.ts';
import { idSchema } from '../ids.ts';

const openingSchema = z.strictObject({
  /** Which leg, counted from 1. */
  leg: z.number().int().min(1),
  from: length('From', 'Along the leg from its start.'),
  sill: length('Sill', 'Above the foot of the wall.'),
  width: length('Width', '', { above: 0 }),
  height: length('Height', '', { above: 0 }),
});
export type Opening = z.infer<typeof openingSchema>;

export const wall = declareKind(
  'wall',
  {
    profiles: z.tuple([idSchema]),
    thickness: length('Thickness', 'Across its material.', { above: 0 }),
    height: length('Height', 'Along the Z of its profile.', { above: 0 }),
    /** Seen along the legs; outside and inside are for closed outlines. */
    side: choice(
      'Side',
      { left: 'left', right: 'right', centred: 'centred', outside: 'outside', inside: 'inside' },
      { about: 'Where a wall stands.', rare: true },
    ),
    openings: z.array(openingSchema),
  },
  { words: 'a wall' },
);
