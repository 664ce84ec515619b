/** Edges as curves that members may stand on, by the names of the faces that meet there. */
import { MEETING } from '../document/naming.ts';
import type { WayCurve } from '../recipes/layouts/index.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { carry, turnVector, type Pose } from '../space/pose.ts';
import { distance, type Vec3 } from '../space/vector.ts';
import { refuse, type Refusal } from '../refusals/refusal.ts';
import { edgeFit } from './feature.ts';
import type { NamedPoint } from './locate.ts';
import { CURVE_LINE, CURVE_POLYLINE, CURVE_STRIDE, circlePoint, type ShapeFeatures } from './shape.ts';

/** The edge that names mean, in the shape's own frame; of several that fit, the one nearest to `near`. */
export function locateWay(
  features: ShapeFeatures,
  named: NamedPoint,
  document: KadrelDocument,
): WayCurve | Refusal {
  const written = named.at.split(MEETING).map((name) => name.trim());
  const found: { curve: WayCurve; fit: number }[] = [];
  features.curveName.forEach((name, c) => {
    const names = features.names[name]!.split(MEETING);
    // What is drawn has curves with names of their own; edges lie between two faces.
    const isDrawn = names.length === 1 && written.length === 1;
    const fit = isDrawn ? Number(names[0] === written[0]) : edgeFit(written, names, document);
    if (fit > 0) found.push({ curve: isDrawn ? drawnWay(features, c) : wayOf(features, c), fit });
  });
  const best = Math.max(0, ...found.map(({ fit }) => fit));
  const fitting = found.filter(({ fit }) => fit === best).map(({ curve }) => curve);
  const what = `edge ${named.at} of ${named.on}`;
  if (fitting.length === 0) return refuse('no-such-feature', { what });
  const { near } = named;
  if (near) fitting.sort((a, b) => offTo(a, near) - offTo(b, near));
  else if (fitting.length > 1) return refuse('ambiguous.edges', { fitting: fitting.length, what });
  return fitting[0]!;
}

type Triple = [number, number, number];

function wayOf({ curveKind, curves, polyline }: ShapeFeatures, c: number): WayCurve {
  const data = CURVE_STRIDE * c;
  const triple = (list: Float64Array, from: number): Triple => [
    list[from]!,
    list[from + 1]!,
    list[from + 2]!,
  ];
  if (curveKind[c] === CURVE_LINE)
    return { kind: 'points', points: [triple(curves, data), triple(curves, data + 3)] };
  if (curveKind[c] === CURVE_POLYLINE) {
    const [from, count] = [curves[data]!, curves[data + 1]!];
    return {
      kind: 'points',
      points: Array.from({ length: count }, (_, i) => triple(polyline, 3 * (from + i))),
    };
  }
  return {
    kind: 'round',
    centre: triple(curves, data),
    x: triple(curves, data + 3),
    y: triple(curves, data + 6),
    first: curves[data + 9]!,
    last: curves[data + 10]!,
  };
}

/** All legs that a drawn leg hangs together with, from their beginning to their end; a curve that is bent by itself. */
function drawnWay(features: ShapeFeatures, c: number): WayCurve {
  const way = wayOf(features, c);
  if (features.curveKind[c] !== CURVE_LINE || way.kind !== 'points') return way;
  const legs = [...features.curveKind.keys()]
    .filter((k) => k !== c && features.curveKind[k] === CURVE_LINE)
    .map((k) => wayOf(features, k))
    .flatMap((leg) => (leg.kind === 'points' ? [leg.points as [Triple, Triple]] : []));
  const points = [...(way.points as Triple[])];
  for (;;) {
    const [first, last] = [points[0]!, points.at(-1)!];
    if (isSame(first, last)) break;
    const before = legs.findIndex(([, end]) => isSame(end, first));
    const after = legs.findIndex(([start]) => isSame(start, last));
    if (before < 0 && after < 0) break;
    if (before >= 0) points.unshift(legs[before]![0]);
    else points.push(legs[after]![1]);
    legs.splice(before >= 0 ? before : after, 1);
  }
  return { kind: 'points', points };
}

const isSame = (a: Triple, b: Triple) => a.every((n, i) => Math.abs(n - b[i]!) <= SAME_PLACE_MM);
/** Ends of legs that meet are reckoned from the same numbers, mm. */
const SAME_PLACE_MM = 1e-9;

/** A path of the inner frame in the outer one. */
export function carryWay(pose: Pose, curve: WayCurve): WayCurve {
  if (curve.kind === 'points')
    return { kind: 'points', points: curve.points.map((point) => [...carry(pose, point)] as Triple) };
  return {
    ...curve,
    centre: [...carry(pose, curve.centre)] as Triple,
    x: [...turnVector(pose.turn, curve.x)] as Triple,
    y: [...turnVector(pose.turn, curve.y)] as Triple,
  };
}

/** Places on a curve that tell one from another of the same name. */
const PLACES = 32;

function offTo(curve: WayCurve, near: Vec3): number {
  const places: Vec3[] =
    curve.kind === 'round'
      ? Array.from({ length: PLACES }, (_, i) =>
          circlePoint(
            Float64Array.of(...curve.centre, ...curve.x, ...curve.y),
            0,
            curve.first + ((curve.last - curve.first) * i) / (PLACES - 1),
          ),
        )
      : curve.points.flatMap((point, i) => {
          const next = curve.points[i + 1];
          const at = (s: number): Vec3 =>
            [0, 1, 2].map((k) => point[k]! + s * (next![k]! - point[k]!)) as unknown as Vec3;
          return next ? Array.from({ length: PLACES }, (_, k) => at(k / (PLACES - 1))) : [];
        });
  return Math.min(...places.map((place) => distance(place, near)));
}
