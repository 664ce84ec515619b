import { recipeFault } from '../declare.ts';
import { z } from 'zod';
import { declareKind } from '../declare.ts';
import { choice, flag, length } from '../fields.ts';
import { idSchema } from '../ids.ts';
import { endsOf } from './ends.ts';

/** Sections in their places; what they enclose is filled, and what inner outlines enclose is left hollow. */
export const loft = declareKind(
  'loft',
  {
    /** The sections, and after them the guides. */
    profiles: z.array(idSchema).min(2),
    /** How many of the profiles, the last ones, are curves that the sides run along. */
    guides: z.number().int().min(0).optional(),
    flanks: choice(
      'Flanks',
      { smooth: 'smooth', ruled: 'straight' },
      { about: 'How a loft goes from section to section.', rare: true },
    ),
    /** From the last section back to the first. */
    closed: flag(
      'Round',
      { no: 'ends at the last', yes: 'back to the first' },
      {
        about: 'Whether a loft comes back to its first section.',
        rare: true,
        absent: false,
        says: 'back to the start {closed}',
      },
    ).optional(),
    /** For each section how far its start is moved along its outline from the matched one, mm. */
    starts: z.array(length('Start')).optional(),
    ends: endsOf(),
  },
  {
    words: 'a loft',
    fault({ profiles, guides = 0, closed = false }) {
      if (closed && profiles.length - guides < 3) return recipeFault('recipe.loft-closed', {}, 'closed');
      return closed && guides > 0 ? recipeFault('recipe.loft-guides', {}, 'closed') : undefined;
    },
  },
);
