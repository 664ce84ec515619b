import { vectorOf } from '../document/items.ts';
import { declareVerb, needed, optional } from './declare.ts';
import { copyPart, shiftPart, withoutNested } from './placing.ts';

/** Independent copies, shifted by a distance. */
export const duplicate = declareVerb({
  id: 'duplicate',
  name: 'Duplicate',
  group: 'repeat',
  key: 'Ctrl+D',
  about: 'An independent copy of each part, a given distance away.',
  words: ['copy', 'clone', 'again', 'same'],
  blanks: {
    parts: needed('parts', 'parts', 'What is copied.', { least: 1 }),
    by: optional('vector', 'by', 'How far the copy stands from its original.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the copy is called.'),
  },
  sentence: 'Duplicate {parts} by {by}[ named {as}]',
  apply(draft, { parts, by, as }, context) {
    const copies = withoutNested(draft, parts).map((id) => {
      const copy = copyPart(draft, id, context);
      const part = draft.items[copy]!;
      part.locked = false;
      if (by) shiftPart(draft, part, vectorOf(by));
      return copy;
    });
    if (as !== undefined && copies.length === 1) draft.items[copies[0]!]!.name = as;
    return { select: copies, ...(copies.length === 1 ? { result: copies[0]! } : {}) };
  },
});
