import { valueOf } from '../document/items.ts';
import { declareVerb, needed, optional, refuse } from './declare.ts';
import { addPart } from './make.ts';

/** A box whose top is shorter along X; `at` is its least corner. */
export const wedge = declareVerb({
  id: 'wedge',
  name: 'Wedge',
  group: 'make',
  about: 'A box whose top is shorter, down to an edge: a ramp, a roof, a trapezium.',
  words: ['ramp', 'roof', 'slope', 'trapezium', 'chock', 'triangle'],
  blanks: {
    size: needed('vector', 'size', 'Length, width and height along X, Y and Z.', { positive: true }),
    top: needed('length', 'top', 'Length of the top along X; 0 is an edge.', { default: '0' }),
    lean: needed('choice', 'top at', 'Where the top lies.', {
      default: 'left',
      choices: { left: 'over the left end', middle: 'over the middle' },
    }),
    at: needed('point', 'corner', 'The least corner: left, front, bottom.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Wedge {size}, top {top}[ {lean}], with its corner at {at}[ named {as}]',
  apply(draft, { size, top, lean, at, as }, context) {
    if (valueOf(top) < 0 || valueOf(top) > valueOf(size[0]))
      return refuse('top', 'The top is from 0 to the length of the bottom.', 'top');
    const id = addPart(draft, context, {
      name: as ?? 'Wedge',
      base: { kind: 'wedge', size, top, lean: lean === 'middle' ? 'middle' : 'left' },
      at,
    });
    return { result: id, select: [id] };
  },
});
