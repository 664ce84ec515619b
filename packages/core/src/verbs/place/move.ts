import { datumInWorld } from '../../document/datum.ts';
import { vectorOf } from '../../document/items.ts';
import { NO_TURN, isIdentity, turnBack, turnVector, type Turn } from '../../space/pose.ts';
import { subtract, type Vec3 } from '../../space/vector.ts';
import { declareVerb, needed, optional, refuse, type Refusal, type Values } from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { axesOf } from '../../statement/frames.ts';
import { FACINGS, turnToFace } from '../shared/landing.ts';
import {
  LEAVINGS,
  lockedRefusal,
  placedParts,
  shiftPart,
  turnPart,
  withoutNested,
} from '../shared/placing.ts';

const FREE_AXES: Readonly<Record<string, readonly [number, number, number]>> = {
  any: [1, 1, 1],
  x: [1, 0, 0],
  y: [0, 1, 0],
  z: [0, 0, 1],
  xy: [1, 1, 0],
  xz: [1, 0, 1],
  yz: [0, 1, 1],
};

const BLANKS = {
  parts: needed('parts', 'parts', 'What is moved.', { least: 1 }),
  from: optional('point', 'from', 'A point that is carried along; when only “to” is given, the datum.', {
    next: 'to',
  }),
  to: optional('point', 'to', 'Where that point goes.', { completes: true }),
  by: optional('vector', 'by', 'The distance along X, Y and Z of the frame.', { default: ['0', '0', '0'] }),
  in: needed('frame', 'frame', 'The axes that the numbers refer to.', { default: 'world' }),
  along: needed('choice', 'along', 'Which axes of the frame the motion keeps to.', {
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
  facing: optional(
    'choice',
    'turning',
    'Which of its own axes turns to face out of the surface where it lands.',
    { choices: FACINGS, rare: true },
  ),
  normal: optional('direction', 'outward', 'The way that axis then points; picked with “to”.', {
    rare: true,
  }),
  leaving: needed('choice', 'leaving', 'What stays behind.', { default: 'nothing', choices: LEAVINGS }),
};

/** Shifts parts from a point to a point, or by X, Y and Z of a frame. */
export const move = declareVerb({
  id: 'move',
  handling: 'moves',
  name: 'Move',
  group: 'place',
  key: 'M',
  about: 'From a point to a point, or by X, Y and Z of a frame; along one axis or in a plane when asked.',
  words: ['shift', 'drag', 'translate', 'position', 'put', 'copy', 'onto a pin'],
  blanks: BLANKS,
  sentence:
    'Move {parts}[ from {from}][ to {to}][ by {by}][ in {in} frame][, along {along}][, turning {facing}][ to {normal}][, leaving {leaving}]',
  apply(draft, values, context) {
    const { parts, from, to, in: frame, along, facing, normal, leaving } = values;
    const fault = lockedRefusal(draft, parts) ?? entryFault(values);
    if (fault) return fault;
    const chosen = withoutNested(draft, parts);
    const first = from
      ? vectorOf(from)
      : to && datumInWorld(draft, draft.items[chosen[0]!]!, (id) => context.boxOf(id));
    if (to && !first) return refuse('no-box.from', {}, 'from');
    const whole = to ? subtract(vectorOf(to), first!) : undefined;
    const placed = placedParts({ draft, context }, chosen, leaving);
    const shifts = chosen.map((id) =>
      shiftIn(axesOf(draft, frame, id), FREE_AXES[along]!, { whole, typed: typedOf(values) }),
    );
    placed.forEach((id, i) => shiftPart(draft, draft.items[id]!, shifts[i]!));
    // Several parts land as one, turned by what the first of them needs.
    const turn =
      isTurned(values) &&
      normal &&
      to &&
      turnToFace(draft, placed[0]!, { facing: facing!, normal: worldDirection(normal, NO_TURN) });
    if (turn) for (const id of placed) turnPart(draft, draft.items[id]!, { turn, about: vectorOf(to) });
    const step = { kind: 'along', by: shifts[0]! } as const;
    return { select: parts, ...(leaving === 'copy' && !turn ? { step } : {}) };
  },
});

type MoveValues = Values<typeof BLANKS>;

const typedOf = ({ by }: MoveValues): Vec3 => (by ? vectorOf(by) : [0, 0, 0]);
const isTurned = ({ facing }: MoveValues): boolean => facing !== undefined && facing !== 'as-is';

/** Why what was said does not say where to. */
function entryFault(values: MoveValues): Refusal | undefined {
  const { from, to, normal } = values;
  if (from !== undefined && to === undefined) return refuse('missing.move', {}, 'to');
  if (to && typedOf(values).some((n) => n !== 0)) return refuse('both.by', {}, 'by');
  return isTurned(values) && (!to || !normal) ? refuse('missing.normal', {}, 'normal') : undefined;
}

interface Shift {
  /** From a point to a point, in the world. */
  readonly whole: Vec3 | undefined;
  /** Along the axes of the frame. */
  readonly typed: Vec3;
}

/** The motion in the world, kept to the free axes of a frame. */
function shiftIn(axes: Turn, free: Vec3, { whole, typed }: Shift): Vec3 {
  if (whole && free.every((n) => n === 1)) return whole;
  const along = !whole ? typed : isIdentity(axes) ? whole : turnBack(axes, whole);
  const kept: Vec3 = [along[0] * free[0], along[1] * free[1], along[2] * free[2]];
  return isIdentity(axes) ? kept : turnVector(axes, kept);
}
