import { recipeFault } from '../declare.ts';
import { declareKind } from '../declare.ts';
import { angle, length } from '../fields.ts';
import { valueOf } from '../numbers.ts';
import { endsOf } from './ends.ts';
import { profilesSchema, regionsSchema } from './regions.ts';

/** Sides that lean further than this (degrees) would be all but level. */
const MAX_DRAFT = 89;

/** Regions pulled along +Z of the first profile's frame, from `down` below its plane to `height` above it. */
export const raise = declareKind(
  'raise',
  {
    profiles: profilesSchema,
    regions: regionsSchema,
    height: length('Height', 'Out of the plane.', { least: 0 }),
    down: length('Below', 'How far a raised part goes below its plane.', { least: 0, rare: true }),
    draft: angle('Draft', 'How far the sides of a raised part lean inward from its plane upward.', {
      rare: true,
    }),
    /** Open: only the sides, along every curve of the profiles. */
    ends: endsOf(),
  },
  {
    words: 'a raised part',
    inAWord: 'raised',
    fault({ height, down, draft, ends }) {
      if (valueOf(height) === 0 && valueOf(down) === 0) return recipeFault('recipe.raise-flat', {}, 'height');
      if (Math.abs(valueOf(draft)) >= MAX_DRAFT)
        return recipeFault('recipe.raise-draft', { max: MAX_DRAFT }, 'draft');
      return ends === 'open' && valueOf(draft) !== 0
        ? recipeFault('recipe.raise-surface', {}, 'ends')
        : undefined;
    },
  },
);
