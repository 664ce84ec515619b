import { declareVerb, needed, refuse } from '../../statement/declare.ts';

/** Stands for the number in a name. */
const NUMBER = '#';

/** Names several parts after one another. */
export const number = declareVerb({
  id: 'number',
  name: 'Number',
  group: 'edit',
  about: 'Names several parts at once, with a number for each: “Post #” gives Post 1, Post 2, Post 3.',
  words: ['rename', 'names', 'numbering', 'many', 'label', 'count'],
  blanks: {
    parts: needed('parts', 'parts', 'What is named, in this order.', { least: 1 }),
    to: needed('name', 'name', 'The name; # is where the number goes, ## gives it two digits.'),
    from: needed('count', 'from', 'The first number.', { default: '1' }),
  },
  sentence: 'Number {parts} as {to} from {from}',
  apply(draft, { parts, to, from }) {
    if (!Number.isInteger(from) || from < 0) return refuse('count.from', {}, 'from');
    const pattern = to.includes(NUMBER) ? to : `${to} ${NUMBER}`;
    const names = parts.map((_, i) =>
      pattern.replace(/#+/, (digits) => String(from + i).padStart(digits.length, '0')),
    );
    const chosen = new Set(parts);
    const taken = Object.values(draft.items).find(({ id, name }) => !chosen.has(id) && names.includes(name));
    if (taken) return refuse('name-taken.part-named-already', { name: taken.name }, 'to');
    parts.forEach((id, i) => {
      draft.items[id]!.name = names[i]!;
    });
    return { select: parts };
  },
});
