/** Whether drawn curves surely keep clear of each other, so that their loops are the borders of what they enclose. */
import { distance2, dot2, mix2, subtract2, type Vec2 } from '../space/vector2.ts';
import { flattened } from '../curves/flattened.ts';
import type { Path } from './outline.ts';

interface Piece {
  readonly from: Vec2;
  readonly to: Vec2;
  /** How far the curve may depart from it. */
  readonly sag: number;
  readonly path: number;
  /** Its place along the path. */
  readonly at: number;
  /** The box that it surely lies in: it is looked at so often that this is reckoned once. */
  readonly minX: number;
  readonly maxX: number;
  readonly minY: number;
  readonly maxY: number;
}

/** Curves nearer than this are taken to touch, mm: ten times the kernel's own tolerance. */
const TOUCH_MM = 1e-6;

/** True when no two curves come near each other except where one goes on from the other. Errs towards false. */
export function areClear(paths: readonly Path[]): boolean {
  const pieces = paths.map(piecesOf);
  const counts = pieces.map(({ length }) => length);
  let open: Piece[] = [];
  for (const piece of pieces.flat().sort((a, b) => a.minX - b.minX)) {
    open = open.filter((other) => other.maxX + TOUCH_MM >= piece.minX);
    for (const other of open) {
      if (other.maxY + TOUCH_MM < piece.minY || other.minY > piece.maxY + TOUCH_MM) continue;
      if (areNeighbours(piece, other, { closed: paths[piece.path]!.closed, count: counts[piece.path]! }))
        continue;
      if (segmentDistance(piece, other) <= piece.sag + other.sag + TOUCH_MM) return false;
    }
    open.push(piece);
  }
  return true;
}

function piecesOf({ curves }: Path, path: number): Piece[] {
  const pieces: Piece[] = [];
  for (const { curve } of curves) {
    const points = flattened(curve);
    const sag = curve.kind === 'line' ? 0 : sagOf(points);
    for (let i = 1; i < points.length; i++)
      pieces.push(boxed(points[i - 1]!, points[i]!, { sag, path, at: pieces.length }));
  }
  return pieces;
}

/** Each field by itself: there are tens of thousands, and to spread one object into another takes longer than all that is done here. */
function boxed(from: Vec2, to: Vec2, { sag, path, at }: Pick<Piece, 'sag' | 'path' | 'at'>): Piece {
  const [x, y] = from;
  const [toX, toY] = to;
  return {
    from,
    to,
    sag,
    path,
    at,
    minX: (x < toX ? x : toX) - sag,
    maxX: (x < toX ? toX : x) + sag,
    minY: (y < toY ? y : toY) - sag,
    maxY: (y < toY ? toY : y) + sag,
  };
}

function areNeighbours(
  a: Piece,
  b: Piece,
  { closed, count }: { readonly closed: boolean; readonly count: number },
): boolean {
  if (a.path !== b.path) return false;
  const apart = Math.abs(a.at - b.at);
  // A loop of two pieces cannot be distinguished from one that lies on itself.
  return apart === 1 ? count > 2 : closed && apart === count - 1;
}

/** Twice the greatest departure that is found: a bound for curves that do not wind within one step. */
function sagOf(points: readonly Vec2[]): number {
  let sag = 0;
  for (let i = 2; i < points.length; i++) {
    // The departure of a curve from its chord is a quarter of that of every other point from the longer chord.
    const [[fromX, fromY], [x, y], [toX, toY]] = [points[i - 2]!, points[i - 1]!, points[i]!];
    sag = Math.max(sag, Math.hypot(x - (fromX + toX) / 2, y - (fromY + toY) / 2) / 4);
  }
  return 2 * sag;
}

function segmentDistance(a: Piece, b: Piece): number {
  if (doCross(a, b)) return 0;
  return Math.min(
    pointToSegment(a.from, b),
    pointToSegment(a.to, b),
    pointToSegment(b.from, a),
    pointToSegment(b.to, a),
  );
}

function doCross(a: Piece, b: Piece): boolean {
  const side = (p: Vec2, { from, to }: Piece) =>
    Math.sign((to[0] - from[0]) * (p[1] - from[1]) - (to[1] - from[1]) * (p[0] - from[0]));
  return side(a.from, b) !== side(a.to, b) && side(b.from, a) !== side(b.to, a);
}

function pointToSegment(point: Vec2, { from, to }: Piece): number {
  const way = subtract2(to, from);
  const size = dot2(way, way);
  const part = size === 0 ? 0 : Math.max(0, Math.min(1, dot2(subtract2(point, from), way) / size));
  return distance2(point, mix2(from, to, part));
}
