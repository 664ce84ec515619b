/** Edges of a built shape that a choice means, for showing them. The kernel decides when the step is built. */
import { MEETING, ownersOf, sharesName } from '../document/naming.ts';
import type { ChosenEdge } from '../recipes/chosen.ts';
import { runningOn, type EdgeEnd } from '../space/running.ts';
import { distance, scale, subtract, unit, type Vec3 } from '../space/vector.ts';
import { CURVE_LINE, CURVE_POLYLINE, CURVE_STRIDE, circlePoint, type ShapeFeatures } from './shape.ts';

/** Pieces that a round edge is shown by. */
const ROUND_PIECES = 48;
/** Directions this near to an axis (sine) run along it. */
const ALONG_SINE = 1e-9;

/** Points along an edge in the shape’s own frame, mm. */
export function pointsOfCurve(features: ShapeFeatures, curve: number): Vec3[] {
  const data = CURVE_STRIDE * curve;
  const triple = (from: number, of: Float64Array = features.curves): Vec3 => [
    of[from]!,
    of[from + 1]!,
    of[from + 2]!,
  ];
  const kind = features.curveKind[curve];
  if (kind === CURVE_LINE) return [triple(data), triple(data + 3)];
  if (kind === CURVE_POLYLINE) {
    const [first, count] = [features.curves[data]!, features.curves[data + 1]!];
    return Array.from({ length: count }, (_, i) => triple(3 * (first + i), features.polyline));
  }
  const [from, to] = [features.curves[data + 9]!, features.curves[data + 10]!];
  return Array.from({ length: ROUND_PIECES + 1 }, (_, i) => {
    return circlePoint(features.curves, data, from + ((to - from) * i) / ROUND_PIECES);
  });
}

/** Indices of edges. What depends on the bend of an edge is not known here: none are meant by it. */
export function curvesChosen(features: ShapeFeatures, chosen: readonly ChosenEdge[]): number[] {
  const found = new Set<number>();
  for (const one of chosen) for (const curve of curvesMeant(features, one)) found.add(curve);
  return [...found];
}

function curvesMeant(features: ShapeFeatures, one: ChosenEdge): number[] {
  const meeting = [...features.curveName.keys()].filter((c) => facesOf(features, c).length === 2);
  if ('around' in one)
    return meeting.filter((c) => facesOf(features, c).some((name) => sharesName(one.around, name)));
  if ('rule' in one) return meeting.filter((c) => isMeant(features, c, one.rule));
  const { near } = one;
  if ('from' in one) {
    const first = curvesMeant(features, { edge: one.from, ...(near ? { near } : {}) });
    return runningOn(meeting, first, {
      endsOf: (curve) => endsOfCurve(features, curve),
      smoothSine: SMOOTH_SINE,
    });
  }
  const named = meeting.filter((c) => features.names[features.curveName[c]!] === one.edge);
  if (!near || named.length < 2) return named;
  const gaps = named.map((c) => Math.min(...pointsOfCurve(features, c).map((at) => distance(at, near))));
  return [named[gaps.indexOf(Math.min(...gaps))]!];
}

/** Directions at their ends (sine) are determined by points of the edges, which are near one another. */
const SMOOTH_SINE = 0.1;

function endsOfCurve(features: ShapeFeatures, curve: number): EdgeEnd[] {
  const points = pointsOfCurve(features, curve);
  const backwards = [...points].reverse();
  return [points, backwards].map(([at, next, after]) => ({
    at: at!,
    out: scale(unit(startOf([at!, next!, after])), -1),
  }));
}

/** The direction in which a run of points begins, as a parabola through three of them has it. */
function startOf([at, next, after]: readonly [Vec3, Vec3, Vec3 | undefined]): Vec3 {
  const first = subtract(next, at);
  return after ? subtract(scale(first, 4), subtract(after, at)) : first;
}

const facesOf = (features: ShapeFeatures, curve: number): string[] =>
  features.names[features.curveName[curve]!]!.split(MEETING);

function isMeant(features: ShapeFeatures, curve: number, rule: string): boolean {
  if (rule === 'all') return true;
  if (rule === 'met') {
    const [a, b] = facesOf(features, curve).map(ownersOf);
    return a!.every((owner) => !b!.includes(owner));
  }
  const axis = 'xyz'.indexOf(rule);
  if (axis < 0 || features.curveKind[curve] !== CURVE_LINE) return false;
  const [from, to] = pointsOfCurve(features, curve);
  return Math.hypot(...unit(subtract(to!, from!)).filter((_, i) => i !== axis)) < ALONG_SINE;
}
