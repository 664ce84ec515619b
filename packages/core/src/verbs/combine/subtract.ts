import { valueOf } from '../../document/items.ts';
import type { ItemId, KadrelDocument, Num } from '../../document/schema.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { makeIndependent } from '../shared/copying.ts';
import { combine } from '../shared/combine.ts';
import { solidToShape } from '../shared/shapingVerb.ts';

/** One part less others. */
export const subtract = declareVerb({
  id: 'subtract',
  name: 'Subtract',
  group: 'combine',
  key: 'X',
  about: 'Takes parts out of one part; all stay editable below it, and a second time adds to the first.',
  words: ['cut', 'difference', 'drill', 'hole', 'remove', 'minus', 'take out'],
  blanks: {
    from: needed('part', 'from', 'What is cut.'),
    parts: needed('parts', 'parts', 'What is taken out.', { least: 1 }),
    clearance: optional('length', 'clearance', 'Left all round what is taken out.', { rare: true }),
    as: optional('name', 'name', 'What the result is called.'),
  },
  sentence: 'Subtract {parts} from {from}[ with {clearance} all round][ named {as}]',
  apply(draft, { from, parts, clearance, as }, context) {
    const refusal = clearance === undefined ? undefined : keepClear(draft, { parts, clearance }, context);
    return refusal ?? combine(draft, { how: 'subtract', base: from, others: parts, as }, context);
  },
});

interface Clearing {
  readonly parts: readonly ItemId[];
  readonly clearance: Num;
}

/** What is taken out grows by a clearance, as a step that can be changed. */
function keepClear(
  draft: KadrelDocument,
  { parts, clearance }: Clearing,
  context: VerbContext,
): Refusal | undefined {
  if (!(valueOf(clearance) > 0)) return refuse('not-positive.clearance', {}, 'clearance');
  for (const id of parts) {
    const shared = solidToShape(draft, id);
    if (isRefusal(shared)) return { ...shared, blank: 'parts' };
    // What shares its recipe with others does not make them grow.
    makeIndependent(draft, draft.items[id]!, context);
    const solid = draft.items[id]!;
    solid.recipe.steps.push({ kind: 'offset', by: clearance, corners: 'round' });
  }
  return undefined;
}
