import { isLeftOut } from '../../patterns/placed.ts';
import { memberKeys, memberLabel, sameMember } from '../../patterns/members.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { membersNamed } from '../shared/members.ts';
import { lockedRefusal } from '../shared/placing.ts';

/** Leaves single members out of a pattern, or puts them back. */
export const omit = declareVerb({
  id: 'omit',
  name: 'Leave out',
  group: 'repeat',
  about: 'Single members of a pattern are left out, or put back.',
  words: ['omit', 'skip', 'remove member', 'gap', 'put back', 'door'],
  blanks: {
    members: needed(
      'text',
      'members',
      'Which, by number, as in 3, 7 or 2-4; in a grid column x row, as in 2x3.',
    ),
    part: needed('part', 'pattern', 'The pattern.'),
    state: needed('choice', 'state', 'Left out, or back.', {
      default: 'out',
      choices: { out: 'left out', back: 'put back' },
    }),
  },
  sentence: 'Leave out {members} of {part}[, {state}]',
  apply(draft, { part: id, members, state }) {
    const found = membersNamed(draft, id, members);
    if ('refused' in found) return found;
    const locked = lockedRefusal(draft, [id]);
    if (locked) return { ...locked, blank: 'part' };
    const { part, base, keys } = found;
    const wrong = keys.find((key) => isLeftOut(base, key) === (state === 'out'));
    if (wrong)
      return refuse(
        'as-it-is',
        {
          wrong: memberLabel(base.layout, wrong),
          name: part.name,
          words: state === 'out' ? 'left out already' : 'there',
        },
        'members',
      );
    base.omitted =
      state === 'out'
        ? [...base.omitted, ...keys]
        : base.omitted.filter((one) => !keys.some((key) => sameMember(key, one)));
    if (memberKeys(base.layout).every((key) => isLeftOut(base, key)))
      return refuse('nothing-left', { name: part.name }, 'members');
    return { select: [id] };
  },
});
