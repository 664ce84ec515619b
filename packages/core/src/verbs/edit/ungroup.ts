import { below } from '../../document/items.ts';
import { handOver } from '../shared/copying.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { lockedRefusal, withoutNested } from '../shared/placing.ts';
import { detach } from '../shared/leaving.ts';
import { attach, setChildren } from '../shared/tree.ts';

/** Takes groups apart; everything stays where it is. */
export const ungroup = declareVerb({
  id: 'ungroup',
  name: 'Ungroup',
  group: 'edit',
  about: 'Takes a group apart; everything stays where it is.',
  words: ['apart', 'disband', 'separate', 'split group'],
  blanks: { parts: needed('parts', 'groups', 'What is taken apart.', { least: 1 }) },
  sentence: 'Ungroup {parts}',
  apply(draft, { parts }, context) {
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    const freed: string[] = [];
    for (const id of withoutNested(draft, parts)) {
      const group = draft.items[id]!;
      if (group.recipe.base.kind !== 'group') return refuse('no-group', { name: group.name }, 'parts');
      handOver(draft, group, context);
      const parent = group.parent === null ? null : draft.items[group.parent]!;
      const members = below(draft, group);
      for (const [i, member] of members.entries()) {
        attach(draft, member, parent, { before: id });
        // Where the group stood in the tree, its members stand now.
        if (!parent) member.order = group.order + i / (members.length + 1);
        if (!group.visible) member.visible = false;
        freed.push(member.id);
      }
      setChildren(group, []);
      detach({ draft, context }, group);
      delete draft.items[id];
    }
    return { select: freed };
  },
});
