/** Where the plane is filled by closed paths, by the even-odd rule, and how far it is to their curves. */
import type { Vec2 } from '../space/vector2.ts';
import { pointAt, type Curve } from '../curves/curve.ts';
import { boxOfCurves, flattened, turningParts, type Box2 } from '../curves/flattened.ts';
import { nearestOn } from '../curves/meetings.ts';
import type { Path } from './outline.ts';

/** A curve that neither turns back along X nor along Y, between two points that it shares with those before and after it. */
interface Rise {
  readonly curve: Curve;
  /** Parts of the way. */
  readonly first: number;
  readonly last: number;
  readonly from: Vec2;
  readonly to: Vec2;
}

interface Border {
  readonly curve: Curve;
  readonly box: Box2;
  readonly points: readonly Vec2[];
}

/**
 * A point → its distance from the border of what closed paths fill, mm, below 0 inside. The paths must keep clear of one another
 * and of themselves. The side is determined by the true curves, not by pieces of them.
 */
export function filledDistance(paths: readonly Path[]): (point: Vec2) => number {
  const closed = paths.filter((path) => path.closed && path.curves.length > 0);
  const rises = closed.flatMap(risesOf);
  const borders = closed.flatMap(({ curves }) => curves.map(({ curve }) => borderOf(curve)));
  return (point) => {
    const distance = minDistance(borders, point);
    return isFilled(rises, point) ? -distance : distance;
  };
}

const borderOf = (curve: Curve): Border => ({
  curve,
  box: boxOfCurves([curve])!,
  points: flattened(curve),
});

function minDistance(borders: readonly Border[], point: Vec2): number {
  let min = Infinity;
  for (const { curve, box, points } of borders) {
    if (boxDistance(box, point) >= min) continue;
    min = Math.min(min, nearestOn(curve, point, points).distance);
  }
  return min;
}

const boxDistance = ({ min, max }: Box2, [x, y]: Vec2): number =>
  Math.hypot(Math.max(min[0] - x, 0, x - max[0]), Math.max(min[1] - y, 0, y - max[1]));

/** Each begins at the very point where the last one ended, so that no ray slips through between them. */
function risesOf({ curves }: Path): Rise[] {
  const pieces = curves.flatMap(({ curve }) => {
    const cuts = [...new Set(turningParts(curve))].sort((a, b) => a - b);
    return cuts.slice(1).map((last, i) => ({ curve, first: cuts[i]!, last }));
  });
  const starts = pieces.map(({ curve, first }) => pointAt(curve, first));
  return pieces.map((piece, i) => ({ ...piece, from: starts[i]!, to: starts[(i + 1) % starts.length]! }));
}

/** Source: ray crossing, as in any textbook of computational geometry. */
function isFilled(rises: readonly Rise[], [x, y]: Vec2): boolean {
  let inside = false;
  for (const rise of rises) {
    const { from, to } = rise;
    if (from[1] > y === to[1] > y) continue;
    if (x >= Math.max(from[0], to[0])) continue;
    if (x < Math.min(from[0], to[0]) || x < crossingAt(rise, y)) inside = !inside;
  }
  return inside;
}

/** X where it passes a height, by halving; of lines by the rule of three. */
function crossingAt({ curve, first, last, from, to }: Rise, y: number): number {
  if (curve.kind === 'line') return from[0] + ((y - from[1]) / (to[1] - from[1])) * (to[0] - from[0]);
  const isUp = to[1] > from[1];
  let [low, high] = [first, last];
  for (let round = 0; round < MAX_HALVINGS && high - low > Number.EPSILON; round++) {
    const middle = (low + high) / 2;
    if (pointAt(curve, middle)[1] > y === isUp) high = middle;
    else low = middle;
  }
  return pointAt(curve, (low + high) / 2)[0];
}
const MAX_HALVINGS = 60;
