/** Smooth curves through points and towards control points, as Bézier curves of degree 3. */
import { add2, distance2, mix2, scale2, subtract2, type Vec2 } from '../space/vector2.ts';
import type { Curve } from './curve.ts';
import { FIT_MM, curvesAlong } from './fitting.ts';

const bezier = (...points: Vec2[]): Curve => ({ kind: 'bezier', points });

/** What a spline is drawn by; closed, it runs on from the last to the first. */
interface SplinePoints {
  readonly points: readonly Vec2[];
  readonly closed: boolean;
}

/**
 * A cubic spline through points, parametrised by the distances between them: natural at open ends, periodic when closed.
 * Source: de Boor, A Practical Guide to Splines, chapter IV, from memory.
 */
export function throughPoints({ points, closed }: SplinePoints): Curve[] {
  const knots = closed ? [...points, points[0]!] : points;
  const gaps = knots.slice(1).map((point, i) => distance2(knots[i]!, point));
  const slopes = closed ? periodicSlopes(points, gaps) : naturalSlopes(points, gaps);
  return gaps.map((gap, i) => {
    const [from, to] = [knots[i]!, knots[i + 1]!];
    const [start, end] = [slopes[i]!, slopes[(i + 1) % slopes.length]!];
    return bezier(from, add2(from, scale2(start, gap / 3)), subtract2(to, scale2(end, gap / 3)), to);
  });
}

function naturalSlopes(points: readonly Vec2[], gaps: readonly number[]): Vec2[] {
  const last = points.length - 1;
  const chord = (i: number) => scale2(subtract2(points[i + 1]!, points[i]!), 1 / gaps[i]!);
  const rows = points.map((_, i): Row => {
    if (i === 0) return { before: 0, here: 2, after: 1, right: scale2(chord(0), 3) };
    if (i === last) return { before: 1, here: 2, after: 0, right: scale2(chord(last - 1), 3) };
    return innerRow(gaps[i - 1]!, gaps[i]!, chord(i - 1), chord(i));
  });
  return solve(rows);
}

function periodicSlopes(points: readonly Vec2[], gaps: readonly number[]): Vec2[] {
  const n = points.length;
  const chord = (i: number) =>
    scale2(subtract2(points[(i + 1) % n]!, points[(i + n) % n]!), 1 / gaps[(i + n) % n]!);
  const rows = points.map((_, i) =>
    innerRow(gaps[(i - 1 + n) % n]!, gaps[i]!, chord((i - 1 + n) % n), chord(i)),
  );
  // The ring is cut at the first slope: solved once without it and once for it alone. Source: Sherman and Morrison.
  const { before, after } = { before: rows[0]!.before, after: rows.at(-1)!.after };
  const gamma = -rows[0]!.here;
  const cut = rows.map((row, i) => ({
    ...row,
    here: row.here - (i === 0 ? gamma : i === n - 1 ? (after * before) / gamma : 0),
  }));
  const plain = solve(cut);
  const unit = solve(
    cut.map((row, i) => ({ ...row, right: [i === 0 ? gamma : i === n - 1 ? after : 0, 0] as Vec2 })),
  ).map(([x]) => x);
  const share = (axis: 0 | 1) =>
    (plain[0]![axis] + (before / gamma) * plain[n - 1]![axis]) /
    (1 + unit[0]! + (before / gamma) * unit[n - 1]!);
  return plain.map(([x, y], i): Vec2 => [x - share(0) * unit[i]!, y - share(1) * unit[i]!]);
}

interface Row {
  readonly before: number;
  readonly here: number;
  readonly after: number;
  readonly right: Vec2;
}

const innerRow = (a: number, b: number, chordA: Vec2, chordB: Vec2): Row => ({
  before: b,
  here: 2 * (a + b),
  after: a,
  right: scale2(add2(scale2(chordA, b), scale2(chordB, a)), 3),
});

/** Source: Thomas's algorithm for tridiagonal systems. */
function solve(rows: readonly Row[]): Vec2[] {
  const ahead: number[] = [];
  const right: Vec2[] = [];
  rows.forEach((row, i) => {
    const pivot = row.here - (i === 0 ? 0 : row.before * ahead[i - 1]!);
    ahead.push(row.after / pivot);
    right.push(
      scale2(i === 0 ? row.right : subtract2(row.right, scale2(right[i - 1]!, row.before)), 1 / pivot),
    );
  });
  for (let i = rows.length - 2; i >= 0; i--)
    right[i] = subtract2(right[i]!, scale2(right[i + 1]!, ahead[i]!));
  return right;
}

/**
 * The cubic B-spline drawn towards points, with even knots; open ones begin and end in their end points.
 * Source: de Boor; the Bézier points by inserting each knot three times, from memory.
 */
