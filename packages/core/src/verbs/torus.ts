import { valueOf } from '../document/items.ts';
import { declareVerb, needed, optional, refuse } from './declare.ts';
import { addPart } from './make.ts';

/** A ring with a round section, lying flat; `at` is its centre. */
export const torus = declareVerb({
  id: 'torus',
  name: 'Torus',
  group: 'make',
  about: 'A ring with a round section: type the diameter of its middle line and its thickness.',
  words: ['ring', 'doughnut', 'tyre', 'o-ring', 'round'],
  blanks: {
    diameter: needed('length', 'diameter', 'Of the circle in the middle of its material.', {
      positive: true,
    }),
    thickness: needed('length', 'thickness', 'Across its material.', { positive: true }),
    at: needed('point', 'centre', 'Its centre.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Torus of diameter {diameter} and thickness {thickness} round {at}[ named {as}]',
  apply(draft, { diameter, thickness, at, as }, context) {
    if (valueOf(thickness) >= valueOf(diameter))
      return refuse('thickness', 'It would run into itself: make it thinner than its diameter.', 'thickness');
    const id = addPart(draft, context, {
      name: as ?? 'Torus',
      base: { kind: 'torus', diameter, thickness },
      at,
    });
    return { result: id, select: [id] };
  },
});
