import { pinsOf } from '../../document/items.ts';
import { declareVerb, needed, optional } from '../../statement/declare.ts';

/** Places a named point, to snap to, to turn about, or to move things onto. A pin of that name is moved. */
export const pin = declareVerb({
  id: 'pin',
  name: 'Pin',
  group: 'make',
  key: 'P',
  about: 'A named point, to snap to, to turn about, or to move things onto.',
  words: ['point', 'marker', 'reference', 'hinge', 'pivot'],
  blanks: {
    at: needed('point', 'place', 'Where it stands: picked with any snap, or typed.'),
    as: optional('name', 'name', 'What it is called; a pin of this name is moved.', { replaces: true }),
  },
  sentence: 'Pin at {at}[ named {as}]',
  apply(draft, { at, as }, context) {
    const pins = pinsOf(draft);
    const known = pins.find(({ name }) => name === as);
    if (known) draft.pins[known.id]!.at = at;
    else {
      const id = context.newId();
      const taken = new Set(pins.map(({ name }) => name));
      let name = as ?? 'Pin';
      for (let n = 2; taken.has(name); n++) name = `${as ?? 'Pin'} ${n}`;
      draft.pins[id] = { id, name, order: (pins.at(-1)?.order ?? 0) + 1, at };
    }
    return {};
  },
});
