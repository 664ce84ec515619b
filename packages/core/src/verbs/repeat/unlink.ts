import { makeIndependent } from '../shared/copying.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { lockedRefusal } from '../shared/placing.ts';

/** Gives linked copies recipes of their own. */
export const unlink = declareVerb({
  id: 'unlink',
  name: 'Unlink',
  group: 'repeat',
  about:
    'A linked copy gets a recipe of its own, and no longer follows the others; a kept cut no longer follows the model.',
  words: ['make independent', 'separate', 'unique', 'own', 'break link'],
  blanks: { parts: needed('parts', 'parts', 'Which links, kept cuts or slices.', { least: 1 }) },
  sentence: 'Unlink {parts}',
  apply(draft, { parts }, context) {
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    for (const id of parts) {
      const part = draft.items[id]!;
      const isTraced = part.traced !== undefined;
      delete part.traced;
      if (!isTraced && !makeIndependent(draft, part, context))
        return refuse('not-linked', { name: part.name }, 'parts');
    }
    return { select: parts };
  },
});
