import { definitionOf } from '../../document/items.ts';
import { declareVerb, isRefusal, needed, optional, refuse, refuseFor } from '../../statement/declare.ts';
import { figureFault } from '../shared/drawing.ts';
import { CLOSING_WORDS } from '../shared/legs.ts';
import { type Closing, readLegs, legsBlank } from '../shared/traverses.ts';

/** Other legs for a traverse that is there; what is made from it follows. */
export const relay = declareVerb({
  id: 'relay',
  name: 'Change legs',
  group: 'edit',
  about: 'Gives a traverse other legs or another end; what is made from it follows.',
  words: ['traverse', 'legs', 'edit', 'close', 'spread', 'outline'],
  blanks: {
    profile: needed('part', 'traverse', 'Which one.'),
    legs: optional('rows', 'legs', 'All of them, as they are to be.', legsBlank),
    closing: optional('choice', 'end', 'How it comes back to its start.', { choices: CLOSING_WORDS }),
  },
  sentence: 'Change legs of {profile}[ to {legs}][, {closing}]',
  apply(draft, { profile, legs: rows, closing }, context) {
    const item = draft.items[profile]!;
    const { base } = definitionOf(draft, item).recipe;
    if (base.kind !== 'profile' || base.figure.kind !== 'traverse')
      return refuse('no-traverse', { name: item.name }, 'profile');
    if (item.locked) return refuse('locked', { name: item.name }, 'profile');
    if (rows) {
      const legs = readLegs(rows, context);
      if (isRefusal(legs)) return legs;
      base.figure.legs = legs;
    }
    if (closing) base.figure.closing = closing as Closing;
    const fault = figureFault(base.figure);
    return fault ? refuseFor(fault, fault.blank) : { select: [profile] };
  },
});
