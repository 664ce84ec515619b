/** The line that profiles are turned about: by an axis of their plane, an edge or two points. */
import type { BodyOf } from '../../recipes/bodies/index.ts';
import type { WayCurve } from '../../recipes/layouts/index.ts';
import { degrees } from '../../space/angle.ts';
import { cleanDegrees } from '../../space/matrix.ts';
import { carryBack, turnBack, type Pose } from '../../space/pose.ts';
import { cleanLength } from '../../space/rounding.ts';
import { subtract, type Vec3 } from '../../space/vector.ts';
import type { Feature } from '../../snapping/feature.ts';
import { needed, optional, refuse, type Refusal } from '../../statement/declare.ts';

type Axis = BodyOf<'revolve'>['axis'];

export const axisBlank = needed('choice', 'axis', 'An axis of the profile’s own plane.', {
  default: 'y',
  choices: { x: 'its own X', y: 'its own Y' },
});
export const aboutBlank = optional('feature', 'edge', 'An edge or an axis in the plane of the profile.', {
  excludes: 'through',
});
export const throughBlank = optional('path', 'two points', 'Two points in the plane of the profile.', {
  excludes: 'about',
  rare: true,
});

/** Farther off its plane than this (mm, or the sine of an angle) the line does not lie in it. */
const IN_PLANE = 1e-7;

/** The line in the frame of the plane, or why there is none. */
export function readAxis(
  plane: Pose,
  { axis, about, through }: { axis: string; about?: Feature | undefined; through?: WayCurve | undefined },
): Axis | Refusal {
  if (about) {
    if (about.kind !== 'line' && about.kind !== 'axis') return refuse('axis.about', {}, 'about');
    return lineIn(plane, { at: about.at, direction: about.direction }, 'about');
  }
  if (through) {
    if (through.kind !== 'points' || through.points.length !== 2)
      return refuse('axis.through', {}, 'through');
    const [a, b] = through.points;
    return lineIn(plane, { at: a!, direction: subtract(b!, a!) }, 'through');
  }
  return { point: [0, 0], angle: axis === 'x' ? 0 : 90 };
}

function lineIn(
  plane: Pose,
  { at, direction }: { readonly at: Vec3; readonly direction: Vec3 },
  blank: string,
): Axis | Refusal {
  const point = carryBack(plane, at);
  const way = turnBack(plane.turn, direction);
  const size = Math.hypot(...way);
  if (size === 0) return refuse('axis.these', {}, blank);
  if (Math.abs(point[2]) > IN_PLANE || Math.abs(way[2]) > IN_PLANE * size)
    return refuse('axis.line-does', {}, blank);
  return {
    point: [cleanLength(point[0]), cleanLength(point[1])],
    angle: cleanDegrees(degrees(Math.atan2(way[1], way[0]))),
  };
}
