import { vectorOf } from '../../document/items.ts';
import { declareVerb, needed } from '../../statement/declare.ts';
import { lockedRefusal, shiftPart, withoutNested } from '../shared/placing.ts';

/** Small steps by the arrow keys; presses that follow one another are one statement. */
export const nudge = declareVerb({
  id: 'nudge',
  handling: 'nudges',
  name: 'Nudge',
  group: 'place',
  about: 'By the arrow keys, PageUp and PageDown, in steps; with Shift ten times as far, with Ctrl a tenth.',
  words: ['step', 'arrows', 'little', 'bit'],
  blanks: {
    parts: needed('parts', 'parts', 'What is nudged.', { least: 1 }),
    by: needed('vector', 'by', 'The distance along X, Y and Z.', { default: ['0', '0', '0'] }),
  },
  sentence: 'Nudge {parts} by {by}',
  apply(draft, { parts, by }) {
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    for (const id of withoutNested(draft, parts)) shiftPart(draft, draft.items[id]!, vectorOf(by));
    return { select: parts };
  },
});
