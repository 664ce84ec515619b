import { vectorOf } from '../../document/items.ts';
import type { ItemId } from '../../document/schema.ts';
import { unionBoxes, type Box } from '../../space/box.ts';
import type { Vec3 } from '../../space/vector.ts';
import { declareVerb, needed, optional, refuse, type Refusal, type Values } from '../../statement/declare.ts';
import { lockedRefusal, shiftPart, withoutNested } from '../shared/placing.ts';

const SIDES = { leave: 'as it is', min: 'least', middle: 'middle', max: 'greatest' } as const;
type Side = keyof typeof SIDES;
const AXIS_NAMES = ['x', 'y', 'z'] as const;

/** Brings the least sides, middles or greatest sides of parts into line, by their exact boxes. */
export const align = declareVerb({
  id: 'align',
  handling: 'aligns',
  name: 'Align',
  group: 'place',
  key: 'A',
  about:
    'Least side, middle or greatest side on each axis, against a part, a point, a face, the bed or each other.',
  words: ['line up', 'flush', 'left', 'right', 'centre', 'middle', 'level', 'even'],
  blanks: {
    parts: needed('parts', 'parts', 'What is aligned; against the last selected, that one stays.', {
      least: 1,
    }),
    x: needed('choice', 'X', 'Left to right.', { default: 'leave', choices: SIDES }),
    y: needed('choice', 'Y', 'Front to back.', { default: 'leave', choices: SIDES }),
    z: needed('choice', 'Z', 'Bottom to top.', { default: 'leave', choices: SIDES }),
    against: needed('choice', 'against', 'What the parts are brought into line with.', {
      default: 'last',
      choices: {
        last: 'the last selected',
        selection: 'the box round them all',
        point: 'a point',
        face: 'a face',
        bed: 'the bed',
      },
    }),
    to: optional('point', 'point', 'The point to align to.', { askedBy: ['against', 'point'] }),
    face: optional('feature', 'face', 'A flat face, square to an axis, to align to.', {
      catches: 'faces',
      askedBy: ['against', 'face'],
    }),
    as: needed('choice', 'as', 'Whether the parts go one by one, or keep their places to each other.', {
      default: 'each',
      choices: { each: 'each by itself', one: 'one block' },
    }),
  },
  sentence: 'Align {parts}[ X {x}][ Y {y}][ Z {z}] against {against}[ at {to}][ at {face}][, as {as}]',
  apply(draft, values, context) {
    const chosen = withoutNested(draft, values.parts);
    const sides = AXIS_NAMES.map((axis) => values[axis] as Side);
    if (sides.every((side) => side === 'leave')) return refuse('nothing.x', {}, 'x');
    const last = chosen.at(-1)!;
    const moving = values.against === 'last' ? chosen.filter((id) => id !== last) : chosen;
    if (moving.length === 0) return refuse('too-few.select', {}, 'parts');
    const locked = lockedRefusal(draft, moving);
    if (locked) return locked;
    const boxes = new Map(chosen.map((id) => [id, context.worldBox(id)]));
    const goal = goalOf(values, sides, { boxes, last });
    if ('refused' in goal) return goal;
    const block = values.as === 'one' ? unionBoxes(moving.map((id) => boxes.get(id)!)) : undefined;
    for (const id of moving) {
      const box = block ?? boxes.get(id)!;
      const shift = sides.map((side, axis) =>
        side === 'leave' ? 0 : sideOf(goal, axis, side) - sideOf(box, axis, side),
      ) as unknown as Vec3;
      shiftPart(draft, draft.items[id]!, shift);
    }
    return { select: values.parts };
  },
});

const sideOf = ({ min, max }: Box, axis: number, side: Side): number =>
  side === 'min' ? min[axis]! : side === 'max' ? max[axis]! : (min[axis]! + max[axis]!) / 2;

/** The box whose sides the parts go to; a point is a box without size. */
function goalOf(
  { against, to, face }: Values<(typeof align)['blanks']>,
  sides: readonly Side[],
  { boxes, last }: { readonly boxes: ReadonlyMap<ItemId, Box>; readonly last: ItemId },
): Box | Refusal {
  const only = (axis: number, what: string) => {
    const other = sides.findIndex((side, i) => side !== 'leave' && i !== axis);
    return other < 0 ? undefined : refuse('axis.place', { what, value: 'XYZ'[other]! }, AXIS_NAMES[other]);
  };
  switch (against) {
    case 'selection':
      return unionBoxes(boxes.values())!;
    case 'point': {
      if (to === undefined) return refuse('missing.point-align', {}, 'to');
      return { min: vectorOf(to), max: vectorOf(to) };
    }
    case 'face': {
      if (face === undefined) return refuse('missing.face', {}, 'face');
      const axis = face.kind === 'plane' ? face.normal.findIndex((n) => Math.abs(n) > 1 - 1e-12) : -1;
      if (axis < 0) return refuse('axis.face', {}, 'face');
      return only(axis, 'This face') ?? { min: face.at, max: face.at };
    }
    case 'bed':
      return only(2, 'The bed') ?? { min: [0, 0, 0], max: [0, 0, 0] };
    default:
      return boxes.get(last)!;
  }
}
