import type { Tier } from '../../recipes/bodies/index.ts';
import { valueOf } from '../../document/items.ts';
import type { Num } from '../../document/schema.ts';
import { declareVerb, needed, optional, refuse, type Refusal, type Row } from '../../statement/declare.ts';
import { addPart } from '../shared/addPart.ts';

const OUTLINES = { round: 'round', square: 'square', polygon: 'polygon' } as const;
const FLANKS = { slope: 'slope', step: 'step', curve: 'curve' } as const;

export const TIER_COLUMNS = {
  below: { label: 'Width below', kind: 'length', needed: true },
  above: { label: 'Width above', kind: 'length' },
  height: { label: 'Height', kind: 'length', needed: true },
  outline: { label: 'Outline', kind: 'choice', choices: OUTLINES, default: 'round' },
  flank: { label: 'To the next', kind: 'choice', choices: FLANKS, default: 'slope' },
  sides: { label: 'Sides', kind: 'count', default: '6' },
} as const;

/** A solid stacked from levels; `at` is the centre of its bottom. */
export const tiers = declareVerb({
  id: 'tiers',
  name: 'Tiers',
  group: 'make',
  about: 'A solid stacked from levels: for each an outline, its widths below and above, and its height.',
  words: ['stack', 'levels', 'steps', 'tower', 'column', 'plinth', 'baluster', 'chess'],
  blanks: {
    levels: needed('rows', 'levels', 'From the bottom up; without a width above, it is as below.', {
      columns: TIER_COLUMNS,
    }),
    at: needed('point', 'centre', 'The centre of the bottom.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Tiers of {levels} on {at}[ named {as}]',
  gesture: {
    steps: [
      [{ reads: 'place', into: 'at' }],
      [{ reads: 'row', into: 'levels', column: 'below' }],
      [{ reads: 'row', into: 'levels', column: 'height' }],
    ],
    repeatsFrom: 1,
  },
  apply(draft, { levels, at, as }, context) {
    const read = levels.map(tierOf);
    const fault = read.find((one): one is Refusal => 'refused' in one);
    if (fault) return fault;
    const id = addPart(draft, context, {
      name: as ?? 'Tiers',
      base: { kind: 'tiers', levels: read as Tier[] },
      at,
    });
    return { result: id, select: [id] };
  },
});

export function tierOf(row: Row, index: number): Tier | Refusal {
  const below = row.below as Num;
  const above = (row.above as Num | undefined) ?? below;
  const height = row.height as Num;
  const sides = valueOf(row.sides as Num);
  if (!(valueOf(below) > 0 && valueOf(height) > 0 && valueOf(above) >= 0))
    return refuse('size.levels', { index: index + 1 }, 'levels');
  if (!Number.isInteger(sides) || sides < 3 || sides > 100)
    return refuse('count.levels', { index: index + 1 }, 'levels');
  return {
    outline: row.outline as Tier['outline'],
    flank: row.flank as Tier['flank'],
    sides,
    below,
    above,
    height,
  };
}
