import { loftWays } from '../../recipes/bodies/index.ts';
import { definitionOf, valueOf } from '../../document/items.ts';
import { declareVerb, isRefusal, needed, refuse } from '../../statement/declare.ts';
import { readOne } from '../../statement/reading.ts';

/** Where the sides of a loft begin on one of its sections. */
export const start = declareVerb({
  id: 'start',
  name: 'Set start',
  group: 'edit',
  about: 'Moves the point of a section from which a loft is matched to the next one, along its outline.',
  words: ['loft', 'twist', 'seam', 'match'],
  blanks: {
    part: needed('part', 'part', 'A loft.'),
    section: needed('count', 'section', 'Which one, counted from 1.', { default: '1' }),
    by: needed('quantity', 'by', 'Along the outline, from the matched point.', { kind: 'length' }),
  },
  sentence: 'Set start of section {section} of {part} to {by} along its outline',
  apply(draft, { part, section, by }, context) {
    const item = draft.items[part]!;
    const { base } = definitionOf(draft, item).recipe;
    if (base.kind !== 'loft') return refuse('no-loft', { name: item.name }, 'part');
    if (item.locked) return refuse('locked', { name: item.name }, 'part');
    const { starts } = loftWays(base);
    const count = starts.length;
    if (!(Number.isInteger(section) && section >= 1 && section <= count))
      return refuse('no-section', { name: item.name, count }, 'section');
    const read = readOne(by, { kind: 'length', now: valueOf(starts[section - 1]!), context, blank: 'by' });
    if (isRefusal(read)) return read;
    starts[section - 1] = read;
    base.starts = starts;
    return { select: [part] };
  },
});
