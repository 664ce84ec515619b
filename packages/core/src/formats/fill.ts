/**
 * The borders of what a drawing paints. A fill closes its subpaths and goes by a rule; shapes of one colour are one area where they
 * overlap. What is left are loops with paint on one side only, which mean the same by every rule. Source: SVG 1.1, chapter 11.3.
 */
import { add2, distance2, dot2, left2, scale2, unit2, type Vec2 } from '../space/vector2.ts';
import { areClear } from '../profiles/crossing.ts';
import {
  SAME_POINT_MM,
  curvatureAt,
  endOf,
  line,
  pointAt,
  reversed,
  startOf,
  velocityAt,
  type Curve,
} from '../curves/curve.ts';
import { boxOfCurves, flattened, type Box2 } from '../curves/flattened.ts';
import { cutEach } from '../curves/cutAtMeetings.ts';
import { joined } from '../curves/joined.ts';
import type { DrawnPath } from '../curves/curve.ts';

/** What is inside of paths that cross, as SVG says it. */
export type FillRule = 'nonzero' | 'evenodd';

/** A painted shape: loops, each closed. */
export interface Painted {
  readonly rule: FillRule;
  readonly loops: readonly DrawnPath[];
}

/** Points nearer than this are one, mm. */
const SAME_MM = 1e-6;

/** Closed by a line from end to start, as a fill closes it. */
export function closedLoop({ closed, curves }: DrawnPath): DrawnPath {
  if (closed || curves.length === 0) return { closed, curves };
  const [from, to] = [endOf(curves.at(-1)!), startOf(curves[0]!)];
  return {
    closed: true,
    curves: distance2(from, to) <= SAME_POINT_MM ? curves : [...curves, line(from, to)],
  };
}

/** Loops round what shapes of one colour paint; undefined where that cannot be determined. */
export function paintedBorders(shapes: readonly Painted[]): DrawnPath[] | undefined {
  const loops = shapes.flatMap((shape, of) => shape.loops.map((loop) => ({ loop, of })));
  const named = loops.map(({ loop }) => ({
    closed: true,
    curves: loop.curves.map((curve) => ({ name: '', curve })),
  }));
  return areClear(named) ? clearBorders(shapes, loops) : cutBorders(shapes, loops);
}

/**
 * Shapes whose borders cross or touch, in groups; one that lies clear of the others, or clear within another, is by itself: a
 * circle drawn in a plate is a hole in it.
 */
export function overlapping(shapes: readonly Painted[]): Painted[][] {
  const boxes = shapes.map(({ loops }) => boxOfCurves(loops.flatMap(({ curves }) => curves)));
  const groups: number[][] = [];
  const left = new Set(shapes.keys());
  for (const start of shapes.keys()) {
    if (!left.delete(start)) continue;
    const group = [start];
    for (const one of group)
      for (const other of left) {
        const [a, b] = [boxes[one], boxes[other]];
        if (!a || !b || !doBoxesMeet(a, b) || areApart(shapes[one]!, shapes[other]!)) continue;
        left.delete(other);
        group.push(other);
      }
    groups.push(group);
  }
  return groups.map((group) => group.map((i) => shapes[i]!));
}

const doBoxesMeet = (a: Box2, b: Box2) =>
  ([0, 1] as const).every((i) => a.min[i] <= b.max[i] + SAME_MM && b.min[i] <= a.max[i] + SAME_MM);

/** One path of each shape's curves is enough to tell whether any two of different shapes come near each other. */
const areApart = (a: Painted, b: Painted): boolean =>
  a.loops.every((one) =>
    b.loops.every((other) =>
      areClear(
        [one, other].map(({ curves }) => ({
          closed: true,
          curves: curves.map((curve) => ({ name: '', curve })),
        })),
      ),
    ),
  );

interface OwnedLoop {
  readonly loop: DrawnPath;
  /** Which shape it belongs to. */
  readonly of: number;
}

const isPainted = (shapes: readonly Painted[], windings: readonly number[]): boolean =>
  shapes.some(({ rule }, i) => (rule === 'nonzero' ? windings[i] !== 0 : Math.abs(windings[i]!) % 2 === 1));

/** Loops that keep clear of one another are kept whole or left out whole. */
function clearBorders(shapes: readonly Painted[], loops: readonly OwnedLoop[]): DrawnPath[] {
  const known = loops.map(({ loop, of }) => ({
    loop,
    of,
    box: boxOfCurves(loop.curves)!,
    points: loop.curves.flatMap((curve) => flattened(curve).slice(1)),
  }));
  const turns = known.map(({ points }) => (shoelace(points) > 0 ? 1 : -1));
  return known.flatMap((one, i) => {
    const outside = shapes.map(() => 0);
    const at = one.points[0]!;
    known.forEach((other, j) => {
      if (j !== i && isInBox(other.box, at)) outside[other.of]! += windingOf(other.points, at);
    });
    const inside = outside.map((n, of) => (of === one.of ? n + turns[i]! : n));
    return isPainted(shapes, outside) === isPainted(shapes, inside) ? [] : [one.loop];
  });
}

