/** Outlines trimmed, extended and split. */
import { reasonOf } from '../language/reason.ts';
import { add2, distance2, scale2, unit2, type Vec2 } from '../space/vector2.ts';
import { EditFault } from './corners.ts';
import {
  SAME_POINT_MM,
  curveLength,
  endOf,
  line,
  pieceOf,
  pointAt,
  reversed,
  startOf,
  velocityAt,
  type Curve,
} from '../curves/curve.ts';
import { boxOfCurves, simplePieces } from '../curves/flattened.ts';
import { meetings, nearestOn } from '../curves/meetings.ts';
import type { NamedCurve, Path } from './outline.ts';

interface Spot {
  readonly path: number;
  readonly curve: number;
  readonly part: number;
}

function spotNear(paths: readonly Path[], near: Vec2): Spot {
  let best: (Spot & { distance: number }) | undefined;
  paths.forEach((path, p) =>
    path.curves.forEach(({ curve }, c) => {
      const { part, distance } = nearestOn(curve, near);
      if (!best || distance < best.distance) best = { path: p, curve: c, part, distance };
    }),
  );
  if (!best) throw new EditFault(reasonOf('edit.no-curves', {}));
  return best;
}

const replaced = (paths: readonly Path[], at: number, made: readonly Path[]): Path[] => [
  ...paths.slice(0, at),
  ...made.filter(({ curves }) => curves.length > 0),
  ...paths.slice(at + 1),
];

/** Pieces of a curve between two parts of its way; nothing where they are one point. */
function pieceBetween({ name, curve }: NamedCurve, from: number, to: number): NamedCurve[] {
  if (from === 0 && to === 1) return [{ name, curve }];
  if ((to - from) * curveLength(curve) <= SAME_POINT_MM) return [];
  return [{ name, curve: pieceOf(curve, from, to) }];
}

/** The piece at a point is taken out. @param others curves that cut too. Throws EditFault. */
export function trimmed(given: readonly Path[], near: Vec2, others: readonly Curve[]): Path[] {
  const paths = given.map(inSimplePieces);
  const spot = spotNear(paths, near);
  const path = paths[spot.path]!;
  const cutters = [
    ...others,
    ...paths.flatMap(({ curves }, p) =>
      curves.flatMap(({ curve }, c) => (p === spot.path && c === spot.curve ? [] : [curve])),
    ),
  ];
  // Cuts along the whole path, as curve and part together, so that a piece may go over its corners.
  const cuts = path.curves.flatMap(({ curve }, c) =>
    cutters
      .filter((cutter) => cutter !== curve)
      .flatMap((cutter) => meetings(curve, cutter).map(({ a }) => c + a))
      // Where the curves of the path itself join each other, nothing crosses.
      .filter((at) => !isJoint(path, at, others)),
  );
  const at = spot.curve + spot.part;
  const sorted = [...new Set(cuts)].sort((a, b) => a - b);
  if (sorted.length === 0) throw new EditFault(reasonOf('edit.no-crossing', {}), near);
  const count = path.curves.length;
  const before = sorted.findLast((cut) => cut < at);
  const after = sorted.find((cut) => cut > at);
  if (path.closed && sorted.length === 1) throw new EditFault(reasonOf('edit.one-crossing', {}), near);
  if (path.closed) {
    // What is kept runs from the cut after the point all round to the one before it.
    const from = after ?? sorted[0]!;
    const to = before ?? sorted.at(-1)!;
    return replaced(paths, spot.path, [
      { closed: false, curves: stretch(path, from, to <= from ? to + count : to) },
    ]);
  }
  return replaced(paths, spot.path, [
    { closed: false, curves: before === undefined ? [] : stretch(path, 0, before) },
    { closed: false, curves: after === undefined ? [] : stretch(path, after, count) },
  ]);
}

/** With curves that cross themselves cut into pieces that do not. */
const inSimplePieces = ({ closed, curves }: Path): Path => ({
  closed,
  curves: curves.flatMap((named) => {
    const pieces = simplePieces(named.curve);
    const doCross = pieces.some((a, i) =>
      pieces
        .slice(i + 1)
        .some((b) => meetings(a, b).some((one) => distance2(pointAt(a, one.a), endOf(a)) > SAME_POINT_MM)),
    );
    return doCross ? pieces.map((curve) => ({ name: named.name, curve })) : [named];
  }),
});

