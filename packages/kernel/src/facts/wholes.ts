/** Measures of many solids together: what patterns and groups come to. */
import { add, carry, chain, dot, isQuarterTurn, scale, turnBack, type Pose, type Vec3 } from '@kadrel/core';
import type { NamedShape } from '../naming/named.ts';
import type { Measures } from './measure.ts';

/** A built solid in the world, or in another frame. */
export interface Solid {
  readonly named: NamedShape;
  /** In its own frame. */
  readonly measures: Measures;
  readonly pose: Pose;
}

/** Least and greatest coordinate of a shape along a direction of length 1, in its own frame; exact. */
export type RangeOf = (named: NamedShape, direction: Vec3) => readonly [number, number];

export const AXIS_DIRECTIONS: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** What a whole measures of which nothing is left. */
const NOTHING: Measures = {
  volume: 0,
  area: 0,
  centroid: [0, 0, 0],
  box: { min: [0, 0, 0], max: [0, 0, 0] },
  watertight: false,
  closed: false,
  touching: false,
  faces: 0,
  edges: 0,
  solids: 0,
};

export const inFrame = (solids: readonly Solid[], frameFromWorld: Pose): Solid[] =>
  solids.map(({ named, measures, pose }) => ({ named, measures, pose: chain(frameFromWorld, pose) }));

/** Whether there is a solid, and every one is like that; what is only drawn does not count. */
const areAll = (solids: readonly Solid[], is: (measures: Measures) => boolean): boolean => {
  const counted = solids.filter(({ measures }) => measures.solids > 0);
  return counted.length > 0 && counted.every(({ measures }) => is(measures));
};

/** The sums of what solids measure, with the exact box round them all. */
export function wholeMeasures(solids: readonly Solid[], rangeOf: RangeOf): Measures {
  if (solids.length === 0) return NOTHING;
  // Alike ones are counted, not added up, which would gather the rounding of thousands of sums.
  const counts = new Map<Measures, number>();
  for (const { measures } of solids) counts.set(measures, (counts.get(measures) ?? 0) + 1);
  const sum = (of: (measures: Measures) => number) =>
    [...counts].reduce((all, [measures, count]) => all + count * of(measures), 0);
  const volume = sum((measures) => measures.volume);
  let moment: Vec3 = [0, 0, 0];
  for (const { measures, pose } of solids)
    moment = add(moment, scale(carry(pose, measures.centroid), measures.volume));
  const reach = (direction: Vec3) => reachOf(solids, direction, rangeOf);
  return {
    volume,
    area: sum((measures) => measures.area),
    // Of drawn things alone there is no centre of volume: their own origin stands for it.
    centroid: volume > 0 ? scale(moment, 1 / volume) : solids[0]!.pose.shift,
    box: {
      min: AXIS_DIRECTIONS.map((axis) => -reach(scale(axis, -1)) + 0) as unknown as Vec3,
      max: AXIS_DIRECTIONS.map((axis) => reach(axis)) as unknown as Vec3,
    },
    watertight: areAll(solids, (measures) => measures.watertight),
    closed: areAll(solids, (measures) => measures.closed),
    touching: solids.some(({ measures }) => measures.touching),
    faces: sum((measures) => measures.faces),
    edges: sum((measures) => measures.edges),
    solids: sum((measures) => measures.solids),
  };
}

/**
 * The greatest coordinate of solids along a direction of length 1. Boxes bound it; the true surfaces are asked in the order
 * of their boxes, until no other box reaches farther.
 */
export function reachOf(solids: readonly Solid[], direction: Vec3, rangeOf: RangeOf): number {
  const isAxis = direction.some((n) => Math.abs(n) === 1);
  const bounds = new Float64Array(solids.length);
  solids.forEach(({ pose, measures: { box } }, i) => {
    const local = turnBack(pose.turn, direction);
    let max = dot(pose.shift, direction);
    for (let axis = 0; axis < 3; axis++)
      max += Math.max(local[axis]! * box.min[axis]!, local[axis]! * box.max[axis]!);
    bounds[i] = max;
  });
  const order = Uint32Array.from(solids.keys()).sort((a, b) => bounds[b]! - bounds[a]!);
  let best = -Infinity;
  for (const i of order) {
    if (bounds[i]! <= best) break;
    const { named, pose } = solids[i]!;
    // A box that is turned by quarters still touches what it is round.
    if (isAxis && isQuarterTurn(pose.turn)) best = bounds[i]!;
    else {
      const [, most] = rangeOf(named, turnBack(pose.turn, direction));
      best = Math.max(best, most + dot(pose.shift, direction));
    }
  }
  return best;
}
