/** What the verbs share that lay a plane into the model: beside another one, through a point, on a face, turned about an edge, or square to a curve. */
import { valueOf, vectorOf } from '../../document/items.ts';
import { wayAt, wayDirection, wayLength } from '../../patterns/way.ts';
import { acrossTo, cleanDirection, column, fromColumns, multiply, turnAbout } from '../../space/matrix.ts';
import { carry, turnVector, type Pose } from '../../space/pose.ts';
import { add, along, cross, dot, length, scale, subtract, unit, type Vec3 } from '../../space/vector.ts';
import { isRefusal, needed, optional, refuse, type Refusal, type Values } from '../../statement/declare.ts';

export const planeBlanks = {
  on: needed('plane', 'from', 'plan, front, side, a named plane, a flat face, or three points.', {
    default: 'plan',
    once: true,
  }),
  through: optional(
    'point',
    'through',
    'A point that it goes through: the middle of a hole, a corner, an end.',
    {
      rare: true,
    },
  ),
  offset: needed('length', 'offset', 'Out of it.', { default: '0' }),
  edge: optional('feature', 'about', 'An edge that it is turned about.', { catches: 'edges', rare: true }),
  angle: optional('angle', 'by', 'How far it is turned about the edge.', { rare: true }),
  curve: optional('path', 'square to', 'A curve that it stands square to.', {
    catches: 'edges',
    rare: true,
  }),
  distance: optional('length', 'at', 'How far along the curve.', { rare: true }),
} as const;

/** How a sentence tells them. */
export const PLANE_SENTENCE =
  'from {on}[, through {through}][, offset {offset}][, turned about {edge} by {angle}][, square to {curve} at {distance}]';

/** Where the plane comes to lie; why it cannot. */
export function givenPose({
  on,
  through,
  offset,
  edge,
  angle,
  curve,
  distance,
}: Values<typeof planeBlanks>): Pose | Refusal {
  const pose = curve
    ? poseOnCurve(curve, valueOf(distance ?? 0))
    : edge
      ? poseAboutEdge(on, edge, angle === undefined ? undefined : valueOf(angle))
      : on;
  if (isRefusal(pose)) return pose;
  const { turn, shift } = pose;
  const out = column(turn, 2);
  const at = through ? along(shift, out, dot(out, subtract(vectorOf(through), shift))) : shift;
  return { turn, shift: add(at, turnVector(turn, [0, 0, valueOf(offset)])) };
}

type PlaneValues = Values<typeof planeBlanks>;

function poseOnCurve(curve: NonNullable<PlaneValues['curve']>, along: number): Pose | Refusal {
  if (along < 0 || along > wayLength(curve) + 1e-6)
    return refuse('distance', { curve: wayLength(curve) }, 'distance');
  return squareTo(wayAt(curve, along).point, wayDirection(curve, along));
}

function poseAboutEdge(on: Pose, edge: NonNullable<PlaneValues['edge']>, angle: number | undefined) {
  if (angle === undefined) return refuse('missing.how-far', {}, 'angle');
  return edge.kind === 'line' ? turnedAbout(on, edge, angle) : refuse('edge.straight', {}, 'edge');
}

/** Z along the way, Y as nearly upward as it can be. */
export function squareTo(at: Vec3, direction: Vec3): Pose {
  const z = cleanDirection(direction);
  const level = cross([0, 0, 1], z);
  const x = length(level) < 1e-9 ? acrossTo(z) : cleanDirection(unit(level));
  return { turn: fromColumns(x, cleanDirection(cross(z, x)), z), shift: at };
}

/** A plane turned about a line; where the line does not lie in it, it is first laid through the line. */
function turnedAbout(
  on: Pose,
  { at, direction }: { readonly at: Vec3; readonly direction: Vec3 },
  angle: number,
): Pose {
  const turn = multiply(turnAbout(cleanDirection(direction), angle), on.turn);
  // The origin of the plane, seen from the nearest point of the line, goes round with it.
  const foot = add(at, scale(direction, dot(subtract(on.shift, at), direction)));
  const height = dot(subtract(on.shift, at), carry({ turn: on.turn, shift: [0, 0, 0] }, [0, 0, 1]));
  const flat = subtract(on.shift, scale(carry({ turn: on.turn, shift: [0, 0, 0] }, [0, 0, 1]), height));
  return {
    turn,
    shift: add(foot, turnVector(turnAbout(cleanDirection(direction), angle), subtract(flat, foot))),
  };
}