export function towardsPoints({ points, closed }: SplinePoints): Curve[] {
  if (!closed) {
    const degree = Math.min(3, points.length - 1);
    return bezierPieces(points, clampedKnots(points.length, degree), degree);
  }
  const n = points.length;
  const at = (i: number) => points[(i + n) % n]!;
  return points.map((_, i) => {
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    const inner1 = mix2(b, c, 1 / 3);
    const inner2 = mix2(b, c, 2 / 3);
    return bezier(
      mix2(mix2(a, b, 2 / 3), inner1, 1 / 2),
      inner1,
      inner2,
      mix2(inner2, mix2(c, d, 1 / 3), 1 / 2),
    );
  });
}

function clampedKnots(count: number, degree: number): number[] {
  const spans = count - degree;
  return [
    ...Array<number>(degree).fill(0),
    ...Array.from({ length: spans + 1 }, (_, i) => i),
    ...Array<number>(degree).fill(spans),
  ];
}

/**
 * The Bézier pieces of a B-spline.
 * @param knots as many as points and degree and one, not falling. Source: Boehm's knot insertion, from memory.
 */
export function bezierPieces(points: readonly Vec2[], knots: readonly number[], degree: number): Curve[] {
  let poles = [...points];
  let row = [...knots];
  const [least, most] = [knots[degree]!, knots[points.length]!];
  for (const knot of [...new Set(knots)].filter((k) => k >= least && k <= most)) {
    const wanted = degree - row.filter((k) => k === knot).length;
    for (let i = 0; i < wanted; i++) [poles, row] = insertKnot({ poles, knots: row, degree }, knot);
  }
  const first = row.findIndex((k) => k === least);
  const spans = new Set(row.filter((k) => k >= least && k <= most)).size - 1;
  // A knot that stands once more than the degree gives its own first point.
  const offset = Math.max(0, row.filter((k) => k === least).length - degree - 1);
  return Array.from({ length: spans }, (_, i): Curve => {
    const at = first + offset + i * degree;
    const piece = poles.slice(at, at + degree + 1);
    return piece.length === 2 ? { kind: 'line', from: piece[0]!, to: piece[1]! } : bezier(...piece);
  });
}

function insertKnot(
  {
    poles,
    knots,
    degree,
  }: { readonly poles: readonly Vec2[]; readonly knots: readonly number[]; readonly degree: number },
  knot: number,
): [Vec2[], number[]] {
  const after = knots.findIndex((k) => k > knot);
  const span = (after < 0 ? knots.length - degree - 1 : after) - 1;
  const made: Vec2[] = [];
  for (let i = 0; i <= poles.length; i++) {
    if (i <= span - degree) made.push(poles[i]!);
    else if (i > span) made.push(poles[i - 1]!);
    else {
      const width = knots[i + degree]! - knots[i]!;
      const share = width === 0 ? 0 : (knot - knots[i]!) / width;
      made.push(mix2(poles[i - 1]!, poles[i]!, share));
    }
  }
  return [made, [...knots.slice(0, span + 1), knot, ...knots.slice(span + 1)]];
}

interface Rational {
  readonly points: readonly Vec2[];
  /** One for each point, above 0. */
  readonly weights: readonly number[];
  readonly knots: readonly number[];
  readonly degree: number;
}

/** Curves along a rational B-spline, span by span, within the tolerance of fitted curves: circles and ellipses are among them. */
export function rationalPieces(spline: Rational): Curve[] {
  const { points, knots, degree } = spline;
  const [least, most] = [knots[degree]!, knots[points.length]!];
  const breaks = [...new Set(knots.filter((knot) => knot >= least && knot <= most))];
  return breaks.slice(1).flatMap((to, i) => {
    const from = breaks[i]!;
    const pieces = curvesAlong((part) => rationalPoint(spline, from, from + (to - from) * part), FIT_MM);
    return pieces ?? [];
  });
}

/** Source: de Boor's algorithm on (w·x, w·y, w). @param from the knot that the span of the parameter begins with */
function rationalPoint({ points, weights, knots, degree }: Rational, from: number, parameter: number): Vec2 {
  const span = knots.lastIndexOf(from);
  let row = Array.from({ length: degree + 1 }, (_, i) => {
    const at = span - degree + i;
    const [x, y] = points[at]!;
    return [weights[at]! * x, weights[at]! * y, weights[at]!] as const;
  });
  for (let level = 1; level <= degree; level++)
    row = row.slice(1).map((here, i) => {
      const low = knots[span - degree + level + i]!;
      const high = knots[span + 1 + i]!;
      const part = (parameter - low) / (high - low);
      const before = row[i]!;
      return [0, 1, 2].map((k) => before[k]! * (1 - part) + here[k]! * part) as unknown as typeof here;
    });
  const [x, y, w] = row[0]!;
  return [x / w, y / w];
}
