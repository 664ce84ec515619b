/** Curves of a plane: lines, arcs of circles and ellipses, and Bézier curves. mm and degrees, in the plane's frame. */
import { z } from 'zod';
import { cosDegrees, degrees, radians, sinDegrees } from '../space/angle.ts';
import { GAUSS } from '../space/gauss.ts';
import {
  add2,
  carry2,
  cross2,
  distance2,
  dot2,
  length2,
  mix2,
  scale2,
  subtract2,
  type Affine2,
  type Vec2,
} from '../space/vector2.ts';

const finite = z.number().finite();

const pairSchema = z.tuple([finite, finite]);

const lineSchema = z.strictObject({ kind: z.literal('line'), from: pairSchema, to: pairSchema });

const arcSchema = z.strictObject({
  kind: z.literal('arc'),
  centre: pairSchema,
  radius: finite.positive(),
  /** Where it begins, degrees from X towards Y. */
  first: finite,
  /** How far it goes: positive is counter-clockwise; ±360 is the whole circle. */
  sweep: finite,
});

const ellipseSchema = z.strictObject({
  kind: z.literal('ellipse'),
  centre: pairSchema,
  /** Half axes, square to each other, the first no shorter than the second; the curve is x·cos t + y·sin t. */
  x: pairSchema,
  y: pairSchema,
  /** Of t, degrees. */
  first: finite,
  sweep: finite,
});

const bezierSchema = z.strictObject({
  kind: z.literal('bezier'),
  /** Its degree is one less than these are many. */
  points: z.array(pairSchema).min(3).max(26),
});

/** A curve as it is stored. */
export const curveSchema = z.discriminatedUnion('kind', [lineSchema, arcSchema, ellipseSchema, bezierSchema]);

/** Curves end to end. */
export interface DrawnPath {
  readonly closed: boolean;
  readonly curves: readonly Curve[];
}

/** A curve of a plane. Read-only views of it may be shared. */
export type Curve =
  | { readonly kind: 'line'; readonly from: Vec2; readonly to: Vec2 }
  | {
      readonly kind: 'arc';
      readonly centre: Vec2;
      readonly radius: number;
      readonly first: number;
      readonly sweep: number;
    }
  | {
      readonly kind: 'ellipse';
      readonly centre: Vec2;
      readonly x: Vec2;
      readonly y: Vec2;
      readonly first: number;
      readonly sweep: number;
    }
  | { readonly kind: 'bezier'; readonly points: readonly Vec2[] };

/** An arc of a circle, or a whole one. */
export type ArcCurve = Extract<Curve, { kind: 'arc' }>;

/** Ends nearer than this (mm) are one point: a tenth of what the kernel takes for the same place when it joins edges. */
export const SAME_POINT_MM = 1e-7;

/** A straight line from point to point. */
export const line = (from: Vec2, to: Vec2): Curve => ({ kind: 'line', from, to });

/** A whole circle, counter-clockwise from its right. */
export const circle = (centre: Vec2, radius: number): ArcCurve => ({
  kind: 'arc',
  centre,
  radius,
  first: 0,
  sweep: 360,
});

/** The point at a part of the way: 0 is the start, 1 the end. */
export function pointAt(curve: Curve, part: number): Vec2 {
  switch (curve.kind) {
    case 'line':
      return part === 1 ? curve.to : mix2(curve.from, curve.to, part);
    case 'arc': {
      const angle = curve.first + curve.sweep * part;
      return [
        curve.centre[0] + curve.radius * cosDegrees(angle),
        curve.centre[1] + curve.radius * sinDegrees(angle),
      ];
    }
    case 'ellipse': {
      const angle = curve.first + curve.sweep * part;
      return add2(curve.centre, add2(scale2(curve.x, cosDegrees(angle)), scale2(curve.y, sinDegrees(angle))));
    }
    case 'bezier':
      return part === 1 ? curve.points.at(-1)! : bezierPoint(curve.points, part);
  }
}

/** Where a curve begins. */
export const startOf = (curve: Curve): Vec2 => pointAt(curve, 0);

/** Where a curve ends. */
export const endOf = (curve: Curve): Vec2 => pointAt(curve, 1);

/** Source: de Casteljau's algorithm. */
function bezierPoint(points: readonly Vec2[], part: number): Vec2 {
  let row = points;
  while (row.length > 1) row = row.slice(1).map((point, i) => mix2(row[i]!, point, part));
  return row[0]!;
}

/** Change of the point with the part of the way, mm. */
export function velocityAt(curve: Curve, part: number): Vec2 {
  switch (curve.kind) {
    case 'line':
      return subtract2(curve.to, curve.from);
    case 'arc': {
      const angle = curve.first + curve.sweep * part;
      const speed = radians(curve.sweep) * curve.radius;
      return [-speed * sinDegrees(angle), speed * cosDegrees(angle)];
    }
    case 'ellipse': {
      const angle = curve.first + curve.sweep * part;
      const turn = radians(curve.sweep);
      return add2(scale2(curve.x, -turn * sinDegrees(angle)), scale2(curve.y, turn * cosDegrees(angle)));
    }
    case 'bezier': {
      const { points } = curve;
      const hull = points.slice(1).map((p, i) => scale2(subtract2(p, points[i]!), points.length - 1));
      return bezierPoint(hull, part);
    }
  }
}

