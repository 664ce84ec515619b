import { valueOf } from '../document/items.ts';
import { declareVerb, needed, optional, refuse } from './declare.ts';
import { addPart } from './make.ts';

/** A cone, or a frustum, along Z; `at` is the centre of its bottom. */
export const cone = declareVerb({
  id: 'cone',
  name: 'Cone',
  group: 'make',
  about: 'A cone, or with a width at its top a frustum: type its widths and its height.',
  words: ['frustum', 'taper', 'funnel', 'point', 'countersink', 'spike'],
  blanks: {
    diameter: needed('length', 'diameter', 'Across the bottom.', { positive: true }),
    top: needed('length', 'top', 'Across the top; 0 is a point.', { default: '0' }),
    height: needed('length', 'height', 'Along Z.', { positive: true }),
    at: needed('point', 'centre', 'The centre of the bottom.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Cone of diameter {diameter}, {top} at its top, and height {height} on {at}[ named {as}]',
  apply(draft, { diameter, top, height, at, as }, context) {
    if (valueOf(top) < 0) return refuse('negative', 'The top is 0 or more.', 'top');
    const id = addPart(draft, context, {
      name: as ?? 'Cone',
      base: { kind: 'cone', diameter, top, height },
      at,
    });
    return { result: id, select: [id] };
  },
});
