import { vectorOf } from '../document/items.ts';
import { subtract, type Vec3 } from '../space/vector.ts';
import { declareVerb, needed, optional, refuse } from './declare.ts';
import { copyPart, lockedRefusal, shiftPart, withoutNested } from './placing.ts';

const FREE_AXES: Readonly<Record<string, readonly [number, number, number]>> = {
  any: [1, 1, 1],
  x: [1, 0, 0],
  y: [0, 1, 0],
  z: [0, 0, 1],
  xy: [1, 1, 0],
  xz: [1, 0, 1],
  yz: [0, 1, 1],
};

/** Shifts parts from a point to a point, or by X, Y and Z. */
export const move = declareVerb({
  id: 'move',
  name: 'Move',
  group: 'place',
  key: 'M',
  about: 'From a point to a point, or by X, Y and Z; along one axis or in a plane when asked.',
  words: ['shift', 'drag', 'translate', 'position', 'put', 'copy'],
  blanks: {
    parts: needed('parts', 'parts', 'What is moved.', { least: 1 }),
    from: optional('point', 'from', 'A point that is carried along.'),
    to: optional('point', 'to', 'Where that point goes.'),
    by: optional('vector', 'by', 'The distance along X, Y and Z.', { default: ['0', '0', '0'] }),
    along: needed('choice', 'along', 'Which axes the motion keeps to.', {
      default: 'any',
      choices: {
        any: 'any direction',
        x: 'X only',
        y: 'Y only',
        z: 'Z only',
        xy: 'X and Y',
        xz: 'X and Z',
        yz: 'Y and Z',
      },
    }),
    leaving: needed('choice', 'leaving', 'Whether a copy stays behind.', {
      default: 'nothing',
      choices: { nothing: 'nothing', copy: 'a copy' },
    }),
  },
  sentence: 'Move {parts}[ from {from}][ to {to}][ by {by}] along {along} leaving {leaving}',
  apply(draft, { parts, from, to, by, along, leaving }, context) {
    if ((from === undefined) !== (to === undefined)) {
      const missing = from === undefined ? 'from' : 'to';
      return refuse('missing', `A move from a point to a point needs both; “${missing}” is empty.`, missing);
    }
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    const typed: Vec3 = by ? vectorOf(by) : [0, 0, 0];
    const whole = from && to ? subtract(vectorOf(to), vectorOf(from)) : typed;
    if (from && to && typed.some((n) => n !== 0))
      return refuse('both', 'Give two points or a distance, not both.', 'by');
    const free = FREE_AXES[along]!;
    const shift: Vec3 = [whole[0] * free[0], whole[1] * free[1], whole[2] * free[2]];
    const chosen = withoutNested(draft, parts);
    for (const id of chosen) {
      if (leaving === 'copy') copyPart(draft, id, context);
      shiftPart(draft, draft.items[id]!, shift);
    }
    return { select: parts };
  },
});
