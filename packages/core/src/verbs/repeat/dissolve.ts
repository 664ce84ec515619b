import type { ItemId } from '../../document/schema.ts';
import { countOf, memberKeys } from '../../patterns/members.ts';
import { isLeftOut } from '../../patterns/placed.ts';
import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { freeMember } from '../shared/freeing.ts';
import { lockedRefusal, withoutNested } from '../shared/placing.ts';
import { remove } from '../shared/leaving.ts';

/** More parts than this at once make a tree that nobody can work with. */
const MAX_PARTS = 2000;

/** A pattern becomes as many parts as it has members. */
export const dissolve = declareVerb({
  id: 'dissolve',
  name: 'Dissolve',
  group: 'repeat',
  about: 'A pattern becomes parts of their own, one for each member, where they stand.',
  words: ['explode', 'break up', 'separate', 'expand', 'into parts'],
  blanks: { parts: needed('parts', 'patterns', 'What is dissolved.', { least: 1 }) },
  sentence: 'Dissolve {parts}',
  apply(draft, { parts }, context) {
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    const made: ItemId[] = [];
    // A pattern within another one becomes parts of the copies, as patterns.
    for (const id of withoutNested(draft, parts)) {
      const part = draft.items[id]!;
      const { base } = part.recipe;
      if (base.kind !== 'pattern') return refuse('no-pattern', { name: part.name }, 'parts');
      if (countOf(base.layout) > MAX_PARTS)
        return refuse(
          'too-many.parts',
          { name: part.name, layout: countOf(base.layout), maxParts: MAX_PARTS },
          'parts',
        );
      for (const key of memberKeys(base.layout)) {
        if (isLeftOut(base, key)) continue;
        const freed = freeMember({ draft, context }, { pattern: part, base }, key);
        if ('refused' in freed) return freed;
        made.push(...freed);
      }
      remove(draft, part, context);
    }
    return { select: made };
  },
});
