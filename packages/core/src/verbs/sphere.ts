import { declareVerb, needed, optional } from './declare.ts';
import { addPart } from './make.ts';

/** A ball; `at` is its centre. */
export const sphere = declareVerb({
  id: 'sphere',
  name: 'Sphere',
  group: 'make',
  about: 'A ball: type its diameter and where its centre is.',
  words: ['ball', 'globe', 'round', 'marble', 'bowl', 'knob'],
  blanks: {
    diameter: needed('length', 'diameter', 'Across the ball.', { positive: true }),
    at: needed('point', 'centre', 'Its centre.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Sphere of diameter {diameter} round {at}[ named {as}]',
  apply(draft, { diameter, at, as }, context) {
    const id = addPart(draft, context, { name: as ?? 'Sphere', base: { kind: 'sphere', diameter }, at });
    return { result: id, select: [id] };
  },
});
