import { freeName, isStanding, lineage } from '../../document/items.ts';
import { wrapParts } from '../shared/combine.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { lockedRefusal, withoutNested } from '../shared/placing.ts';

/** Parts that stand together: they move, turn and resize as one, and stay what they are. */
export const group = declareVerb({
  id: 'group',
  name: 'Group',
  group: 'edit',
  key: 'G',
  about: 'Parts move, turn and resize as one, and stay what they are; groups may hold groups.',
  words: ['together', 'assembly', 'bundle', 'set', 'collect', 'folder'],
  blanks: {
    parts: needed('parts', 'parts', 'What belongs together.', { least: 1 }),
    as: optional('name', 'name', 'What the group is called.'),
  },
  sentence: 'Group {parts}[ named {as}]',
  apply(draft, { parts, as }, context) {
    const chosen = withoutNested(draft, parts);
    const locked = lockedRefusal(draft, chosen);
    if (locked) return locked;
    const inside = chosen.find((id) => !isStanding(draft, id));
    if (inside !== undefined) {
      const owner = draft.items[lineage(draft, inside).at(-2)!]!;
      return refuse('operand.parts', { name: draft.items[inside]!.name, owner: owner.name }, 'parts');
    }
    const name = as ?? freeName(draft, 'Group');
    const made = wrapParts({ draft, context }, chosen, { name, base: { kind: 'group', members: [] } });
    return { result: made, select: [made] };
  },
});
