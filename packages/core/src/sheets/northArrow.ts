/** An arrow to the north of a view. North is the world's Y, or that turned by a bearing. */
import { circle } from '../curves/curve.ts';
import { cosDegrees, sinDegrees } from '../space/angle.ts';
import { column } from '../space/matrix.ts';
import type { Pose } from '../space/pose.ts';
import { dot, type Vec3 } from '../space/vector.ts';
import { add2, left2, length2, scale2, unit2, type Vec2 } from '../space/vector2.ts';
import { stroke, type Mark } from './marks.ts';

/** A direction that is seen shorter than this is seen from its end. */
const MIN_LENGTH = 1e-6;

/** Where north goes on paper; undefined where the view looks along it. @param bearing clockwise from the world's Y, degrees */
export function northOnPaper({ turn }: Pose, bearing: number): Vec2 | undefined {
  const north: Vec3 = [sinDegrees(bearing), cosDegrees(bearing), 0];
  const seen: Vec2 = [dot(column(turn, 0), north), dot(column(turn, 1), north)];
  return length2(seen) < MIN_LENGTH ? undefined : unit2(seen);
}

/** Radius of the ring, in heights of the letter. */
const RING = 1.8;

/** A ring with a needle, half of it filled, and an N beyond its point. @param height of the letter, mm */
export function northMarks(centre: Vec2, way: Vec2, height: number): Mark[] {
  const radius = RING * height;
  const out = (reach: number, aside = 0): Vec2 =>
    add2(add2(centre, scale2(way, reach)), scale2(left2(way), aside));
  const [tip, tail] = [out(radius), out(-radius)];
  const [left, right] = [out(-0.3 * radius, 0.4 * radius), out(-0.3 * radius, -0.4 * radius)];
  const letter = out(radius + height);
  return [
    { kind: 'path', stroke: 'dimension', closed: true, curves: [circle(centre, radius)] },
    stroke('dimension', tail, tip),
    stroke('dimension', tip, left, centre),
    { kind: 'fill', shade: 'dark', loops: [[tip, right, centre]] },
    {
      kind: 'text',
      text: 'N',
      at: [letter[0], letter[1] - height / 2],
      align: 'middle',
      height,
      turn: 0,
    },
  ];
}
