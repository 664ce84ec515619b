import { vectorOf } from '../../document/items.ts';
import { declareVerb, needed, optional } from '../../statement/declare.ts';
import { copyPart, linkPart } from '../shared/copying.ts';
import { shiftPart, withoutNested } from '../shared/placing.ts';

/** Copies, shifted by a distance: independent ones, or ones that share the recipe. */
export const duplicate = declareVerb({
  id: 'duplicate',
  name: 'Duplicate',
  group: 'repeat',
  key: 'Ctrl+D',
  about: 'A copy of each part, a given distance away; independent, or linked.',
  words: ['copy', 'clone', 'again', 'same', 'instance', 'linked'],
  blanks: {
    parts: needed('parts', 'parts', 'What is copied.', { least: 1 }),
    kind: needed('choice', 'copies', 'Whether the copies follow the original.', {
      default: 'independent',
      choices: { independent: 'independent', linked: 'linked: a change to one changes all' },
    }),
    by: optional('vector', 'by', 'How far the copy stands from its original.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the copy is called.'),
  },
  sentence: 'Duplicate {parts} by {by}[, {kind}][ named {as}]',
  apply(draft, { parts, kind, by, as }, context) {
    const copies = withoutNested(draft, parts).map((id) => {
      const copy = kind === 'linked' ? linkPart(draft, id, context) : copyPart(draft, id, context);
      const part = draft.items[copy]!;
      part.locked = false;
      if (by) shiftPart(draft, part, vectorOf(by));
      return copy;
    });
    if (as !== undefined && copies.length === 1) draft.items[copies[0]!]!.name = as;
    const step = by ? ({ step: { kind: 'along', by: vectorOf(by) } } as const) : {};
    return { select: copies, ...step, ...(copies.length === 1 ? { result: copies[0]! } : {}) };
  },
});
