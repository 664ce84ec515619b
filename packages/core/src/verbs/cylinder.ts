import { valueOf } from '../document/items.ts';
import { declareVerb, needed, optional, refuse } from './declare.ts';
import { addPart } from './make.ts';

/** A round solid along Z; `at` is the centre of its bottom. */
export const cylinder = declareVerb({
  id: 'cylinder',
  name: 'Cylinder',
  group: 'make',
  key: 'C',
  about:
    'A round solid: drag from the centre to the rim and pull up the height, or type diameter and height.',
  words: ['round', 'rod', 'disc', 'drill', 'peg', 'post', 'hole', 'tube'],
  blanks: {
    diameter: optional('length', 'diameter', 'Across the circle.', { positive: true, excludes: 'radius' }),
    radius: optional('length', 'radius', 'Half the diameter; give one of the two.', {
      positive: true,
      excludes: 'diameter',
    }),
    height: needed('length', 'height', 'Along Z.', { positive: true }),
    at: needed('point', 'centre', 'The centre of the bottom.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Cylinder[ of diameter {diameter}][ of radius {radius}] and height {height} on {at}[ named {as}]',
  apply(draft, { diameter, radius, height, at, as }, context) {
    if (diameter !== undefined && radius !== undefined)
      return refuse('both', 'Give the diameter or the radius, not both.', 'radius');
    if (diameter === undefined && radius === undefined)
      return refuse('missing', 'Give a diameter or a radius.', 'diameter');
    const across = diameter ?? doubled(radius!);
    const id = addPart(draft, context, {
      name: as ?? 'Cylinder',
      base: { kind: 'cylinder', diameter: across, height },
      at,
    });
    return { result: id, select: [id] };
  },
});

const doubled = (radius: number | { formula: string; value: number }) =>
  typeof radius === 'number'
    ? radius * 2
    : { formula: `2 * (${radius.formula})`, value: valueOf(radius) * 2 };
