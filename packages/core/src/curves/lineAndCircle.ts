/** Where unbounded lines and whole circles cross, by formulas. */
import { add2, cross2, dot2, left2, length2, scale2, subtract2, type Vec2 } from '../space/vector2.ts';
import { SAME_POINT_MM } from './curve.ts';

/** The sine of an angle below this is none: the lines are parallel. */
const PARALLEL_SINE = 1e-12;

/** A circle by its centre and radius, mm. */
export interface Circle {
  readonly centre: Vec2;
  readonly radius: number;
}

/** As parts of `u` from `a` and of `v` from `b`; undefined for parallels. Source: the cross products of both ways. */
export function linesCross(a: Vec2, u: Vec2, b: Vec2, v: Vec2): readonly [number, number] | undefined {
  const sine = cross2(u, v);
  if (Math.abs(sine) <= PARALLEL_SINE * length2(u) * length2(v)) return undefined;
  const between = subtract2(b, a);
  return [cross2(between, v) / sine, cross2(between, u) / sine];
}

/** As parts of the way; one where it touches. Source: the quadratic formula, from the foot of the centre on the line. */
export function lineCrossesCircle(from: Vec2, way: Vec2, { centre, radius }: Circle): readonly number[] {
  const size = length2(way);
  const foot = dot2(subtract2(centre, from), way) / (size * size);
  const off = cross2(way, subtract2(centre, from)) / size;
  const inside = radius ** 2 - off ** 2;
  if (inside < -SAME_POINT_MM * radius) return [];
  const half = Math.sqrt(Math.max(0, inside)) / size;
  return half === 0 ? [foot] : [foot - half, foot + half];
}

/** One point where they touch; none for circles about one centre. Source: the radical line of two circles. */
export function circlesCross(a: Circle, b: Circle): readonly Vec2[] {
  const between = subtract2(b.centre, a.centre);
  const apart = length2(between);
  if (apart <= SAME_POINT_MM) return [];
  const along = (apart ** 2 + a.radius ** 2 - b.radius ** 2) / (2 * apart);
  const inside = a.radius ** 2 - along ** 2;
  if (inside < -SAME_POINT_MM * a.radius) return [];
  const foot = add2(a.centre, scale2(between, along / apart));
  const aside = scale2(left2(between), Math.sqrt(Math.max(0, inside)) / apart);
  return length2(aside) <= SAME_POINT_MM ? [foot] : [add2(foot, aside), subtract2(foot, aside)];
}
