/** Outlines drawn anew through fewer points, or through even ones. */
import { valueOf } from '../recipes/numbers.ts';
import { cross2, distance2, dot2, type Vec2 } from '../space/vector2.ts';
import type { CurveStepOf } from '../recipes/steps/index.ts';
import {
  curveLength,
  endOf,
  line,
  partAtLength,
  pieceOf,
  pointAt,
  startOf,
  velocityAt,
  type Curve,
} from '../curves/curve.ts';
import { flattened } from '../curves/flattened.ts';
import { nearestOn } from '../curves/meetings.ts';
import type { NamedCurve, Path } from './outline.ts';
import { throughPoints } from '../curves/splines.ts';

type Resampling = Pick<CurveStepOf<'resample'>, 'by' | 'as'>;

/** Curves that turn by more than this (degrees) meet in a corner, which is kept. */
const CORNER_DEGREES = 20;

/** A path through points at equal distances on another. */
export function resampled(path: Path, { by, as }: Resampling): Path {
  const name = path.curves[0]!.name;
  const runs = runsOf(path);
  const named = (curves: readonly Curve[]) => curves.map((curve): NamedCurve => ({ name, curve }));
  const curves = runs.flatMap((run) => {
    if (run.every(({ kind }) => kind === 'line') && run.length === 1) return named(run);
    return named(
      'count' in by ? evenly(run, shareOf(run, runs, by.count), as) : within(run, valueOf(by.tolerance), as),
    );
  });
  return { closed: path.closed, curves };
}

/** Curves that go on smoothly; of a closed outline the first run begins at a corner, where there is one. */
function runsOf({ closed, curves }: Path): Curve[][] {
  const all = curves.map(({ curve }) => curve);
  const isCorner = (a: Curve, b: Curve) => {
    const [u, v] = [velocityAt(a, 1), velocityAt(b, 0)];
    return Math.abs(Math.atan2(cross2(u, v), dot2(u, v))) > (CORNER_DEGREES * Math.PI) / 180;
  };
  const first = closed ? all.findIndex((curve, i) => isCorner(all.at(i - 1)!, curve)) : 0;
  const from = Math.max(0, first);
  const turned = [...all.slice(from), ...all.slice(0, from)];
  const runs: Curve[][] = [];
  turned.forEach((curve, i) => {
    if (i === 0 || isCorner(turned[i - 1]!, curve)) runs.push([curve]);
    else runs.at(-1)!.push(curve);
  });
  return runs;
}

const lengthOf = (run: readonly Curve[]) => run.reduce((sum, curve) => sum + curveLength(curve), 0);

/** How many pieces a run gets of those of the whole outline: by its length, one at least. */
function shareOf(run: readonly Curve[], runs: readonly (readonly Curve[])[], count: number): number {
  const whole = runs.reduce((sum, one) => sum + lengthOf(one), 0);
  return Math.max(1, Math.round((count * lengthOf(run)) / whole));
}

const isRing = (run: readonly Curve[]) => distance2(startOf(run[0]!), endOf(run.at(-1)!)) === 0;

const SHORT_PIECES = 16;
const shortPieces = (curve: Curve): Curve[] =>
  curve.kind === 'line' || curve.kind === 'arc'
    ? [curve]
    : Array.from({ length: SHORT_PIECES }, (_, i) =>
        pieceOf(curve, i / SHORT_PIECES, (i + 1) / SHORT_PIECES),
      );

/** Points at even distances along a run, its ends among them. */
function evenPoints(run: readonly Curve[], pieces: number): Vec2[] {
  // Short pieces have their lengths found quickly, and points on them too.
  const short = run.flatMap(shortPieces);
  const lengths = short.map(curveLength);
  const whole = lengths.reduce((a, b) => a + b, 0);
  const points: Vec2[] = [startOf(run[0]!)];
  let [c, passed] = [0, 0];
  for (let i = 1; i < pieces; i++) {
    const goal = (whole * i) / pieces;
    while (c < short.length - 1 && passed + lengths[c]! < goal) passed += lengths[c++]!;
    points.push(pointAt(short[c]!, partAtLength(short[c]!, Math.min(goal - passed, lengths[c]!)) ?? 1));
  }
  return [...points, endOf(run.at(-1)!)];
}

