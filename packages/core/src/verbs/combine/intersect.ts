import { declareVerb, needed, optional } from '../../statement/declare.ts';
import { combine } from '../shared/combine.ts';

/** What several parts have in common. */
export const intersect = declareVerb({
  id: 'intersect',
  name: 'Intersect',
  group: 'combine',
  key: 'I',
  about: 'Keeps only what the parts have in common; each stays editable below it.',
  words: ['common', 'overlap', 'shared'],
  blanks: {
    parts: needed('parts', 'parts', 'What is intersected; the first gives the name.', { least: 2 }),
    as: optional('name', 'name', 'What the result is called.'),
  },
  sentence: 'Intersect {parts}[ named {as}]',
  apply: (draft, { parts: [base, ...others], as }, context) =>
    combine(draft, { how: 'intersect', base: base!, others, as }, context),
});
