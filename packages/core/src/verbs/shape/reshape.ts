import { addStep } from '../../document/halves.ts';
import { vectorOf, worldFromPart } from '../../document/items.ts';
import type { NumVector } from '../../document/schema.ts';
import { turnBack } from '../../space/pose.ts';
import { subtract, type Vec3 } from '../../space/vector.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from '../../statement/declare.ts';
import { solidToShape } from '../shared/shapingVerb.ts';

/** Corners of a solid with flat faces are moved, alone or with the edges and faces that they belong to. */
export const reshape = declareVerb({
  id: 'reshape',
  name: 'Reshape',
  group: 'shape',
  about:
    'Moves corners, edges or faces of a solid with flat faces onto a point, or by numbers; the rest stays where it is.',
  words: ['vertex', 'corner', 'edge', 'pull', 'move', 'stretch', 'snap'],
  blanks: {
    places: needed('places', 'places', 'Corners, edges and faces that move.', { of: 'part' }),
    part: needed('part', 'part', 'The solid.'),
    from: optional('point', 'from', 'What goes to the other point.'),
    to: optional('point', 'to', 'Where that goes.'),
    by: optional('vector', 'by', 'How far they move in the world, instead of from and to.', {
      default: ['0', '0', '0'],
    }),
    folds: needed('choice', 'faces', 'What becomes of faces that would no longer be flat.', {
      default: 'beside',
      rare: true,
      choices: {
        beside: 'faces fold beside the corner',
        through: 'faces fold through the corner',
        warp: 'faces warp',
      },
    }),
  },
  sentence: 'Reshape {places} of {part}[ from {from} to {to}][ by {by}][, {folds}]',
  apply(draft, { part, places, from, to, by, folds }) {
    const solid = solidToShape(draft, part);
    if (isRefusal(solid)) return solid;
    const move = moveOf({ from, to, by });
    if (isRefusal(move)) return move;
    const [x, y, z] = turnBack(worldFromPart(draft, part).turn, move);
    addStep(solid, {
      kind: 'reshape',
      places: places.map(({ at, near }) => ({ at, ...(near ? { near: [...near] } : {}) })),
      by: [x, y, z],
      folds: folds as 'beside' | 'through' | 'warp',
    });
    return { select: [part] };
  },
});

interface Destination {
  readonly from: NumVector | undefined;
  readonly to: NumVector | undefined;
  readonly by: NumVector | undefined;
}

function moveOf({ from, to, by }: Destination): Vec3 | Refusal {
  if (from && !to) return refuse('missing.where', {}, 'to');
  if (to && !from) return refuse('missing.goes', {}, 'from');
  const move: Vec3 = from && to ? subtract(vectorOf(to), vectorOf(from)) : vectorOf(by ?? [0, 0, 0]);
  return move.some((n) => n !== 0) ? move : refuse('no-move', {}, 'by');
}