/** Whether a place is where one curve of the path ends and the next begins, and no other curve passes. */
function isJoint(path: Path, at: number, others: readonly Curve[]): boolean {
  const [c, part] = [Math.min(Math.floor(at), path.curves.length - 1), at - Math.floor(at)];
  const point = pointAt(path.curves[c]!.curve, at === path.curves.length ? 1 : part);
  const joints = path.curves.flatMap(({ curve }) => [startOf(curve), endOf(curve)]);
  return (
    joints.some((joint) => distance2(joint, point) <= SAME_POINT_MM) &&
    !others.some((other) => nearestOn(other, point).distance <= SAME_POINT_MM)
  );
}

/** The curves of a path between two places, counted in curves; beyond the last they begin again with the first. */
function stretch(path: Path, from: number, to: number): NamedCurve[] {
  const made: NamedCurve[] = [];
  for (let c = Math.floor(from); c < to; c++) {
    const named = path.curves[c % path.curves.length]!;
    made.push(...pieceBetween(named, Math.max(0, from - c), Math.min(1, to - c)));
  }
  return made;
}

/** Cut at the point of the curves that is nearest. Throws EditFault. */
export function splitAt(paths: readonly Path[], near: Vec2): Path[] {
  const spot = spotNear(paths, near);
  const path = paths[spot.path]!;
  const count = path.curves.length;
  const at = spot.curve + spot.part;
  if (path.closed)
    return replaced(paths, spot.path, [{ closed: false, curves: stretch(path, at, at + count) }]);
  const halves = [stretch(path, 0, at), stretch(path, at, count)];
  if (halves.some(({ length }) => length === 0)) throw new EditFault(reasonOf('edit.ends-there', {}), near);
  return replaced(
    paths,
    spot.path,
    halves.map((curves) => ({ closed: false, curves })),
  );
}

/** The same path, run through the other way. */
export const reversedPath = ({ closed, curves }: Path): Path => ({
  closed,
  curves: curves.toReversed().map(({ name, curve }) => ({ name, curve: reversed(curve) })),
});

/** The free end nearest to a point goes on to where it first meets another curve. Throws EditFault. */
export function extended(paths: readonly Path[], near: Vec2, others: readonly Curve[]): Path[] {
  const ends = paths.flatMap((path, p) =>
    path.closed
      ? []
      : [
          { p, isStart: true, at: startOf(path.curves[0]!.curve) },
          { p, isStart: false, at: endOf(path.curves.at(-1)!.curve) },
        ],
  );
  const [end] = ends.toSorted((a, b) => distance2(a.at, near) - distance2(b.at, near));
  if (!end) throw new EditFault(reasonOf('edit.no-end', {}), near);
  const path = end.isStart ? reversedPath(paths[end.p]!) : paths[end.p]!;
  const last = path.curves.at(-1)!;
  const own = paths.flatMap(({ curves }) => curves.map(({ curve }) => curve));
  const targets = [...others, ...own];
  const beyond = goingOn(last.curve, targets);
  const first = targets
    .flatMap((target) => meetings(beyond, target).map(({ a }) => a))
    .filter((part) => part * curveLength(beyond) > SAME_POINT_MM)
    .sort((a, b) => a - b)[0];
  if (first === undefined) throw new EditFault(reasonOf('edit.meets-none', {}), end.at);
  const longer: Path = {
    closed: false,
    curves: [...path.curves.slice(0, -1), ...lengthened(last, beyond, first)],
  };
  return replaced(paths, end.p, [end.isStart ? reversedPath(longer) : longer]);
}

/** How a curve goes on beyond its end: lines straight, arcs to their full turn, others along their tangent. */
function goingOn(curve: Curve, targets: readonly Curve[]): Curve {
  if (curve.kind === 'arc') {
    const left = 360 - Math.abs(curve.sweep);
    return { ...curve, first: curve.first + curve.sweep, sweep: Math.sign(curve.sweep) * left };
  }
  const from = endOf(curve);
  const { min, max } = boxOfCurves([curve, ...targets])!;
  const reach = 2 * distance2(min, max);
  return line(from, add2(from, scale2(unit2(velocityAt(curve, 1)), reach)));
}

function lengthened({ name, curve }: NamedCurve, beyond: Curve, part: number): NamedCurve[] {
  const to = pointAt(beyond, part);
  if (curve.kind === 'line') return [{ name, curve: line(curve.from, to) }];
  if (curve.kind === 'arc' && beyond.kind === 'arc')
    return [{ name, curve: { ...curve, sweep: curve.sweep + beyond.sweep * part } }];
  return [
    { name, curve },
    { name: `${name}-on`, curve: line(endOf(curve), to) },
  ];
}
