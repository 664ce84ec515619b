/** Curves as boxes, as straight pieces, and cut where they turn. */
import { endOf, integrate, pieceOf, pointAt, startOf, velocityAt, type Curve } from './curve.ts';
import { degrees, radians } from '../space/angle.ts';
import { cross2, dot2, subtract2, type Vec2 } from '../space/vector2.ts';

/** ½∮(x dy − y dx) along the curve: what it adds to the area of the loop it belongs to. Source: Green's theorem. */
export function areaBelow(curve: Curve): number {
  switch (curve.kind) {
    case 'line':
      return cross2(curve.from, curve.to) / 2;
    case 'arc':
      return (
        (curve.radius ** 2 * radians(curve.sweep) +
          cross2(curve.centre, subtract2(endOf(curve), startOf(curve)))) /
        2
      );
    case 'ellipse':
      return (
        (cross2(curve.x, curve.y) * radians(curve.sweep) +
          cross2(curve.centre, subtract2(endOf(curve), startOf(curve)))) /
        2
      );
    case 'bezier':
      return integrate(
        (part) => cross2(pointAt(curve, part), velocityAt(curve, part)) / 2,
        Math.ceil(curve.points.length / 5),
      );
  }
}

/** Parts of the way where the curve runs along an axis, or begins, or ends: its box goes through the points there. */
export function turningParts(curve: Curve): number[] {
  const ends = [0, 1];
  if (curve.kind === 'line') return ends;
  if (curve.kind === 'bezier') return [...ends, ...bezierTurns(curve)];
  const angles =
    curve.kind === 'arc'
      ? [0, 90]
      : [degrees(Math.atan2(curve.y[0], curve.x[0])), degrees(Math.atan2(curve.y[1], curve.x[1]))];
  const found = angles.flatMap((angle) => {
    const [least, most] = [Math.min(0, curve.sweep), Math.max(0, curve.sweep)];
    const from = Math.ceil((curve.first + least - angle) / 180);
    const to = Math.floor((curve.first + most - angle) / 180);
    return Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => angle + 180 * (from + i));
  });
  return [...ends, ...found.map((angle) => (angle - curve.first) / curve.sweep)];
}

/** Where a Bézier curve's velocity crosses zero in x or y: in closed form up to degree 3, else between samples. */
function bezierTurns(curve: Extract<Curve, { kind: 'bezier' }>): number[] {
  const { points } = curve;
  const steps = points.slice(1).map((point, i) => subtract2(point, points[i]!));
  return ([0, 1] as const).flatMap((axis) => {
    if (steps.length > 3) return sampledTurns(curve, axis);
    const [a, b, c] = steps.map((step) => step[axis]) as [number, number, number?];
    // The velocity is a·(1 − t) + b·t, or a·(1 − t)² + 2b·t(1 − t) + c·t².
    const roots = c === undefined ? [a / (a - b)] : quadraticRoots(a - 2 * b + c, 2 * (b - a), a);
    return roots.filter((root) => root > 0 && root < 1);
  });
}

/** Source: the quadratic formula in its stable form. */
function quadraticRoots(a: number, b: number, c: number): number[] {
  const inside = b * b - 4 * a * c;
  if (inside < 0) return [];
  const q = -(b + (b < 0 ? -1 : 1) * Math.sqrt(inside)) / 2;
  return [q / a, c / q].filter(Number.isFinite);
}

function sampledTurns(curve: Curve, axis: 0 | 1): number[] {
  const found: number[] = [];
  const speed = (part: number) => velocityAt(curve, part)[axis];
  for (let i = 0; i < 64; i++) {
    let [a, b] = [i / 64, (i + 1) / 64];
    if (speed(a) * speed(b) > 0) continue;
    for (let round = 0; round < 50; round++) {
      const middle = (a + b) / 2;
      if (speed(a) * speed(middle) <= 0) b = middle;
      else a = middle;
    }
    found.push((a + b) / 2);
  }
  return found;
}

/** A rectangle along the axes of a plane, mm. */
export interface Box2 {
  readonly min: Vec2;
  readonly max: Vec2;
}

/** The box round curves; undefined for none. */
export function boxOfCurves(curves: readonly Curve[]): Box2 | undefined {
  const points = curves.flatMap((curve) => turningParts(curve).map((part) => pointAt(curve, part)));
  if (points.length === 0) return undefined;
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return {
    min: [xs.reduce((a, b) => Math.min(a, b)), ys.reduce((a, b) => Math.min(a, b))],
    max: [xs.reduce((a, b) => Math.max(a, b)), ys.reduce((a, b) => Math.max(a, b))],
  };
}

/** Points along the curve, for pictures and for asking what lies inside: round ones in steps of at most 5°. */
export function flattened(curve: Curve): Vec2[] {
  const steps =
    curve.kind === 'line'
      ? 1
      : curve.kind === 'bezier'
        ? 24
        : Math.max(4, Math.ceil(Math.abs(curve.sweep) / 5));
  return Array.from({ length: steps + 1 }, (_, i) => pointAt(curve, i / steps));
}

/**
 * Pieces none of which crosses itself: a piece that turns by less than 180° cannot. Arcs of more than a turn do not occur.
 */
export function simplePieces(curve: Curve): Curve[] {
  // A parabola does not cross itself.
  if (curve.kind !== 'bezier' || curve.points.length < 4) return [curve];
  const cuts = [0];
  let turned = 0;
  let last = velocityAt(curve, 0);
  for (let i = 1; i <= TURN_SAMPLES; i++) {
    const next = velocityAt(curve, i / TURN_SAMPLES);
    turned += Math.abs(Math.atan2(cross2(last, next), dot2(last, next)));
    last = next;
    if (turned > Math.PI / 2 && i < TURN_SAMPLES) {
      cuts.push(i / TURN_SAMPLES);
      turned = 0;
    }
  }
  cuts.push(1);
  return cuts.length === 2 ? [curve] : cuts.slice(1).map((to, i) => pieceOf(curve, cuts[i]!, to));
}

const TURN_SAMPLES = 48;
