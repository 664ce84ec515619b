/** What lies within a circle on paper, for details. */
import { circle, pointAt, startOf, endOf, piecesBetween, type Curve } from '../curves/curve.ts';
import { meetings } from '../curves/meetings.ts';
import { cosDegrees, sinDegrees } from '../space/angle.ts';
import { add2, distance2, dot2, scale2, subtract2, type Vec2 } from '../space/vector2.ts';
import type { Mark } from './marks.ts';

/** On paper, mm. */
export interface Ring {
  readonly centre: Vec2;
  readonly radius: number;
}

/** Pieces shorter than this (mm) are not seen. */
const MIN_PIECE_MM = 1e-6;
/** Points farther apart than this (mm) are not joined. */
const JOINED_MM = 1e-6;
/** Sides of the polygon that fills are cut along. */
const SIDES = 90;

/** The marks as far as they lie within the ring; texts are those of whole marks. */
export const clippedTo = (ring: Ring, marks: readonly Mark[]): Mark[] =>
  marks.flatMap((mark): Mark[] => {
    if (mark.kind === 'path')
      return chains(mark.curves.flatMap((curve) => within(ring, curve))).map((curves) => ({
        ...mark,
        closed: mark.closed && curves.length === mark.curves.length && isClosed(curves),
        curves,
      }));
    if (mark.kind === 'fill') {
      const loops = mark.loops.map((loop) => clippedLoop(ring, loop)).filter((loop) => loop.length > 2);
      return loops.length === 0 ? [] : [{ ...mark, loops }];
    }
    return distance2(mark.at, ring.centre) <= ring.radius ? [mark] : [];
  });

function within({ centre, radius }: Ring, curve: Curve): Curve[] {
  const cuts = meetings(curve, circle(centre, radius)).map(({ a }) => a);
  return piecesBetween(curve, cuts, MIN_PIECE_MM).filter(
    (piece) => distance2(pointAt(piece, 0.5), centre) <= radius,
  );
}

/** Pieces that go on into one another, in runs. */
function chains(pieces: readonly Curve[]): Curve[][] {
  const runs: Curve[][] = [];
  for (const piece of pieces) {
    const run = runs.at(-1);
    if (run && distance2(endOf(run.at(-1)!), startOf(piece)) <= JOINED_MM) run.push(piece);
    else runs.push([piece]);
  }
  return runs;
}

const isClosed = (curves: readonly Curve[]) =>
  distance2(endOf(curves.at(-1)!), startOf(curves[0]!)) <= JOINED_MM;

/** Cut along a polygon round the ring. Source: I. Sutherland, G. Hodgman, *Reentrant polygon clipping*, 1974. */
function clippedLoop({ centre, radius }: Ring, loop: readonly Vec2[]): readonly Vec2[] {
  let left = loop;
  for (let i = 0; i < SIDES && left.length > 0; i++) {
    const angle = (360 * i) / SIDES;
    const out: Vec2 = [cosDegrees(angle), sinDegrees(angle)];
    const off = (point: Vec2) => dot2(subtract2(point, centre), out) - radius;
    left = left.flatMap((point, k) => {
      const before = left.at(k - 1)!;
      const [a, b] = [off(before), off(point)];
      const crossing = add2(before, scale2(subtract2(point, before), a / (a - b)));
      if (a > 0 !== b > 0) return b > 0 ? [crossing] : [crossing, point];
      return b > 0 ? [] : [point];
    });
  }
  return left;
}
