/** Rigid placements: a turn by degrees about X, then Y, then Z of the outer frame, and then a shift. */
import { cosDegrees, degrees, sinDegrees } from './angle.ts';
import { roundLength } from './rounding.ts';
import { add, type Vec3 } from './vector.ts';

/** Nine numbers row by row: the columns are the inner axes seen from outside. */
export type Turn = readonly [number, number, number, number, number, number, number, number, number];

/** Carries points of the inner frame to the outer one: `turn · p + shift`. */
export interface Pose {
  readonly turn: Turn;
  readonly shift: Vec3;
}

export const NO_TURN: Turn = [1, 0, 0, 0, 1, 0, 0, 0, 1];
export const AT_ORIGIN: Pose = { turn: NO_TURN, shift: [0, 0, 0] };

/** The turn by `[x, y, z]` degrees about the outer X, then Y, then Z. Exact at multiples of 90°. */
export function turnOfDegrees([x, y, z]: Vec3): Turn {
  const [cx, sx, cy, sy, cz, sz] = [
    cosDegrees(x),
    sinDegrees(x),
    cosDegrees(y),
    sinDegrees(y),
    cosDegrees(z),
    sinDegrees(z),
  ];
  const turn = [
    cz * cy,
    cz * sy * sx - sz * cx,
    cz * sy * cx + sz * sx,
    sz * cy,
    sz * sy * sx + cz * cx,
    sz * sy * cx - cz * sx,
    -sy,
    cy * sx,
    cy * cx,
  ];
  // Adding zero turns -0 into 0, so that keys and printed numbers do not show it.
  return turn.map((n) => n + 0) as unknown as Turn;
}

/** Beyond this sine of Y the arc sine loses digits, and X and Z are determined by one another. */
const STEEP = 0.9;
/** Below this cosine of Y what is left is noise: X and Z turn about one axis. */
const UPRIGHT = 1e-14;

/** The degrees about X, Y, Z of a turn; at Y = ±90° the turn about Z is taken as 0. */
export function degreesOfTurn(turn: Turn): Vec3 {
  if (Math.abs(turn[6]) > STEEP) return steepDegrees(turn);
  const y = Math.asin(-turn[6]);
  return [clean(Math.atan2(turn[7], turn[8])), clean(y), clean(Math.atan2(turn[3], turn[0]))];
}

/** Near Y = ±90°: Z first, and X of what is left when Z is taken back, so that their errors cancel. Source: K. Shoemake, Graphics Gems IV (1994), III.5. */
function steepDegrees(turn: Turn): Vec3 {
  const cosine = Math.hypot(turn[0], turn[3]);
  if (cosine < UPRIGHT) return [clean(Math.atan2(-turn[5], turn[4])), turn[6] < 0 ? 90 : -90, 0];
  const y = Math.atan2(-turn[6], cosine);
  const z = Math.atan2(turn[3], turn[0]);
  const [c, s] = [Math.cos(z), Math.sin(z)];
  const x = Math.atan2(s * turn[2] - c * turn[5], c * turn[4] - s * turn[1]);
  return [clean(x), clean(y), clean(z)];
}

/** Degrees within 1e-11 of a whole number are that number: the noise of atan2 must not reach the document. */
function clean(angle: number): number {
  const inDegrees = degrees(angle);
  const whole = Math.round(inDegrees);
  return Math.abs(inDegrees - whole) < 1e-11 ? whole + 0 : inDegrees;
}

export function poseOf(origin: Vec3, turn: Vec3): Pose {
  return { turn: turnOfDegrees(turn), shift: origin };
}

export function turnVector(t: Turn, [x, y, z]: Vec3): Vec3 {
  return [t[0] * x + t[1] * y + t[2] * z, t[3] * x + t[4] * y + t[5] * z, t[6] * x + t[7] * y + t[8] * z];
}

/** The turn taken back: a turn's transpose is its inverse. */
export function turnBack(t: Turn, [x, y, z]: Vec3): Vec3 {
  return [t[0] * x + t[3] * y + t[6] * z, t[1] * x + t[4] * y + t[7] * z, t[2] * x + t[5] * y + t[8] * z];
}

export const carry = (pose: Pose, point: Vec3): Vec3 => add(turnVector(pose.turn, point), pose.shift);

export function carryBack(pose: Pose, point: Vec3): Vec3 {
  const { shift } = pose;
  return turnBack(pose.turn, [point[0] - shift[0], point[1] - shift[1], point[2] - shift[2]]);
}

/** `outerFromMiddle` after `middleFromInner`. */
export function chain(outerFromMiddle: Pose, middleFromInner: Pose): Pose {
  const a = outerFromMiddle.turn;
  const b = middleFromInner.turn;
  const at = (row: number, column: number) =>
    a[row * 3]! * b[column]! + a[row * 3 + 1]! * b[3 + column]! + a[row * 3 + 2]! * b[6 + column]!;
  const turn = isIdentity(a)
    ? b
    : ([0, 1, 2, 3, 4, 5, 6, 7, 8].map((i) => at(Math.floor(i / 3), i % 3)) as unknown as Turn);
  return { turn, shift: carry(outerFromMiddle, middleFromInner.shift) };
}

export function inverse(pose: Pose): Pose {
  const t = pose.turn;
  const back = turnBack(t, pose.shift);
  return {
    turn: [t[0], t[3], t[6], t[1], t[4], t[7], t[2], t[5], t[8]],
    shift: [-back[0] + 0, -back[1] + 0, -back[2] + 0],
  };
}

/** Written out, since it is asked for every member of a pattern. */
export const isSameTurn = (a: Turn, b: Turn): boolean => a.every((n, i) => n === b[i]);
/** To the last bit. */
export const isSamePose = (a: Pose, b: Pose): boolean =>
  isSameTurn(a.turn, b.turn) && a.shift.every((n, i) => n === b.shift[i]);

/** The motion that carries what stands at `from` to `to`; a shift stays one, to the last bit. */
export const motionBetween = (from: Pose, to: Pose): Pose =>
  isSameTurn(from.turn, to.turn)
    ? {
        turn: NO_TURN,
        shift: [to.shift[0] - from.shift[0], to.shift[1] - from.shift[1], to.shift[2] - from.shift[2]],
      }
    : chain(to, inverse(from));

export const isIdentity = (t: Turn): boolean =>
  t[0] === 1 &&
  t[4] === 1 &&
  t[8] === 1 &&
  t[1] === 0 &&
  t[2] === 0 &&
  t[3] === 0 &&
  t[5] === 0 &&
  t[6] === 0 &&
  t[7] === 0;

/** True when every axis goes to an axis, so that boxes stay boxes. */
export const isQuarterTurn = (turn: Turn): boolean => turn.every((n) => n === 0 || n === 1 || n === -1);

export const roundPoint = ([x, y, z]: Vec3): Vec3 => [roundLength(x), roundLength(y), roundLength(z)];