/** How it bends to the left at a part of the way, 1/mm. Source: κ = (x′y″ − y′x″) / |v|³. */
export function curvatureAt(curve: Curve, part: number): number {
  switch (curve.kind) {
    case 'line':
      return 0;
    case 'arc':
      return Math.sign(curve.sweep) / curve.radius;
    case 'ellipse': {
      const speed = length2(velocityAt(curve, part));
      return (cross2(curve.x, curve.y) * radians(curve.sweep) ** 3) / speed ** 3;
    }
    case 'bezier': {
      const n = curve.points.length - 1;
      const steps = curve.points.slice(1).map((point, i) => scale2(subtract2(point, curve.points[i]!), n));
      const second = steps.slice(1).map((step, i) => scale2(subtract2(step, steps[i]!), n - 1));
      const v = bezierPoint(steps, part);
      return cross2(v, bezierPoint(second, part)) / length2(v) ** 3;
    }
  }
}

/** The same curve from its end to its start. */
export function reversed(curve: Curve): Curve {
  switch (curve.kind) {
    case 'line':
      return line(curve.to, curve.from);
    case 'arc':
    case 'ellipse':
      return { ...curve, first: curve.first + curve.sweep, sweep: -curve.sweep };
    case 'bezier':
      return { kind: 'bezier', points: [...curve.points].reverse() };
  }
}

/** The piece between two parts of the way. */
export function pieceOf(curve: Curve, from: number, to: number): Curve {
  switch (curve.kind) {
    case 'line':
      return line(pointAt(curve, from), pointAt(curve, to));
    case 'arc':
    case 'ellipse':
      return { ...curve, first: curve.first + curve.sweep * from, sweep: curve.sweep * (to - from) };
    case 'bezier': {
      const [head] = splitBezier(curve.points, to);
      const [, tail] = to === 0 ? [head, head] : splitBezier(head, from / to);
      return { kind: 'bezier', points: tail };
    }
  }
}

/** Control points of both sides of a cut. Source: de Casteljau's algorithm. */
function splitBezier(points: readonly Vec2[], part: number): [Vec2[], Vec2[]] {
  const head: Vec2[] = [];
  const tail: Vec2[] = [];
  let row = points;
  while (row.length > 0) {
    head.push(row[0]!);
    tail.unshift(row.at(-1)!);
    row = row.slice(1).map((point, i) => mix2(row[i]!, point, part));
  }
  return [head, tail];
}

/** The curve under an affine map of the plane. A circle that does not stay one becomes an ellipse. */
export function carryCurve(map: Affine2, curve: Curve): Curve {
  switch (curve.kind) {
    case 'line':
      return line(carry2(map, curve.from), carry2(map, curve.to));
    case 'bezier':
      return { kind: 'bezier', points: curve.points.map((point) => carry2(map, point)) };
    case 'arc':
      return (
        carryArc(map, curve) ??
        roundOf(map, { ...curve, kind: 'ellipse', x: [curve.radius, 0], y: [0, curve.radius] })
      );
    case 'ellipse':
      return roundOf(map, curve);
  }
}

/** Axes that differ by less than this, relatively, are equal: the noise of the map's own numbers. */
const SAME_AXES = 1e-12;

function carryArc(map: Affine2, arc: ArcCurve): ArcCurve | undefined {
  const [sizeX, sizeY] = [length2(map.x), length2(map.y)];
  const isSimilar =
    Math.abs(sizeX - sizeY) <= SAME_AXES * sizeX && Math.abs(dot2(map.x, map.y)) <= SAME_AXES * sizeX * sizeY;
  if (!isSimilar) return undefined;
  const turned = cleanAngle(degrees(Math.atan2(map.x[1], map.x[0])));
  const sign = Math.sign(cross2(map.x, map.y));
  return {
    kind: 'arc',
    centre: carry2(map, arc.centre),
    radius: arc.radius * sizeX,
    first: turned + sign * arc.first,
    sweep: sign * arc.sweep,
  };
}

const cleanAngle = (angle: number): number => {
  const whole = Math.round(angle * 1000) / 1000;
  return Math.abs(whole - angle) < 1e-12 ? whole + 0 : angle;
};

