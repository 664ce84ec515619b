import type { Opening } from '../../recipes/bodies/index.ts';
import { declareVerb, isRefusal, needed, optional } from '../../statement/declare.ts';
import { OPENING_COLUMNS, openingOf } from '../draw/wall.ts';
import { baseOf } from '../shared/tables.ts';

/** Other doors and windows for a wall that stands. */
export const openings = declareVerb({
  id: 'openings',
  name: 'Change openings',
  group: 'edit',
  about: 'Gives a wall other openings: the leg, how far from its start, the sill and the sizes.',
  words: ['wall', 'door', 'window', 'hole', 'edit', 'table'],
  blanks: {
    wall: needed('part', 'wall', 'Which one.'),
    openings: optional('rows', 'openings', 'All of them, as they are to be; none closes the wall.', {
      columns: OPENING_COLUMNS,
    }),
  },
  sentence: 'Change openings of {wall}[ to {openings}]',
  apply(draft, { wall, openings: rows }) {
    const base = baseOf(draft, wall, { kind: 'wall', words: 'wall', blank: 'wall' });
    if (isRefusal(base)) return base;
    const read = (rows ?? []).map(openingOf);
    const wrong = read.find(isRefusal);
    if (wrong) return wrong;
    if (base.kind === 'wall') base.openings = read as Opening[];
    return { select: [wall] };
  },
});
