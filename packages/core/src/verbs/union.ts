import { declareVerb, needed, optional } from './declare.ts';
import { combine } from './combine.ts';

/** Parts become one solid. */
export const union = declareVerb({
  id: 'union',
  name: 'Union',
  group: 'combine',
  key: 'U',
  about: 'Parts become one solid; each stays editable below it.',
  words: ['join', 'merge', 'add', 'fuse', 'together', 'weld'],
  blanks: {
    parts: needed('parts', 'parts', 'What is joined; the first gives the name.', { least: 2 }),
    as: optional('name', 'name', 'What the result is called.'),
  },
  sentence: 'Union of {parts}[ named {as}]',
  apply: (draft, { parts: [base, ...others], as }, context) =>
    combine(draft, { how: 'union', base: base!, others, as }, context),
});
