import { declareVerb, needed } from '../../statement/declare.ts';

/** Puts parts out of sight. */
export const hide = declareVerb({
  id: 'hide',
  name: 'Hide',
  group: 'edit',
  key: 'H',
  about: 'Puts parts out of sight; they stay in the tree.',
  words: ['invisible', 'out of sight', 'conceal'],
  blanks: { parts: needed('parts', 'parts', 'What is hidden.', { least: 1 }) },
  sentence: 'Hide {parts}',
  apply(draft, { parts }) {
    for (const id of parts) draft.items[id]!.visible = false;
    return { select: [] };
  },
});
