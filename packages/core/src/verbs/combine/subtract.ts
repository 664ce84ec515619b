import { declareVerb, needed, optional } from '../../statement/declare.ts';
import { combine } from '../shared/combine.ts';

/** One part less others. */
export const subtract = declareVerb({
  id: 'subtract',
  name: 'Subtract',
  group: 'combine',
  key: 'X',
  about: 'Takes parts out of one part; all stay editable below it, and a second time adds to the first.',
  words: ['cut', 'difference', 'drill', 'hole', 'remove', 'minus', 'take out'],
  blanks: {
    from: needed('part', 'from', 'What is cut.'),
    parts: needed('parts', 'parts', 'What is taken out.', { least: 1 }),
    as: optional('name', 'name', 'What the result is called.'),
  },
  sentence: 'Subtract {parts} from {from}[ named {as}]',
  apply: (draft, { from, parts, as }, context) =>
    combine(draft, { how: 'subtract', base: from, others: parts, as }, context),
});