/** An ellipse by its half axes from any two conjugate half diameters. Source: Rytz's construction, as a formula. */
function roundOf(map: Affine2, curve: Extract<Curve, { kind: 'ellipse' }>): Curve {
  const linear: Affine2 = { ...map, shift: [0, 0] };
  const [u, v] = [carry2(linear, curve.x), carry2(linear, curve.y)];
  const centre = carry2(map, curve.centre);
  const shifted = degrees(Math.atan2(2 * dot2(u, v), dot2(u, u) - dot2(v, v)) / 2);
  const at = (angle: number): Vec2 => add2(scale2(u, cosDegrees(angle)), scale2(v, sinDegrees(angle)));
  // The greater half axis is at `shifted`, the lesser a quarter on.
  const whole: Curve = {
    kind: 'ellipse',
    centre,
    x: at(shifted),
    y: at(shifted + 90),
    first: curve.first - shifted,
    sweep: curve.sweep,
  };
  const [a, b] = [length2(whole.x), length2(whole.y)];
  if (Math.abs(a - b) > SAME_AXES * a) return whole;
  const sign = Math.sign(cross2(whole.x, whole.y));
  const start = degrees(Math.atan2(whole.x[1], whole.x[0]));
  return {
    kind: 'arc',
    centre,
    radius: a,
    first: cleanAngle(start + sign * whole.first),
    sweep: sign * curve.sweep,
  };
}

/** The integral of a function of the part of the way, exact for polynomials up to degree 9 in each piece. */
export function integrate(of: (part: number) => number, pieces: number): number {
  let sum = 0;
  for (let i = 0; i < pieces; i++)
    for (const [node, weight] of GAUSS) sum += (weight * of((i + (node + 1) / 2) / pieces)) / 2 / pieces;
  return sum;
}

/** The length of a curve that is no line and no circle is summed up in ever more pieces, until it changes by less than this. */
const LENGTH_NOISE = 1e-13;

const MAX_LENGTH_PIECES = 256;

/** How fast the point runs, mm for the whole way; of Bézier curves without making a point at each step. */
function speedOf(curve: Curve): (part: number) => number {
  if (curve.kind !== 'bezier') return (part) => length2(velocityAt(curve, part));
  const degree = curve.points.length - 1;
  const [xs, ys] = ([0, 1] as const).map((axis) =>
    Float64Array.from(
      { length: degree },
      (_, i) => degree * (curve.points[i + 1]![axis] - curve.points[i]![axis]),
    ),
  ) as [Float64Array, Float64Array];
  const [x, y] = [new Float64Array(degree), new Float64Array(degree)];
  return (part) => {
    x.set(xs);
    y.set(ys);
    for (let left = degree - 1; left > 0; left--)
      for (let i = 0; i < left; i++) {
        x[i]! += (x[i + 1]! - x[i]!) * part;
        y[i]! += (y[i + 1]! - y[i]!) * part;
      }
    return Math.sqrt(x[0]! ** 2 + y[0]! ** 2);
  };
}

/** The length of a curve, mm. */
export function curveLength(curve: Curve): number {
  if (curve.kind === 'line') return distance2(curve.from, curve.to);
  if (curve.kind === 'arc') return Math.abs(radians(curve.sweep)) * curve.radius;
  const speed = speedOf(curve);
  let length = integrate(speed, 2);
  for (let pieces = 4; pieces <= MAX_LENGTH_PIECES; pieces *= 2) {
    const finer = integrate(speed, pieces);
    if (Math.abs(finer - length) <= LENGTH_NOISE * finer) return finer;
    length = finer;
  }
  return length;
}

/** The part of the way at a length from the start, mm; undefined beyond the ends. */
export function partAtLength(curve: Curve, length: number): number | undefined {
  const whole = curveLength(curve);
  if (length < -SAME_POINT_MM || length > whole + SAME_POINT_MM) return undefined;
  if (curve.kind === 'line' || curve.kind === 'arc') return Math.min(1, Math.max(0, length / whole));
  let [low, high, part] = [0, 1, Math.min(1, Math.max(0, length / whole))];
  // Source: Newton's method, and halves where it would leave the bracket.
  for (let round = 0; round < 60; round++) {
    const off = (part === 0 ? 0 : curveLength(pieceOf(curve, 0, part))) - length;
    if (Math.abs(off) <= LENGTH_NOISE * whole) break;
    if (off < 0) low = part;
    else high = part;
    const next = part - off / length2(velocityAt(curve, part));
    part = next > low && next < high ? next : (low + high) / 2;
    if (high - low < Number.EPSILON) break;
  }
  return part;
}

/**
 * The curve in pieces, cut at parts of its way; cuts that would leave a piece no longer than `least` (mm) are passed over. Pieces are
 * measured, not taken from the parts: a free curve may hardly move along a large part of its way.
 */
export function piecesBetween(curve: Curve, cuts: readonly number[], min: number): Curve[] {
  const isLong = (from: number, to: number) => curveLength(pieceOf(curve, from, to)) > min;
  const kept = [0];
  for (const cut of cuts.toSorted((a, b) => a - b))
    if (cut > kept.at(-1)! && cut < 1 && isLong(kept.at(-1)!, cut) && isLong(cut, 1)) kept.push(cut);
  return kept.map((from, i) => (kept.length === 1 ? curve : pieceOf(curve, from, kept[i + 1] ?? 1)));
}
