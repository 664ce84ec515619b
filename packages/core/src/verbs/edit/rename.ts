import { declareVerb, needed, refuse } from '../../statement/declare.ts';

/** Gives a part another name. */
export const rename = declareVerb({
  id: 'rename',
  name: 'Rename',
  group: 'edit',
  key: 'F2',
  about: 'Gives a part another name.',
  words: ['call', 'label', 'title'],
  blanks: { part: needed('part', 'part', 'What is renamed.'), to: needed('name', 'name', 'The new name.') },
  sentence: 'Rename {part} to {to}',
  apply(draft, { part, to }) {
    const taken = Object.values(draft.items).some((item) => item.name === to && item.id !== part);
    if (taken) return refuse('name-taken.part-named-already', { name: to }, 'to');
    draft.items[part]!.name = to;
    return { result: part, select: [part] };
  },
});
