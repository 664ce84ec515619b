import { lineage, valueOf, vectorOf } from '../../document/items.ts';
import { angleAbout, turnAbout, turnBetween } from '../../space/matrix.ts';
import type { Turn } from '../../space/pose.ts';
import { dot, length, scale, subtract, unit, type Vec3 } from '../../space/vector.ts';
import { directionOf, type Feature } from '../../snapping/feature.ts';
import { declareVerb, needed, optional, refuse, type Refusal, type Step } from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { axesOf } from '../../statement/frames.ts';
import {
  CENTRES,
  LEAVINGS,
  centresOf,
  lockedRefusal,
  placedParts,
  turnPart,
  withoutNested,
} from '../shared/placing.ts';

/** Turns parts about an axis by an angle, from a point to a point, or until a picked edge or face is parallel to another. */
export const turn = declareVerb({
  id: 'turn',
  handling: 'turns',
  name: 'Turn',
  group: 'place',
  key: 'T',
  about:
    'About an axis by an angle, from a point to a point, or until an edge or a face is parallel to another.',
  words: ['rotate', 'spin', 'angle', 'tilt', 'parallel', 'orient', 'revolve'],
  blanks: {
    parts: needed('parts', 'parts', 'What is turned.', { least: 1 }),
    angle: optional('angle', 'angle', 'How far; against the clock when the axis points at you.'),
    about: needed('direction', 'axis', 'X, Y or Z of the frame, or a picked edge or face.', {
      default: 'z',
      next: 'angle',
    }),
    in: needed('frame', 'frame', 'The axes that X, Y and Z refer to.', { default: 'world' }),
    centre: needed('choice', 'centre', 'What stays put.', { default: 'own', choices: CENTRES }),
    at: optional('point', 'centre point', 'The point that they turn about.', {
      next: 'angle',
      askedBy: ['centre', 'point'],
    }),
    from: optional('point', 'from', 'A point whose direction from the centre is turned.', { next: 'to' }),
    to: optional('point', 'to', 'The point that it is turned towards.', { completes: true }),
    line: optional('feature', 'edge or face', 'An edge or a face of what is turned.', { next: 'parallel' }),
    parallel: optional('feature', 'parallel to', 'The edge or face that it becomes parallel to.', {
      completes: true,
    }),
    leaving: needed('choice', 'leaving', 'What stays behind.', { default: 'nothing', choices: LEAVINGS }),
  },
  sentence:
    'Turn {parts}[ by {angle}][ about {about}][ in {in} frame][, {centre}][ at {at}][, from {from}][ to {to}]' +
    '[, so that {line}][ is parallel to {parallel}][, leaving {leaving}]',
  apply(draft, values, context) {
    const { parts, angle, about, in: frame, centre, at, from, to, line, parallel, leaving } = values;
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    const chosen = withoutNested(draft, parts);
    const centres = centresOf({ document: draft, context }, chosen, { centre, at: at && vectorOf(at) });
    if ('refused' in centres) return centres;
    const fault = howFault(values);
    if (fault) return fault;
    if (line && !chosen.some((id) => line.part !== undefined && lineage(draft, line.part).includes(id)))
      return refuse('other-part', {}, 'line');
    const together = centre !== 'own';
    const parallelTurn = line && parallel ? turnToParallel(line, parallel) : undefined;
    if (parallelTurn && 'refused' in parallelTurn) return parallelTurn;
    const turns: Turn[] = [];
    let step: Step | undefined;
    for (const id of chosen) {
      const axis = worldDirection(about, axesOf(draft, frame, together ? chosen[0]! : id));
      const middle = centres(id);
      if (parallelTurn) turns.push(parallelTurn);
      else if (from && to) {
        const [a, b] = [subtract(vectorOf(from), middle), subtract(vectorOf(to), middle)];
        if (isAlong(a, axis) || isAlong(b, axis)) return refuse('on-axis', {}, 'from');
        step = { kind: 'around', axis, centre: middle, angle: angleAbout(axis, a, b) };
        turns.push(turnAbout(axis, step.angle));
      } else {
        step = { kind: 'around', axis, centre: middle, angle: valueOf(angle!) };
        turns.push(turnAbout(axis, step.angle));
      }
    }
    const middles = chosen.map(centres);
    placedParts({ draft, context }, chosen, leaving).forEach((id, i) =>
      turnPart(draft, draft.items[id]!, { turn: turns[i]!, about: middles[i]! }),
    );
    const isOneRing = leaving === 'copy' && (together || chosen.length === 1);
    return { select: parts, ...(step && isOneRing ? { step } : {}) };
  },
});

interface Ways {
  readonly angle: unknown;
  readonly from: unknown;
  readonly to: unknown;
  readonly line: unknown;
  readonly parallel: unknown;
}

/** Exactly one of the three ways of telling a turn, whole. */
function howFault({ angle, from, to, line, parallel }: Ways): Refusal | undefined {
  if ((from === undefined) !== (to === undefined))
    return refuse('missing.turning', {}, from === undefined ? 'from' : 'to');
  if ((line === undefined) !== (parallel === undefined))
    return refuse('missing.edge', {}, line === undefined ? 'line' : 'parallel');
  const ways = [angle, from, line].filter((way) => way !== undefined).length;
  if (ways === 0) return refuse('missing.angle', {}, 'angle');
  return ways > 1 ? refuse('both.angle', {}, 'angle') : undefined;
}

const isAlong = (v: Vec3, axis: Vec3) => length(subtract(v, scale(axis, dot(v, axis)))) < 1e-9;

/** The smallest turn that makes an edge, an axis or a face parallel to another. */
function turnToParallel(line: Feature, parallel: Feature): Turn | Refusal {
  const [a, b] = [directionOf(line), directionOf(parallel)];
  if (!a) return refuse('direction.point-edge', {}, 'line');
  if (!b) return refuse('direction.point-edge', {}, 'parallel');
  if ((line.kind === 'plane') === (parallel.kind === 'plane'))
    return turnBetween(a, dot(a, b) < 0 ? scale(b, -1) : b);
  // An edge beside a face: the one keeps square to the other's normal.
  const flat = subtract(a, scale(b, dot(a, b)));
  if (length(flat) < 1e-9) return refuse('square', {}, 'parallel');
  return turnBetween(a, unit(flat));
}
