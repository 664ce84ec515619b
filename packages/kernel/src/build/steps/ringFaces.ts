/** A flat face with a hole as faces without one, which run round the hole: what a cage is made of. Pure arithmetic. */
import { add, angleAbout, scale, subtract, type Vec3 } from '@kadrel/core';
import { areaWithin } from '../flatFaces.ts';

/** What lies between a border and a hole in it. */
interface Ring {
  /** Counter-clockwise seen against the normal. */
  readonly border: readonly Vec3[];
  /** The other way round. */
  readonly hole: readonly Vec3[];
  readonly normal: Vec3;
}

/** Angles that differ by less than this, degrees, are those of one direction. */
const SAME_WAY = 1e-7;
const FULL_TURN = 360;

/**
 * Triangles and quads between the two, counter-clockwise: each corner is joined to the one of the other loop that lies in nearly the same
 * direction from the middle of the hole. Undefined where a loop turns back as seen from there, or two corners would be joined to one
 * across another.
 */
export function ringFaces({ border, hole, normal }: Ring): Vec3[][] | undefined {
  const centre = scale(hole.reduce<Vec3>(add, [0, 0, 0]), 1 / hole.length);
  const first = subtract(border[0]!, centre);
  const angleOf = (point: Vec3) => angleAbout(normal, first, subtract(point, centre));
  const [outer, inner] = [border, [...hole].reverse()].map((loop) => turned(loop, angleOf));
  if (!outer || !inner) return undefined;
  const isOuterLonger = outer.length >= inner.length;
  const [long, short] = isOuterLonger ? [outer, inner] : [inner, outer];
  const joints = joined(long, short);
  if (!joints) return undefined;
  const faces = long.map(({ at }, i): Vec3[] => {
    const next = (i + 1) % long.length;
    const [from, to] = [short[joints[i]!]!.at, short[joints[next]!]!.at];
    const rim = joints[i] === joints[next] ? [from] : [to, from];
    const face = [at, long[next]!.at, ...rim];
    return isOuterLonger ? face : face.reverse();
  });
  return faces.every((face) => areaWithin(face, normal) > 0) ? faces : undefined;
}

interface Turned {
  readonly at: Vec3;
  /** Degrees, growing along the loop by less than a turn in all. */
  readonly angle: number;
}

/** Begun at its smallest angle; undefined where the angles do not grow all the way round. */
function turned(loop: readonly Vec3[], angleOf: (point: Vec3) => number): Turned[] | undefined {
  const all = loop.map((at) => ({ at, angle: angleOf(at) }));
  const first = all.reduce((min, { angle }, i) => (angle < all[min]!.angle ? i : min), 0);
  const order = [...all.slice(first), ...all.slice(0, first)];
  return order.every(({ angle }, i) => i === 0 || angle > order[i - 1]!.angle + SAME_WAY) ? order : undefined;
}

/** For each corner of the longer loop the corner of the shorter one that it is joined to; each of these is met, in order. */
function joined(long: readonly Turned[], short: readonly Turned[]): number[] | undefined {
  const apart = (a: number, b: number) => {
    const off = Math.abs(a - b) % FULL_TURN;
    return Math.min(off, FULL_TURN - off);
  };
  const nearest = (angle: number, among: readonly Turned[]) =>
    among.reduce(
      (best, one, i) => (apart(one.angle, angle) < apart(among[best]!.angle, angle) ? i : best),
      0,
    );
  const joints = long.map(({ angle }) => nearest(angle, short));
  // Each corner of the shorter loop has at least the one that is nearest to it.
  for (const [j, { angle }] of short.entries()) joints[nearest(angle, long)] = j;
  const steps = joints.map((j, i) => (joints[(i + 1) % joints.length]! - j + short.length) % short.length);
  return steps.every((step) => step <= 1) && steps.filter((step) => step === 1).length === short.length
    ? joints
    : undefined;
}
