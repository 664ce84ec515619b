/** Bézier curves that follow a smooth way to within a tolerance. */
import { distance2, mix2, type Vec2 } from '../space/vector2.ts';
import { pointAt, type Curve } from './curve.ts';

/** How near a curve keeps to a way that is known exactly, mm: a tenth of what the kernel takes for one place. */
export const FIT_MM = 1e-8;
/** High enough that a gentle bend is one piece; low enough that the weights below lose no digits. */
const DEGREE = 11;
/** A way that is halved more often than this is not smooth. */
const MAX_HALVES = 7;

/** Where polynomials are fixed: the extremes of Chebyshev's, between 0 and 1, which keep what lies between them near. */
const NODES = Array.from({ length: DEGREE + 1 }, (_, i) => (1 - Math.cos((Math.PI * i) / DEGREE)) / 2);
/** Control points from the points at the nodes. */
const WEIGHTS = inverted(NODES.map(bernstein));

/**
 * Pieces end to end along a way; undefined where it is not smooth.
 * @param way the point at a part of it, from 0 to 1
 * @param within how far they may depart from it, mm
 */
export const curvesAlong = (way: (part: number) => Vec2, within: number): Curve[] | undefined =>
  pieces(way, within, { from: 0, to: 1, halves: 0 });

interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly halves: number;
}

function pieces(
  way: (part: number) => Vec2,
  within: number,
  { from, to, halves }: Stretch,
): Curve[] | undefined {
  const at = (part: number) => way(part === 1 ? to : from + (to - from) * part);
  const fixed = NODES.map(at);
  const points = WEIGHTS.map((row, i): Vec2 => {
    // The ends are met bit for bit.
    if (i === 0 || i === DEGREE) return fixed[i]!;
    return row.reduce<Vec2>(([x, y], w, k) => [x + w * fixed[k]![0], y + w * fixed[k]![1]], [0, 0]);
  });
  const curve: Curve = { kind: 'bezier', points };
  const isNear = NODES.slice(1).every((node, i) => {
    const between = (node + NODES[i]!) / 2;
    return distance2(pointAt(curve, between), at(between)) <= within;
  });
  if (isNear) return [curve];
  if (halves >= MAX_HALVES) return undefined;
  const middle = (from + to) / 2;
  const head = pieces(way, within, { from, to: middle, halves: halves + 1 });
  const tail = head && pieces(way, within, { from: middle, to, halves: halves + 1 });
  return tail && [...head, ...tail];
}

/** The weights of the control points at a part of the way, by de Casteljau's algorithm on unit vectors. */
function bernstein(part: number): number[] {
  return Array.from({ length: DEGREE + 1 }, (_, i) => {
    let row: Vec2[] = Array.from({ length: DEGREE + 1 }, (_, k) => [k === i ? 1 : 0, 0]);
    while (row.length > 1) row = row.slice(1).map((point, k) => mix2(row[k]!, point, part));
    return row[0]![0];
  });
}

/** Source: Gauss–Jordan elimination with the greatest pivot. */
function inverted(matrix: readonly (readonly number[])[]): number[][] {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...row.map((_, k) => (k === i ? 1 : 0))]);
  for (let c = 0; c < n; c++) {
    const best = rows
      .slice(c)
      .reduce((max, row, k) => (Math.abs(row[c]!) > Math.abs(rows[max]![c]!) ? c + k : max), c);
    [rows[c], rows[best]] = [rows[best]!, rows[c]!];
    const pivot = rows[c]!.map((value) => value / rows[c]![c]!);
    rows[c] = pivot;
    rows.forEach((row, i) => {
      if (i !== c) rows[i] = row.map((value, k) => value - row[c]! * pivot[k]!);
    });
  }
  return rows.map((row) => row.slice(n));
}