function drawn(
  points: readonly Vec2[],
  { as, ring }: { readonly as: Resampling['as']; readonly ring: boolean },
): Curve[] {
  if (as === 'lines' || points.length < 3) return points.slice(1).map((to, i) => line(points[i]!, to));
  return throughPoints({ points: ring ? points.slice(0, -1) : points, closed: ring });
}

const evenly = (run: readonly Curve[], pieces: number, as: Resampling['as']): Curve[] =>
  drawn(evenPoints(run, isRing(run) ? Math.max(3, pieces) : pieces), { as, ring: isRing(run) });

const MAX_PIECES = 4096;

/** As few even points as keep within a distance; of straight lines the points that are needed, at no even distances. */
function within(run: readonly Curve[], tolerance: number, as: Resampling['as']): Curve[] {
  if (as === 'lines') {
    const points = fewest(fine(run), tolerance);
    return points.slice(1).map((to, i) => line(points[i]!, to));
  }
  let [low, high] = [isRing(run) ? 3 : 1, isRing(run) ? 3 : 1];
  const fits = (pieces: number) => departure(run, evenly(run, pieces, as), tolerance) <= tolerance;
  while (high < MAX_PIECES && !fits(high)) [low, high] = [high, high * 2];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (fits(middle)) high = middle;
    else low = middle;
  }
  return evenly(run, high, as);
}

/** Points of each curve close together: lines need their ends alone. */
const FINE_STEPS = 32;
const fine = (run: readonly Curve[]): Vec2[] => [
  startOf(run[0]!),
  ...run.flatMap((curve) =>
    curve.kind === 'line'
      ? [curve.to]
      : Array.from({ length: FINE_STEPS }, (_, i) => pointAt(curve, (i + 1) / FINE_STEPS)),
  ),
];

/** Source: Ramer, Douglas and Peucker's algorithm. */
function fewest(points: readonly Vec2[], tolerance: number): Vec2[] {
  const kept = new Set([0, points.length - 1]);
  const open: [number, number][] = [[0, points.length - 1]];
  for (let range = open.pop(); range; range = open.pop()) {
    const [from, to] = range;
    // The chord of a ring has no length: the farthest point splits it.
    const chord = line(points[from]!, points[to]!);
    let [far, at] = [tolerance, -1];
    for (let i = from + 1; i < to; i++) {
      const off =
        distance2(points[from]!, points[to]!) === 0
          ? distance2(points[i]!, points[from]!)
          : nearestOn(chord, points[i]!).distance;
      if (off > far) [far, at] = [off, i];
    }
    if (at < 0) continue;
    kept.add(at);
    open.push([from, at], [at, to]);
  }
  return points.filter((_, i) => kept.has(i));
}

/**
 * The greatest distance of the first curves from the others, mm, measured at points close together.
 * @param enough what is more than this need not be exact
 */
export function departure(from: readonly Curve[], to: readonly Curve[], enough = Infinity): number {
  const targets = to.map((curve) => {
    const points = flattened(curve);
    return { curve, points, reach: curveLength(curve), start: points[0]! };
  });
  let max = 0;
  for (const point of fine(from)) {
    let min = Infinity;
    for (const { curve, points, reach, start } of targets) {
      // A curve that begins farther away than its length and the best one so far cannot come nearer.
      if (distance2(start, point) - reach > min) continue;
      min = Math.min(min, nearestOn(curve, point, points).distance);
    }
    max = Math.max(max, min);
    if (max > enough) break;
  }
  return max;
}
