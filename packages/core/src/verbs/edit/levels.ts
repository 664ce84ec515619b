import type { Tier } from '../../recipes/bodies/index.ts';
import { declareVerb, isRefusal, needed } from '../../statement/declare.ts';
import { TIER_COLUMNS, tierOf } from '../make/tiers.ts';
import { baseOf } from '../shared/tables.ts';

/** Other levels for tiers that are there. */
export const levels = declareVerb({
  id: 'levels',
  name: 'Change levels',
  group: 'edit',
  about: 'Gives tiers other levels, from the bottom up.',
  words: ['tiers', 'stack', 'steps', 'edit', 'table'],
  blanks: {
    part: needed('part', 'tiers', 'Which ones.'),
    levels: needed('rows', 'levels', 'All of them, as they are to be.', { columns: TIER_COLUMNS }),
  },
  sentence: 'Change levels of {part} to {levels}',
  apply(draft, { part, levels: rows }) {
    const base = baseOf(draft, part, { kind: 'tiers', words: 'stack of tiers', blank: 'part' });
    if (isRefusal(base)) return base;
    const read = rows.map(tierOf);
    const wrong = read.find(isRefusal);
    if (wrong) return wrong;
    if (base.kind === 'tiers') base.levels = read as Tier[];
    return { select: [part] };
  },
});
