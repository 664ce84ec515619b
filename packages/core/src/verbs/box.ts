import { declareVerb, needed, optional } from './declare.ts';
import { addPart } from './make.ts';

/** A rectangular solid; `at` is its minimum corner. */
export const box = declareVerb({
  id: 'box',
  name: 'Box',
  group: 'make',
  key: 'B',
  about: 'A rectangular solid: drag two corners and pull up the height, or type the sizes.',
  words: ['block', 'cuboid', 'plate', 'board', 'slab', 'cube'],
  blanks: {
    size: needed('vector', 'size', 'Length, width and height along X, Y and Z.', { positive: true }),
    at: needed('point', 'corner', 'The least corner: left, front, bottom.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Box {size} with its corner at {at}[ named {as}]',
  apply(draft, { size, at, as }, context) {
    const id = addPart(draft, context, { name: as ?? 'Box', base: { kind: 'box', size }, at });
    return { result: id, select: [id] };
  },
});
