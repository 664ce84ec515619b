/** Curves that members stand on: places by length along the curve, mm, and how a member has turned there. */
import type { WayCurve } from '../recipes/layouts/index.ts';
import { angleAbout, turnAbout, turnBetween, multiply, cleanDirection } from '../space/matrix.ts';
import { circlePointOf } from '../space/round.ts';
import { GAUSS } from '../space/gauss.ts';
import { NO_TURN, turnVector, type Turn } from '../space/pose.ts';
import { radians } from '../space/angle.ts';
import { add, cross, distance, dot, length, scale, subtract, unit, type Vec3 } from '../space/vector.ts';

/** A place on a path, and the way it runs there. */
export interface WayPlace {
  readonly point: Vec3;
  /** From the beginning of the curve to here, as the tangent turns. */
  readonly turn: Turn;
}

/** Ends nearer than this (mm) close a curve: the kernel's own tolerance. */
const CLOSED_MM = 1e-7;

/** Whether a path comes back to where it began. */
export function isClosed(curve: WayCurve): boolean {
  if (curve.kind === 'round') return Math.abs(Math.abs(curve.last - curve.first) - 360) < 1e-9;
  return curve.points.length > 2 && distance(curve.points[0]!, curve.points.at(-1)!) < CLOSED_MM;
}

/** The length of a path, mm. */
export function wayLength(curve: WayCurve): number {
  if (curve.kind === 'points') return legsOf(curve.points).reduce((sum, { size }) => sum + size, 0);
  return Math.abs(roundLengthTo(curve, curve.last));
}

/** The place at a length along the curve; beyond its ends it goes on straight, and round a closed one. */
export function wayAt(curve: WayCurve, along: number): WayPlace {
  const whole = wayLength(curve);
  const within = isClosed(curve) && whole > 0 ? along - Math.floor(along / whole) * whole : along;
  return curve.kind === 'points' ? onLegs(curve.points, within) : onRound(curve, within);
}

/** The way the curve goes at a length along it, length 1. */
export function wayDirection(curve: WayCurve, along: number): Vec3 {
  if (curve.kind === 'points') {
    const legs = legsOf(curve.points);
    let left = along;
    for (const leg of legs) {
      if (left <= leg.size) return leg.direction;
      left -= leg.size;
    }
    return legs.at(-1)!.direction;
  }
  const { turn } = onRound(curve, along);
  const start = tangentAt(curve, curve.first);
  const sign = curve.last < curve.first ? -1 : 1;
  return turnVector(turn, scale(start, sign));
}

interface Leg {
  readonly from: Vec3;
  readonly direction: Vec3;
  readonly size: number;
}

/** Legs without length are left out: they have no direction. */
function legsOf(points: readonly Vec3[]): Leg[] {
  return points.slice(1).flatMap((to, i) => {
    const way = subtract(to, points[i]!);
    const size = length(way);
    return size < CLOSED_MM ? [] : [{ from: points[i]!, direction: cleanDirection(unit(way)), size }];
  });
}

function onLegs(points: readonly Vec3[], along: number): WayPlace {
  const legs = legsOf(points);
  let left = along;
  let turn: Turn = NO_TURN;
  for (const [i, leg] of legs.entries()) {
    if (i > 0) turn = multiply(turnBetween(legs[i - 1]!.direction, leg.direction), turn);
    if (left <= leg.size || i === legs.length - 1)
      return { point: add(leg.from, scale(leg.direction, left)), turn };
    left -= leg.size;
  }
  return { point: points[0]!, turn };
}

type Round = Extract<WayCurve, { kind: 'round' }>;

/** Half axes, or conjugate half diameters of an ellipse that was stretched. */
const isCircle = ({ x, y }: Round) =>
  Math.abs(length(x) - length(y)) <= 1e-12 * length(x) && Math.abs(dot(x, y)) <= 1e-12 * dot(x, x);

function onRound(curve: Round, along: number): WayPlace {
  const { x, y, first, last } = curve;
  const sign = last < first ? -1 : 1;
  const angle = isCircle(curve)
    ? first + (sign * along * 180) / Math.PI / length(x)
    : angleAtLength(curve, sign * along);
  const axis = cleanDirection(unit(cross(x, y)));
  const turn = isCircle(curve)
    ? turnAbout(axis, angle - first)
    : turnAbout(axis, angleAbout(axis, tangentAt(curve, first), tangentAt(curve, angle)));
  return { point: circlePointOf(curve, angle), turn };
}

function tangentAt({ x, y }: Round, angle: number): Vec3 {
  const [c, s] = [Math.cos(radians(angle)), Math.sin(radians(angle))];
  return unit([0, 1, 2].map((i) => -s * x[i]! + c * y[i]!) as unknown as Vec3);
}

/** Pieces of an ellipse that the rule is exact on to 1e-12. */
const PIECES_A_TURN = 64;

/** Length from the first angle to another, with its sign. Exact on circles. */
function roundLengthTo(curve: Round, angle: number): number {
  const { x, y, first } = curve;
  if (isCircle(curve)) return radians(angle - first) * length(x);
  const pieces = Math.max(1, Math.ceil((Math.abs(angle - first) / 360) * PIECES_A_TURN));
  const step = radians(angle - first) / pieces;
  let sum = 0;
  for (let piece = 0; piece < pieces; piece++) {
    const middle = radians(first) + step * (piece + 0.5);
    for (const [node, weight] of GAUSS) {
      const at = middle + (node * step) / 2;
      const [c, s] = [Math.cos(at), Math.sin(at)];
      sum += (weight * step * Math.hypot(...[0, 1, 2].map((i) => -s * x[i]! + c * y[i]!))) / 2;
    }
  }
  return sum;
}

/** The angle at a length from the first one, by Newton's method. */
function angleAtLength(curve: Round, along: number): number {
  const whole = roundLengthTo(curve, curve.first + 360);
  let angle = curve.first + (360 * along) / whole;
  for (let round = 0; round < 30; round++) {
    const off = roundLengthTo(curve, angle) - along;
    const [c, s] = [Math.cos(radians(angle)), Math.sin(radians(angle))];
    const speed = radians(1) * Math.hypot(...[0, 1, 2].map((i) => -s * curve.x[i]! + c * curve.y[i]!));
    angle -= off / speed;
    if (Math.abs(off) < 1e-12 * whole) break;
  }
  return angle;
}
