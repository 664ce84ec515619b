import { valueOf } from '../document/items.ts';
import { declareVerb, needed, optional, refuse } from './declare.ts';
import { addPart } from './make.ts';

/** A ball cut flat below; `at` is the centre of its flat face. */
export const cap = declareVerb({
  id: 'cap',
  name: 'Cap',
  group: 'make',
  about: 'A ball cut flat below: half of it, or as much as the height says.',
  words: ['dome', 'half sphere', 'hemisphere', 'ball', 'segment', 'button'],
  blanks: {
    diameter: needed('length', 'diameter', 'Of the whole ball.', { positive: true }),
    height: optional('length', 'height', 'Above the flat face; without one it is half the ball.', {
      positive: true,
    }),
    at: needed('point', 'centre', 'The centre of the flat face.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Cap of a ball of {diameter}[, {height} high,] on {at}[ named {as}]',
  apply(draft, { diameter, height, at, as }, context) {
    const high = height ?? valueOf(diameter) / 2;
    if (valueOf(high) >= valueOf(diameter))
      return refuse('height', 'A cap is lower than the whole ball.', 'height');
    const id = addPart(draft, context, {
      name: as ?? 'Cap',
      base: { kind: 'cap', diameter, height: high },
      at,
    });
    return { result: id, select: [id] };
  },
});
