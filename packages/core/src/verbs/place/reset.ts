import { datumInWorld } from '../../document/datum.ts';
import { worldFromPart } from '../../document/items.ts';
import { transposed } from '../../space/matrix.ts';
import { carry } from '../../space/pose.ts';
import { ORIGIN, subtract } from '../../space/vector.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { lockedRefusal, shiftPart, turnPart, withoutNested } from '../shared/placing.ts';
import { unmade } from '../shared/reshape.ts';

/** Brings the place or the turn back to zero, or the size back to what was made; each by itself, the datum staying put. */
export const reset = declareVerb({
  id: 'reset',
  name: 'Reset',
  group: 'place',
  about: 'The place or the turn back to zero, or the size back to what was made.',
  words: ['zero', 'clear', 'original', 'undo turn', 'upright'],
  blanks: {
    what: needed('choice', 'what', 'What goes back.', {
      default: 'turn',
      choices: { place: 'the place', turn: 'the turn', size: 'the size' },
    }),
    parts: needed('parts', 'parts', 'Of which parts.', { least: 1 }),
  },
  sentence: 'Reset {what} of {parts}',
  apply(draft, { what, parts }, context) {
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    for (const id of withoutNested(draft, parts)) {
      const part = draft.items[id]!;
      const datum = datumInWorld(draft, part, (other) => context.boxOf(other));
      if (!datum) return refuse('no-box.parts', { name: part.name }, 'parts');
      if (what === 'place') shiftPart(draft, part, subtract(ORIGIN, datum));
      else if (what === 'turn')
        turnPart(draft, part, { turn: transposed(worldFromPart(draft, id).turn), about: datum });
      else {
        if (!part.made) return refuse('as-made', { name: part.name }, 'parts');
        const { datumAt } = part.made;
        unmade(draft, part);
        if (datumAt) shiftPart(draft, part, subtract(datum, carry(worldFromPart(draft, id), [...datumAt])));
      }
    }
    return { select: parts };
  },
});
