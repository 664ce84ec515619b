import { roundPoint } from '../../space/pose.ts';
import { declareVerb, isRefusal, needed, optional } from '../../statement/declare.ts';
import { addPart } from '../shared/addPart.ts';
import { degreesOf } from '../../statement/planes.ts';
import { PLANE_SENTENCE, planeBlanks, givenPose } from '../shared/laidPlane.ts';

/** Wide enough to be seen beside most parts, mm; it can be changed. */
const SHEET = '200 mm';

/** A work plane, named and kept: to draw on, to snap to, and to measure from. */
export const plane = declareVerb({
  id: 'plane',
  name: 'Work plane',
  group: 'draw',
  about: 'A plane to draw on: beside another one, on a face, turned about an edge, or square to a curve.',
  words: ['plane', 'offset', 'sketch', 'construction', 'sheet', 'datum'],
  blanks: {
    ...planeBlanks,
    size: needed('length', 'sheet', 'How wide its sheet is shown.', {
      default: SHEET,
      positive: true,
      rare: true,
    }),
    as: optional('name', 'name', 'What it is called.'),
  },
  sentence: `Work plane ${PLANE_SENTENCE}[, sheet {size}][ named {as}]`,
  apply(draft, { size, as, ...given }, context) {
    const pose = givenPose(given);
    if (isRefusal(pose)) return pose;
    const id = addPart(draft, context, {
      name: as ?? 'Plane',
      base: { kind: 'plane', size },
      at: [...roundPoint(pose.shift)],
    });
    draft.items[id]!.placement.turn = degreesOf(pose);
    return { result: id, select: [id] };
  },
});
