/** Near misses: ends that stop short of another end or of a curve, so that an area stays open. */
import { distance2, type Vec2 } from '../space/vector2.ts';
import { SAME_POINT_MM, endOf, startOf, type Curve } from '../curves/curve.ts';
import { boxOfCurves } from '../curves/flattened.ts';
import { nearestOn } from '../curves/meetings.ts';
import type { Path } from './outline.ts';

/** Two ends that nearly meet, and how far they are apart, mm. */
export interface NearMiss {
  readonly at: Vec2;
  /** What it should reach. */
  readonly to: Vec2;
  /** mm */
  readonly size: number;
  /** Whether that is another loose end: then joining closes it. */
  readonly isEnd: boolean;
}

/** Of the size of the whole drawing: ends farther away from all else were hardly meant to meet anything. */
const NEAR = 1 / 20;

/** An end is preferred to a point of a curve that is up to so many times as near. */
const BESIDE = 2;

/** The smallest first; each pair of ends once. */
export function nearMisses(paths: readonly Path[]): NearMiss[] {
  const curves = paths.flatMap((path) => path.curves.map(({ curve }) => curve));
  const loose = paths
    .filter((path) => !path.closed && path.curves.length > 0)
    .flatMap(({ curves: own }) => [
      { at: startOf(own[0]!.curve), curve: own[0]!.curve },
      { at: endOf(own.at(-1)!.curve), curve: own.at(-1)!.curve },
    ])
    .filter(({ at, curve }) => !curves.some((other) => other !== curve && touches(other, at)));
  const box = loose.length > 0 ? boxOfCurves(curves) : undefined;
  if (!box) return [];
  const limit = NEAR * distance2(box.min, box.max);
  const misses = loose.flatMap((end, i): NearMiss[] => {
    const ends = loose.flatMap((other, j) =>
      j === i ? [] : [{ at: end.at, to: other.at, size: distance2(end.at, other.at), isEnd: true }],
    );
    const sides = curves
      .filter((curve) => curve !== end.curve)
      .map((curve) => nearestOn(curve, end.at))
      .map(({ point, distance }) => ({ at: end.at, to: point, size: distance, isEnd: false }));
    // An end that lies beside the end of a curve was meant to meet that end.
    const cost = ({ size, isEnd }: NearMiss) => (isEnd ? size / BESIDE : size);
    const [best] = [...ends, ...sides].sort((a, b) => cost(a) - cost(b));
    return best && best.size <= limit ? [best] : [];
  });
  return misses
    .filter((miss, i) => !misses.some((other, j) => j < i && isSamePair(miss, other)))
    .sort((a, b) => a.size - b.size);
}

const touches = (curve: Curve, at: Vec2) => nearestOn(curve, at).distance <= SAME_POINT_MM;
const isSamePair = (a: NearMiss, b: NearMiss) =>
  distance2(a.at, b.to) <= SAME_POINT_MM && distance2(a.to, b.at) <= SAME_POINT_MM;
