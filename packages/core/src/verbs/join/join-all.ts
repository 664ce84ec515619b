import { visibleParts } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { matches, takenDocks } from '../../docks/report.ts';
import { apart, wantedPose } from '../../docks/joining.ts';
import type { DockPlace } from '../../docks/places.ts';
import {
  declareVerb,
  needed,
  optional,
  refuse,
  type Values,
  type VerbContext,
  type Drafting,
} from '../../statement/declare.ts';
import { valueOf } from '../../recipes/numbers.ts';
import { copyPart, linkPart } from '../shared/copying.ts';
import { addJoint, carriedDock, endOnCopy, poseNow } from '../shared/docks.ts';
import { standDock } from '../../docks/standing.ts';
import { lockedRefusal, withoutNested } from '../shared/placing.ts';

/** More joints than this at once are a slip of the finger. */
const MAX_JOINTS = 500;

const BLANKS = {
  parts: needed('parts', 'parts', 'What goes there.', { least: 1 }),
  go: needed('choice', 'go', 'What goes to which dock.', {
    default: 'copies',
    choices: {
      copies: 'a copy to every dock',
      linked: 'a linked copy to every dock',
      each: 'each part to one dock',
    },
  }),
  to: optional('parts', 'to the docks of', 'Parts whose docks are filled; else all that are seen.'),
  by: optional('text', 'by', 'The name of the dock by which they go.'),
  turn: optional('angle', 'turn', 'About the axis of each joint.'),
  offset: optional('length', 'offset', 'Held off along the axis.'),
  held: needed('choice', 'held', 'Whether they go along with what they are joined to.', {
    default: 'free',
    choices: { free: 'free', held: 'held: they go along' },
  }),
};

/** Parts, or copies of one, to many docks at once. */
export const joinAll = declareVerb({
  id: 'join-all',
  name: 'Join all',
  group: 'join',
  about: 'A copy to every free dock that matches, or each of several parts to the nearest one.',
  words: ['fill docks', 'populate', 'every socket', 'many', 'brackets', 'bolts'],
  blanks: BLANKS,
  sentence:
    'Join all {parts}, {go}[, to the docks of {to}][, by {by}][, turned {turn}][, {offset} off][, {held}]',
  apply(draft, values, context) {
    const movers = moversOf(draft, values, context);
    const goals = goalsOf(draft, values, context);
    if (movers.length === 0) return refuse('no-dock.parts', {}, 'parts');
    const pairs = values.go === 'each' ? nearestPairs(movers, goals) : copyPairs(movers, goals);
    if (pairs.length === 0) return refuse('no-dock.free-matches', {}, values.to ? 'to' : 'parts');
    if (pairs.length > MAX_JOINTS) return refuse('too-many.joints', { maxJoints: MAX_JOINTS }, 'to');
    const locked = values.go === 'each' ? lockedRefusal(draft, values.parts) : undefined;
    return locked ?? { select: joinPairs({ draft, context }, pairs, values) };
  },
});

type AllValues = Values<typeof BLANKS>;

interface Pair {
  readonly mover: DockPlace;
  readonly goal: DockPlace;
}

/** The free docks of what goes. */
function moversOf(draft: KadrelDocument, { parts, by }: AllValues, context: VerbContext): DockPlace[] {
  const taken = takenDocks(draft);
  return withoutNested(draft, parts).flatMap((id) =>
    context
      .docksOn(id)
      .filter(
        ({ end, dock, lost }) => lost === undefined && !taken(end) && (by === undefined || dock.name === by),
      ),
  );
}

/** The free docks of all others. */
function goalsOf(draft: KadrelDocument, { parts, to }: AllValues, context: VerbContext): DockPlace[] {
  const taken = takenDocks(draft);
  const going = new Set(parts);
  return (to ?? visibleParts(draft).map(({ id }) => id))
    .filter((id) => !going.has(id))
    .flatMap((id) => context.docksOn(id))
    .filter(({ end, lost }) => lost === undefined && !taken(end));
}

const copyPairs = (movers: readonly DockPlace[], goals: readonly DockPlace[]): Pair[] =>
  goals.flatMap((goal) => {
    const mover = movers.find((one) => matches(one.dock, goal.dock));
    return mover ? [{ mover, goal }] : [];
  });

/** Each part once, to the nearest dock that is left. */
function nearestPairs(movers: readonly DockPlace[], goals: readonly DockPlace[]): Pair[] {
  const left = new Set(goals);
  const gone = new Set<ItemId>();
  const pairs: Pair[] = [];
  for (const mover of movers) {
    if (gone.has(mover.part)) continue;
    const [goal] = [...left]
      .filter((one) => matches(one.dock, mover.dock))
      .sort((a, b) => apart(a.pose, mover.pose).gap - apart(b.pose, mover.pose).gap);
    if (!goal) continue;
    left.delete(goal);
    gone.add(mover.part);
    pairs.push({ mover, goal });
  }
  return pairs;
}

function joinPairs({ draft, context }: Drafting, pairs: readonly Pair[], values: AllValues): ItemId[] {
  const { go, turn = 0, offset = 0, held } = values;
  const numbers = { turn: valueOf(turn), tilt: [0, 0], offset: valueOf(offset) } as const;
  const owns = new Map(pairs.map(({ mover }) => [mover, carriedDock(draft, mover)]));
  return pairs.map(({ mover, goal }) => {
    const carrier =
      go === 'each' ? mover.part : (go === 'linked' ? linkPart : copyPart)(draft, mover.part, context);
    if (go !== 'each') draft.items[carrier]!.locked = false;
    const from = poseNow(draft, owns.get(mover)!, carrier);
    standDock(draft, draft.items[carrier]!, { from, to: wantedPose(goal.pose, numbers) });
    const moved = endOnCopy(draft, mover, carrier);
    addJoint(draft, { moved, onto: goal.end, turn, tilt: [0, 0], offset, isHeld: held === 'held' }, context);
    return carrier;
  });
}
