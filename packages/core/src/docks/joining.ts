/** How a joined part stands: two frames that look at each other, turned and held apart as the joint says. */
import type { Joint } from '../document/dock.ts';
import { valueOf } from '../recipes/numbers.ts';
import { column, multiply, turnAbout } from '../space/matrix.ts';
import { chain, inverse, turnOfDegrees, type Pose, type Turn } from '../space/pose.ts';
import { degrees } from '../space/angle.ts';
import { cross, distance, dot, length, type Vec3 } from '../space/vector.ts';

/** What a joint says besides what is joined, as plain numbers: mm and degrees. */
export interface JointNumbers {
  readonly turn: number;
  readonly tilt: readonly [number, number];
  readonly offset: number;
}

/** Face to face: X stays, Y and Z go the other way. */
const OPPOSITE: Turn = [1, 0, 0, 0, -1, 0, 0, 0, -1];

/** The frame of the moved dock as the dock that it is joined to sees it. */
export function jointFrame({ turn, tilt, offset }: JointNumbers): Pose {
  const turned = multiply(
    multiply(turnAbout([0, 0, 1], reduced(turn)), turnOfDegrees([reduced(tilt[0]), reduced(tilt[1]), 0])),
    OPPOSITE,
  );
  return { turn: turned, shift: [0, 0, offset] };
}

/** Four quarters are none, to the last bit. */
const reduced = (angle: number): number => angle % 360;

/** The numbers of a joint as they are now, without their formulas. */
export const numbersOf = ({ turn, tilt, offset }: Joint): JointNumbers => ({
  turn: valueOf(turn),
  tilt: [valueOf(tilt[0]), valueOf(tilt[1])],
  offset: valueOf(offset),
});

/** Where the moved dock would be in the world. */
export const wantedPose = (onto: Pose, numbers: JointNumbers): Pose => chain(onto, jointFrame(numbers));

/** Where a part must stand so that a dock of it, which stands at `from` now, stands at `to`. All in the world. */
export const partPose = (part: Pose, from: Pose, to: Pose): Pose => chain(to, chain(inverse(from), part));

/** How far two frames are from each other. */
export interface Apart {
  /** Between their points, mm. */
  readonly gap: number;
  /** The least turn that carries one to the other, degrees. */
  readonly angle: number;
}

/** How far one frame is from another. */
export function apart(a: Pose, b: Pose): Apart {
  // By sine and cosine alike, so that small angles keep their digits. Source: W. Kahan, “How futile are mindless assessments…”, 2006.
  const axes = [0, 1, 2].map((i) => [column(a.turn, i), column(b.turn, i)] as const);
  const across = axes
    .map(([x, y]) => cross(x, y))
    .reduce((sum, v): Vec3 => [sum[0] + v[0], sum[1] + v[1], sum[2] + v[2]]);
  const cosine = (axes.reduce((sum, [x, y]) => sum + dot(x, y), 0) - 1) / 2;
  return { gap: distance(a.shift, b.shift), angle: degrees(Math.atan2(length(across) / 2, cosine)) };
}

/** Nearer than this is closed: ten times what a placement loses, a tenth of the kernel’s tolerance. */
const CLOSED_MM = 1e-8;
/** A turn below this is none, degrees. */
export const CLOSED_DEGREES = 1e-8;

/** Whether two frames are one, as far as a placement can tell. */
export const isClosed = (a: Pose, b: Pose): boolean => isNearEnough(apart(a, b));

/** Whether what is left between two frames is nothing. */
export const isNearEnough = ({ gap, angle }: Apart): boolean => gap < CLOSED_MM && angle < CLOSED_DEGREES;
