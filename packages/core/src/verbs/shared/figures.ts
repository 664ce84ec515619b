/** The Draw verbs of figures that are given by a few numbers. */
import type { WayCurve } from '../../recipes/layouts/index.ts';
import { cleanLength } from '../../space/rounding.ts';
import {
  add2,
  cross2,
  distance2,
  dot2,
  left2,
  mix2,
  scale2,
  subtract2,
  type Vec2,
} from '../../space/vector2.ts';
import type { Pose } from '../../space/pose.ts';
import { needed, refuse, type Refusal } from '../../statement/declare.ts';
import { inPlane } from '../../statement/planes.ts';

export const centreBlank = needed('point', 'centre', 'Where its centre stands.', {
  default: ['0', '0', '0'],
});

export function pointsOn(plane: Pose, way: WayCurve): Vec2[] {
  return way.kind === 'points' ? way.points.map((point) => inPlane(plane, point)) : [];
}

/** Source: the circumcircle from its perpendicular bisectors; two points are the ends of a diameter. */
export function circleThrough(points: readonly Vec2[]): { centre: Vec2; radius: number } | Refusal {
  const [a, b, c] = points;
  if (!a || !b || points.length > 3) return refuse('points.circle', {});
  if (!c) return { centre: mix2(a, b, 0.5), radius: distance2(a, b) / 2 };
  const [u, v] = [subtract2(b, a), subtract2(c, a)];
  const twice = 2 * cross2(u, v);
  if (Math.abs(twice) < 1e-12 * (dot2(u, u) + dot2(v, v))) return refuse('points.these', {});
  const toCentre = scale2(subtract2(scale2(left2(v), -dot2(u, u)), scale2(left2(u), -dot2(v, v))), 1 / twice);
  const centre = add2(a, toCentre);
  return {
    centre: [cleanLength(centre[0]), cleanLength(centre[1])],
    radius: cleanLength(distance2(centre, a)),
  };
}
