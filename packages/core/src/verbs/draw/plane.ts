import { valueOf } from '../../document/items.ts';
import { wayAt, wayDirection, wayLength } from '../../patterns/way.ts';
import { cleanDirection, multiply, acrossTo, fromColumns, turnAbout } from '../../space/matrix.ts';
import { carry, roundPoint, turnVector, type Pose } from '../../space/pose.ts';
import { add, cross, dot, length, scale, subtract, unit, type Vec3 } from '../../space/vector.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from '../../statement/declare.ts';
import { addPart } from '../shared/addPart.ts';
import { degreesOf } from '../../statement/planes.ts';

/** Wide enough to be seen beside most parts, mm; it can be changed. */
const SHEET = '200 mm';

/** A work plane, named and kept: to draw on, to snap to, and to measure from. */
export const plane = declareVerb({
  id: 'plane',
  name: 'Work plane',
  group: 'draw',
  about: 'A plane to draw on: beside another one, on a face, turned about an edge, or square to a curve.',
  words: ['plane', 'offset', 'sketch', 'construction', 'sheet', 'datum'],
  blanks: {
    on: needed('plane', 'from', 'plan, front, side, a named plane, a flat face, or three points.', {
      default: 'plan',
      once: true,
    }),
    offset: needed('length', 'offset', 'Out of it.', { default: '0' }),
    edge: optional('feature', 'about', 'An edge that it is turned about.', { catches: 'edges', rare: true }),
    angle: optional('angle', 'by', 'How far it is turned about the edge.', { rare: true }),
    curve: optional('path', 'square to', 'A curve that it stands square to.', {
      catches: 'edges',
      rare: true,
    }),
    distance: optional('length', 'at', 'How far along the curve.', { rare: true }),
    size: needed('length', 'sheet', 'How wide its sheet is shown.', {
      default: SHEET,
      positive: true,
      rare: true,
    }),
    as: optional('name', 'name', 'What it is called.'),
  },
  sentence:
    'Work plane from {on}[, offset {offset}][, turned about {edge} by {angle}][, square to {curve} at {distance}][, sheet {size}][ named {as}]',
  apply(draft, { on, offset, edge, angle, curve, distance, size, as }, context) {
    let pose: Pose | Refusal = on;
    if (curve) {
      const along = valueOf(distance ?? 0);
      if (along < 0 || along > wayLength(curve) + 1e-6)
        return refuse('distance', `The curve is ${wayLength(curve)} mm long.`, 'distance');
      pose = squareTo(wayAt(curve, along).point, wayDirection(curve, along));
    } else if (edge) {
      if (angle === undefined) return refuse('missing', 'Say how far it is turned.', 'angle');
      pose =
        edge.kind === 'line'
          ? turnedAbout(on, edge.at, edge.direction, valueOf(angle))
          : refuse('edge', 'Pick a straight edge.', 'edge');
    }
    if (isRefusal(pose)) return pose;
    const shift = add(pose.shift, turnVector(pose.turn, [0, 0, valueOf(offset)]));
    const id = addPart(draft, context, {
      name: as ?? 'Plane',
      base: { kind: 'plane', size },
      at: [...roundPoint(shift)],
    });
    draft.items[id]!.placement.turn = degreesOf(pose);
    return { result: id, select: [id] };
  },
});

/** Z along the way, Y as nearly upward as it can be. */
function squareTo(at: Vec3, direction: Vec3): Pose {
  const z = cleanDirection(direction);
  const level = cross([0, 0, 1], z);
  const x = length(level) < 1e-9 ? acrossTo(z) : cleanDirection(unit(level));
  return { turn: fromColumns(x, cleanDirection(cross(z, x)), z), shift: at };
}

/** A plane turned about a line; where the line does not lie in it, it is first laid through the line. */
function turnedAbout(on: Pose, at: Vec3, direction: Vec3, angle: number): Pose {
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
