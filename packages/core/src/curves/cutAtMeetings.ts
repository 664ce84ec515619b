/** Curves cut wherever they meet one another, or lie on one another. */
import type { Vec2 } from '../space/vector2.ts';
import { endOf, piecesBetween, startOf, type Curve } from './curve.ts';
import { boxOfCurves, simplePieces, type Box2 } from './flattened.ts';
import { meetings, nearestOn } from './meetings.ts';

/** More pieces than this are not looked at two by two. */
const MAX_PIECES = 2500;
/** Points nearer than this are one, mm. */
const SAME_MM = 1e-6;

interface Cut {
  readonly curve: Curve;
  readonly box: Box2;
  readonly cuts: number[];
}

/** Undefined where there are too many. */
export const cutAtMeetings = (curves: readonly Curve[]): Curve[] | undefined =>
  cutEach(curves.map((curve) => [curve]))?.flat();

/** The pieces of each group of curves, cut at the curves of all groups; undefined where there are too many. */
export function cutEach(groups: readonly (readonly Curve[])[]): Curve[][] | undefined {
  const simple = groups.map((curves) =>
    curves.flatMap(simplePieces).map((curve): Cut => ({ curve, box: boxOfCurves([curve])!, cuts: [] })),
  );
  const all = simple.flat();
  if (all.length > MAX_PIECES) return undefined;
  all.forEach((one, i) => {
    for (let j = i + 1; j < all.length; j++) if (doOverlap(one.box, all[j]!.box)) cutBoth(one, all[j]!);
  });
  return simple.map((cuts) => cuts.flatMap((one) => piecesBetween(one.curve, one.cuts, SAME_MM)));
}

function cutBoth(one: Cut, other: Cut): void {
  for (const { a, b } of meetings(one.curve, other.curve)) {
    one.cuts.push(a);
    other.cuts.push(b);
  }
  cutAtEnds(one, other);
  cutAtEnds(other, one);
}

/** Where curves lie on each other, each is cut at the ends of the other. */
function cutAtEnds(on: Cut, of: Cut): void {
  for (const end of [startOf(of.curve), endOf(of.curve)]) {
    if (!isNear(on.box, end)) continue;
    const { part, distance } = nearestOn(on.curve, end);
    if (distance <= SAME_MM) on.cuts.push(part);
  }
}

const isNear = ({ min, max }: Box2, p: Vec2) =>
  ([0, 1] as const).every((i) => p[i] >= min[i] - SAME_MM && p[i] <= max[i] + SAME_MM);
const doOverlap = (a: Box2, b: Box2) =>
  ([0, 1] as const).every((i) => a.min[i] <= b.max[i] + SAME_MM && b.min[i] <= a.max[i] + SAME_MM);
