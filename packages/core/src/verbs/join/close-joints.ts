import { inOrderMade } from '../../document/fit.ts';
import type { Joint } from '../../document/dock.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { numbersOf, wantedPose } from '../../docks/joining.ts';
import {
  declareVerb,
  isRefusal,
  optional,
  refuse,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { carriedDock, jointNamed, poseNow, type CarriedDock } from '../shared/docks.ts';
import { standDock } from '../../docks/standing.ts';
import { lockedRefusal } from '../shared/placing.ts';
import { endsOfJoint } from './change-joint.ts';

/** Brings back together what has drifted apart. */
export const closeJoints = declareVerb({
  id: 'close-joints',
  name: 'Close joints',
  group: 'join',
  about: 'Brings joined parts that have drifted apart back together: one, or all of them.',
  words: ['drifted', 'again', 'reconnect', 'mend', 'tighten'],
  blanks: { joint: optional('text', 'joint', 'Its name, as in J1; all of them where nothing is said.') },
  sentence: 'Close joints[ {joint}]',
  apply(draft, { joint: name }, context) {
    const said = name === undefined ? undefined : jointNamed(draft, name);
    if (said && isRefusal(said)) return said;
    const ends = endsOf(draft, said ? [said] : inOrderMade(draft.joints), context);
    if (isRefusal(ends)) return ends;
    if (ends.length === 0) return refuse('no-joints.joint', {}, 'joint');
    const locked = lockedRefusal(
      draft,
      ends.map(({ moved }) => moved.place.part),
    );
    if (locked) return { ...locked, blank: 'joint' };
    return { select: closed(draft, fromTheGround(ends)) };
  },
});

interface Ends {
  readonly joint: Joint;
  readonly moved: CarriedDock;
  readonly onto: CarriedDock;
}

function endsOf(draft: KadrelDocument, joints: readonly Joint[], context: VerbContext): Ends[] | Refusal {
  const found: Ends[] = [];
  for (const joint of joints) {
    const ends = endsOfJoint(draft, joint, context);
    if (isRefusal(ends)) return ends;
    found.push({ joint, moved: carriedDock(draft, ends.moved), onto: carriedDock(draft, ends.onto) });
  }
  return found;
}

/** What carries comes before what hangs on it. Of several joints by which a part hangs the first one counts: the others of a loop are reported. */
function fromTheGround(ends: readonly Ends[]): Ends[] {
  const first = new Map<ItemId, Ends>();
  for (const one of ends) if (!first.has(one.moved.place.part)) first.set(one.moved.place.part, one);
  const ordered: Ends[] = [];
  const seen = new Set<ItemId>();
  const visit = (part: ItemId): void => {
    const one = first.get(part);
    if (!one || seen.has(part)) return;
    seen.add(part);
    visit(one.onto.place.part);
    ordered.push(one);
  };
  for (const part of first.keys()) visit(part);
  return ordered;
}

function closed(draft: KadrelDocument, ends: readonly Ends[]): ItemId[] {
  return ends.map(({ joint, moved, onto }) => {
    const part = draft.items[moved.place.part]!;
    standDock(draft, part, {
      from: poseNow(draft, moved),
      to: wantedPose(poseNow(draft, onto), numbersOf(joint)),
    });
    return part.id;
  });
}
