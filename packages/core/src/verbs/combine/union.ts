import { isWhole } from '../../document/items.ts';
import { declareVerb, needed, optional, refuse } from '../../statement/declare.ts';
import { combine } from '../shared/combine.ts';

/** Parts become one solid. */
export const union = declareVerb({
  id: 'union',
  name: 'Union',
  group: 'combine',
  key: 'U',
  about: 'Parts become one solid; each stays editable below it.',
  words: ['join', 'merge', 'add', 'fuse', 'together', 'weld'],
  blanks: {
    parts: needed(
      'parts',
      'parts',
      'What is joined; the first gives the name. One pattern or group will do.',
      {
        least: 1,
      },
    ),
    as: optional('name', 'name', 'What the result is called.'),
  },
  sentence: 'Union of {parts}[ named {as}]',
  apply(draft, { parts: [base, ...others], as }, context) {
    if (others.length === 0 && !isWhole(draft, draft.items[base!]!))
      return refuse('too-few.parts-pattern', {}, 'parts');
    return combine(draft, { how: 'union', base: base!, others, as }, context);
  },
});
