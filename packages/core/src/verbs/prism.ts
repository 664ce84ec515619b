import { declareVerb, needed, optional, refuse } from './declare.ts';
import { addPart } from './make.ts';

export const ACROSS = {
  corners: 'across its corners',
  flats: 'across its flats',
  side: 'along each side',
} as const;
/** More sides than this look round, and are better a cylinder. */
const MOST_SIDES = 1000;

export const isSides = (sides: number): boolean =>
  Number.isInteger(sides) && sides >= 3 && sides <= MOST_SIDES;

/** A regular prism along Z, a side facing the front; `at` is the centre of its bottom. */
export const prism = declareVerb({
  id: 'prism',
  name: 'Prism',
  group: 'make',
  about: 'A solid with equal sides: type how many, its width across corners or flats, and its height.',
  words: ['hexagon', 'polygon', 'triangle', 'nut', 'column', 'pentagon', 'octagon', 'sides'],
  blanks: {
    sides: needed('count', 'sides', 'How many, 3 or more.', { default: '6' }),
    width: needed('length', 'width', 'Across corners, across flats, or of one side.', { positive: true }),
    across: needed('choice', 'measured', 'What the width says.', { default: 'corners', choices: ACROSS }),
    height: needed('length', 'height', 'Along Z.', { positive: true }),
    at: needed('point', 'centre', 'The centre of the bottom.', { default: ['0', '0', '0'] }),
    as: optional('name', 'name', 'What the new part is called.'),
  },
  sentence: 'Prism of {sides} sides, {width} {across}, and height {height} on {at}[ named {as}]',
  apply(draft, { sides, width, across, height, at, as }, context) {
    if (!isSides(sides)) return refuse('count', `Sides: a whole number from 3 to ${MOST_SIDES}.`, 'sides');
    const id = addPart(draft, context, {
      name: as ?? 'Prism',
      base: { kind: 'prism', sides, across: across as keyof typeof ACROSS, size: width, height },
      at,
    });
    return { result: id, select: [id] };
  },
});