const isInBox = ({ min, max }: Box2, [x, y]: Vec2) =>
  x >= min[0] && x <= max[0] && y >= min[1] && y <= max[1];

const shoelace = (points: readonly Vec2[]): number =>
  points.reduce((sum, [x, y], i) => {
    const [u, v] = points[(i + 1) % points.length]!;
    return sum + x * v - u * y;
  }, 0);

/** Crossings of a ray to the right: upward ones count 1, downward ones −1. */
function windingOf(points: readonly Vec2[], [x, y]: Vec2): number {
  let winding = 0;
  for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
    const [ax, ay] = points[j]!;
    const [bx, by] = points[i]!;
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) winding += by > ay ? 1 : -1;
  }
  return winding;
}

interface Piece {
  readonly curve: Curve;
  readonly of: number;
  readonly points: readonly Vec2[];
  readonly middle: Vec2;
}

/** Loops that meet are cut where they do; a piece is kept where there is paint on one side of it only. */
function cutBorders(shapes: readonly Painted[], loops: readonly OwnedLoop[]): DrawnPath[] | undefined {
  const pieces = cutPieces(loops);
  if (!pieces) return undefined;
  const done = new Set<Piece>();
  const kept: Curve[] = [];
  for (const piece of pieces) {
    if (done.has(piece)) continue;
    const same = pieces.filter((other) => areSame(piece, other));
    for (const one of same) done.add(one);
    const [left, right] = sidesOf(piece, same, pieces, shapes.length);
    const [onLeft, onRight] = [isPainted(shapes, left), isPainted(shapes, right)];
    if (onLeft !== onRight) kept.push(onLeft ? piece.curve : reversed(piece.curve));
  }
  const borders = joined(kept);
  // Where curves run within a hair of each other, which piece lies inside cannot be determined, and loops stay open.
  return borders.every(({ closed }) => closed) ? borders : undefined;
}

function cutPieces(loops: readonly OwnedLoop[]): Piece[] | undefined {
  const cut = cutEach(loops.map(({ loop }) => loop.curves));
  return cut?.flatMap((curves, i) =>
    curves.map((curve) => ({
      curve,
      of: loops[i]!.of,
      points: flattened(curve),
      middle: pointAt(curve, 0.5),
    })),
  );
}

function areSame(a: Piece, b: Piece): boolean {
  if (a === b) return true;
  const near = (p: Vec2, q: Vec2) => distance2(p, q) <= 10 * SAME_MM;
  const [s, e, t, f] = [startOf(a.curve), endOf(a.curve), startOf(b.curve), endOf(b.curve)];
  return near(a.middle, b.middle) && ((near(s, t) && near(e, f)) || (near(s, f) && near(e, t)));
}

/** Windings of each shape on the left and on the right of a piece. */
function sidesOf(
  piece: Piece,
  same: readonly Piece[],
  all: readonly Piece[],
  shapes: number,
): [number[], number[]] {
  const way = unit2(velocityAt(piece.curve, 0.5));
  const bend = curvatureAt(piece.curve, 0.5);
  // Out of the bend, where the piece does not come round to the ray again.
  const isToLeft = bend < 0;
  const out = scale2(left2(way), isToLeft ? 1 : -1);
  const seen = Array.from({ length: shapes }, () => 0);
  for (const other of all)
    if (!same.includes(other)) seen[other.of]! += rayCrossings(other.points, piece.middle, out);
  const own = Array.from({ length: shapes }, () => 0);
  for (const one of same) own[one.of]! += dot2(unit2(velocityAt(one.curve, 0.5)), way) > 0 ? 1 : -1;
  const beyond = seen.map((n, i) => (isToLeft ? n - own[i]! : n + own[i]!));
  return isToLeft ? [seen, beyond] : [beyond, seen];
}

/** Signed crossings of a ray: those that run to its left count 1. */
function rayCrossings(points: readonly Vec2[], from: Vec2, way: Vec2): number {
  const across = left2(way);
  const side = (p: Vec2) => dot2(across, add2(p, scale2(from, -1)));
  const along = (p: Vec2) => dot2(way, add2(p, scale2(from, -1)));
  let crossings = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const [p, q] = [side(a), side(b)];
    if (p > 0 === q > 0) continue;
    if (along(a) + (p / (p - q)) * (along(b) - along(a)) > 0) crossings += q > p ? 1 : -1;
  }
  return crossings;
}
