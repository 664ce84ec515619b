import { valueOf } from '../document/items.ts';
import { declareVerb, needed, optional, refuse } from './declare.ts';
import { addPart } from './make.ts';

/** A tube along Z; `at` is the centre of its bottom. */
export const tube = declareVerb({
  id: 'tube',
  name: 'Tube',
  group: 'make',
  about: 'A round solid with a bore through it: type its diameter, its bore and its height.',
  words: ['pipe', 'sleeve', 'bush', 'washer', 'ring', 'hollow'],
  blanks: {
    diameter: needed('length', 'diameter', 'Across the outside.', { positive: true }),
    bore: needed('length', 'bore', 'Across the inside.', { positive: true }),
    height: needed('length', 'height', 'Along Z.', { positive: true }),
    at: needed('point', 'centre', 'The centre of the bottom.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Tube of diameter {diameter}, bore {bore} and height {height} on {at}[ named {as}]',
  apply(draft, { diameter, bore, height, at, as }, context) {
    if (valueOf(bore) >= valueOf(diameter))
      return refuse('bore', 'The bore must be smaller than the diameter.', 'bore');
    const id = addPart(draft, context, {
      name: as ?? 'Tube',
      base: { kind: 'tube', diameter, bore, height },
      at,
    });
    return { result: id, select: [id] };
  },
});
