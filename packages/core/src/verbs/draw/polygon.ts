import { declareVerb, needed, refuse } from '../../statement/declare.ts';
import { drawFigure, footOf, namedAs, onPlane } from '../shared/drawing.ts';
import { ACROSS, isSides } from '../../recipes/regular.ts';
import { centreBlank } from '../shared/figures.ts';

export const polygon = declareVerb({
  id: 'polygon',
  name: 'Polygon',
  group: 'draw',
  about: 'Equal sides: how many, and its width across corners, across flats, or of one side.',
  words: ['hexagon', 'triangle', 'pentagon', 'octagon', 'sides', 'nut'],
  blanks: {
    sides: needed('count', 'sides', 'How many, 3 or more.', { default: '6' }),
    width: needed('length', 'width', 'Across corners, across flats, or of one side.', { positive: true }),
    across: needed('choice', 'measured', 'What the width says.', { default: 'corners', choices: ACROSS }),
    at: centreBlank,
    on: onPlane,
    as: namedAs,
  },
  sentence: 'Polygon of {sides} sides, {width} {across}, about {at} on {on}[ named {as}]',
  gesture: { steps: [[{ reads: 'place', into: 'at' }], [{ reads: 'width', into: 'width' }]] },
  apply(draft, { sides, width, across, at, on, as }, context) {
    if (!isSides(sides)) return refuse('count.sides', {}, 'sides');
    return drawFigure(draft, context, {
      name: as ?? 'Polygon',
      figure: { kind: 'polygon', sides, across: across as keyof typeof ACROSS, size: width },
      plane: on,
      at: footOf(on, at),
      exact: at,
    });
  },
});
