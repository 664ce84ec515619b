import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import type { Joint } from '../../document/dock.ts';
import { numbersOf, wantedPose } from '../../docks/joining.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { jointNamed } from '../shared/docks.ts';
import { standDock } from '../../docks/standing.ts';
import { lockedRefusal } from '../shared/placing.ts';
import { carrierOf, type DockPlace } from '../../docks/places.ts';
import { isSameEnd } from '../../document/dock.ts';

/** Turns, tilts or offsets what is joined, or holds it. */
export const changeJoint = declareVerb({
  id: 'change-joint',
  handling: 'joins',
  name: 'Change joint',
  group: 'join',
  about: 'Turns a joined part, holds it off, or has it go along with what it hangs on.',
  words: ['rotate joint', 'hold', 'release', 'clearance', 'offset'],
  blanks: {
    joint: needed('text', 'joint', 'Its name, as in J1.'),
    turn: optional('angle', 'turn', 'About the axis of the joint.'),
    tiltX: optional('angle', 'tilt X', 'About the X of the dock that it is on.'),
    tiltY: optional('angle', 'tilt Y', 'About the Y of the dock that it is on.'),
    offset: optional('length', 'offset', 'Held off along the axis.'),
    held: optional('choice', 'held', 'Whether it goes along when the other is moved.', {
      choices: { free: 'free', held: 'held: it goes along' },
    }),
  },
  sentence:
    'Change joint {joint}[, turned {turn}][, tilted {tiltX} about X][, tilted {tiltY} about Y][, {offset} off][, {held}]',
  apply(draft, { joint: name, turn, tiltX, tiltY, offset, held }, context) {
    const joint = jointNamed(draft, name);
    if (isRefusal(joint)) return joint;
    if (held === 'held') joint.held = true;
    if (held === 'free') delete joint.held;
    if (turn === undefined && tiltX === undefined && tiltY === undefined && offset === undefined) return {};
    if (turn !== undefined) joint.turn = turn;
    joint.tilt = [tiltX ?? joint.tilt[0], tiltY ?? joint.tilt[1]];
    if (offset !== undefined) joint.offset = offset;
    const moved = stoodAnew(draft, joint, context);
    return isRefusal(moved) ? moved : { select: [moved] };
  },
});

/** Puts what hangs by a joint to where the joint says. Returns what was moved. */
function stoodAnew(draft: KadrelDocument, joint: Joint, context: VerbContext): ItemId | Refusal {
  const ends = endsOfJoint(draft, joint, context);
  if (isRefusal(ends)) return ends;
  const { moved, onto } = ends;
  const locked = lockedRefusal(draft, [moved.part]);
  if (locked) return { ...locked, blank: 'joint' };
  standDock(draft, draft.items[moved.part]!, {
    from: moved.pose,
    to: wantedPose(onto.pose, numbersOf(joint)),
  });
  return moved.part;
}

/** Where both ends of a joint stand, or which of them does not know. */
export function endsOfJoint(
  draft: KadrelDocument,
  joint: Joint,
  context: VerbContext,
): { readonly moved: DockPlace; readonly onto: DockPlace } | Refusal {
  const [moved, onto] = [joint.moved, joint.onto].map((end) => {
    const carrier = carrierOf(draft, end);
    return carrier === undefined
      ? undefined
      : context.docksOn(carrier).find((one) => isSameEnd(one.end, end));
  });
  if (!moved || !onto) return refuse('dock-lost.end-any', { name: joint.name }, 'joint');
  const lost = moved.lost ?? onto.lost;
  return lost === undefined
    ? { moved, onto }
    : refuse('dock-lost.end-does', { name: joint.name, lost }, 'joint');
}
