import { isLeftOut } from '../../patterns/placed.ts';
import type { ItemId } from '../../document/schema.ts';
import { memberLabel } from '../../patterns/members.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { freeMember } from '../shared/freeing.ts';
import { membersNamed } from '../shared/members.ts';
import { lockedRefusal } from '../shared/placing.ts';

/** Makes single members of a pattern parts of their own, where they stand. */
export const free = declareVerb({
  id: 'free',
  name: 'Free',
  group: 'repeat',
  about: 'Single members of a pattern become parts of their own, where they stand.',
  words: ['take out', 'separate', 'detach', 'explode', 'member', 'own part'],
  blanks: {
    members: needed('text', 'members', 'Which, by number, as in 3, 7; in a grid column x row, as in 2x3.'),
    part: needed('part', 'pattern', 'The pattern.'),
  },
  sentence: 'Free {members} of {part}',
  apply(draft, { part: id, members }, context) {
    const found = membersNamed(draft, id, members);
    if ('refused' in found) return found;
    const locked = lockedRefusal(draft, [id]);
    if (locked) return { ...locked, blank: 'part' };
    const { part, base, keys } = found;
    const out = keys.find((key) => isLeftOut(base, key));
    if (out) return refuse('left-out', { out: memberLabel(base.layout, out), name: part.name }, 'members');
    const made: ItemId[] = [];
    for (const key of keys) {
      const parts = freeMember({ draft, context }, { pattern: part, base }, key);
      if ('refused' in parts) return parts;
      made.push(...parts);
      base.omitted = [...base.omitted, key];
    }
    return { select: made, ...(made.length === 1 ? { result: made[0]! } : {}) };
  },
});
