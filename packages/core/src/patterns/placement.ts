/** Rigid placements that may also mirror: what chains of patterns, groups and reflections come to. */
import { multiply, stretchAlong, frameAlong, type Matrix } from '../space/matrix.ts';
import { carry, chain, turnVector, type Pose } from '../space/pose.ts';
import { add, scale, type Vec3 } from '../space/vector.ts';

/** Carries p to `pose(p)`, or where `mirrored` to `pose(−x, y, z)`: a proper solid is mirrored in its own frame first. */
export interface Placement {
  readonly pose: Pose;
  readonly mirrored: boolean;
}

const FLIP_X: Matrix = [-1, 0, 0, 0, 1, 0, 0, 0, 1];

/** `outer` after `inner`. */
export function chainPlacements(outer: Placement, inner: Placement): Placement {
  if (!outer.mirrored) return { pose: chain(outer.pose, inner.pose), mirrored: inner.mirrored };
  // F·P is (F·P·F)·F, and F·P·F is rigid.
  const { turn, shift } = inner.pose;
  const within: Pose = {
    turn: multiply(FLIP_X, multiply(turn, FLIP_X)),
    shift: turnVector(FLIP_X, shift),
  };
  return { pose: chain(outer.pose, within), mirrored: !inner.mirrored };
}

/** The reflection in a plane. @param normal of length 1 */
export function reflectionIn(point: Vec3, normal: Vec3): Placement {
  const linear = stretchAlong(frameAlong(normal), [-1, 1, 1]);
  return {
    pose: {
      turn: multiply(linear, FLIP_X),
      shift: add(point, turnVector(linear, scale(point, -1))),
    },
    mirrored: true,
  };
}

/** A point of the inner frame in the outer one. */
export function carryPlaced({ pose, mirrored }: Placement, [x, y, z]: Vec3): Vec3 {
  return carry(pose, mirrored ? [-x, y, z] : [x, y, z]);
}
