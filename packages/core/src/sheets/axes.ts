/** Centre lines: the axes of round things that a view sees from the side, from their first whole circle to their last. */
import type { DrawnAxis } from '../questions/question.ts';
import { edgeGeometry } from '../snapping/feature.ts';
import { CURVE_CIRCLE, type ShapeFeatures } from '../snapping/shape.ts';
import { carry, chain, inverse, turnVector, type Pose } from '../space/pose.ts';
import { add2, dot2, left2, scale2, type Vec2 } from '../space/vector2.ts';
import { SWEEP_SLACK, sweepOf, type Shown } from './catches.ts';

/** How far an axis may lean out of the plane of the view, and still be drawn. */
const LEANING = 1e-9;
/** Axes nearer to one another than this (mm, and parts of a turn) are one. */
const SAME = 1e-6;

interface End {
  readonly at: Vec2;
  readonly way: Vec2;
}

/** Circles about one axis, which are seen from their edges. */
interface Line {
  readonly way: Vec2;
  /** From the origin, to the left of the way, mm. */
  readonly off: number;
  /** Along the way, from the origin. */
  readonly stops: number[];
}

/** In the frame of the view. */
export function seenAxes(frame: Pose, { solids, features }: Pick<Shown, 'solids' | 'features'>): DrawnAxis[] {
  const back = inverse(frame);
  return solids.flatMap((solid) => {
    const own = features(solid);
    if (!own) return [];
    const lines: Line[] = [];
    for (const end of endsOf(own, chain(back, solid.pose))) gather(lines, end);
    return lines.flatMap(({ way, off, stops }): DrawnAxis[] => {
      const [low, high] = [Math.min(...stops), Math.max(...stops)];
      if (high - low < SAME) return [];
      const foot = scale2(left2(way), off);
      const at = (along: number) => add2(foot, scale2(way, along));
      return [[at(low), at(high)]];
    });
  });
}

/** Whole circles that are seen from their edges. */
function* endsOf(features: ShapeFeatures, pose: Pose): Generator<End> {
  for (let c = 0; c < features.curveKind.length; c++) {
    if (features.curveKind[c] !== CURVE_CIRCLE || Math.abs(sweepOf(features, c)) < 360 - SWEEP_SLACK)
      continue;
    const circle = edgeGeometry(features, c)!;
    if (circle.kind !== 'axis') continue;
    const [x, y, z] = turnVector(pose.turn, circle.direction);
    if (Math.abs(z) > LEANING) continue;
    // One way of the two.
    const side = x < -LEANING || (Math.abs(x) <= LEANING && y < 0) ? -1 : 1;
    const at = carry(pose, circle.at);
    yield { at: [at[0], at[1]], way: [side * x, side * y] };
  }
}

function gather(lines: Line[], { at, way }: End): void {
  const off = dot2(at, left2(way));
  const known = lines.find(
    (line) =>
      Math.abs(line.off - off) < SAME && Math.hypot(line.way[0] - way[0], line.way[1] - way[1]) < SAME,
  );
  const stop = dot2(at, way);
  if (known) known.stops.push(stop);
  else lines.push({ way, off, stops: [stop] });
}
