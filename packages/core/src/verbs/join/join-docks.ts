import type { KadrelDocument } from '../../document/schema.ts';
import { apart, wantedPose, type JointNumbers } from '../../docks/joining.ts';
import { matches } from '../../docks/report.ts';
import type { DockPlace } from '../../docks/places.ts';
import { chain, inverse } from '../../space/pose.ts';
import { valueOf, worldFromPart } from '../../document/items.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Outcome,
  type Refusal,
  type Values,
  type VerbContext,
  type Drafting,
} from '../../statement/declare.ts';
import { copyPart, linkPart } from '../shared/copying.ts';
import { addJoint, docksMeant, endOnCopy, takenRefusal } from '../shared/docks.ts';
import { standDock } from '../../docks/standing.ts';
import { lockedRefusal, placePart, withoutNested } from '../shared/placing.ts';

const MOVES = {
  part: 'the part',
  copy: 'a copy',
  linked: 'a linked copy',
  nothing: 'nothing: they are only told to be joined',
} as const;

const BLANKS = {
  dock: needed('dock', 'dock', 'The dock that moves; of a part alone its best one.', { next: 'onto' }),
  onto: needed('dock', 'other dock', 'The dock that it goes onto; of a part alone the best free one.'),
  turn: optional('angle', 'turn', 'About the axis of the joint.'),
  tiltX: optional('angle', 'tilt X', 'About the X of the other dock; 180 flips the part.', { rare: true }),
  tiltY: optional('angle', 'tilt Y', 'About the Y of the other dock.', { rare: true }),
  offset: optional('length', 'offset', 'Held off along the axis: a clearance.'),
  moves: needed('choice', 'moves', 'What goes there.', { default: 'part', choices: MOVES }),
  with: optional('parts', 'along with', 'Parts that are moved along.', { rare: true }),
  by: needed('choice', 'by', 'What is brought together.', {
    default: 'place',
    choices: { place: 'place and direction', direction: 'direction alone: the dock stays where it is' },
    rare: true,
  }),
  held: needed('choice', 'held', 'Whether it goes along when the other is moved.', {
    default: 'free',
    choices: { free: 'free', held: 'held: it goes along' },
  }),
};

/** Puts a part so that a dock of it meets a dock of another: directions opposite, rolls equal. */
export const joinDocks = declareVerb({
  id: 'join-docks',
  handling: 'joins',
  name: 'Join docks',
  group: 'join',
  key: 'J',
  about:
    'A dock here goes onto a dock there: directions opposite, rolls equal, and then turned and held off as you say.',
  words: ['connect', 'attach', 'mate', 'snap together', 'fit', 'dock', 'assemble'],
  blanks: BLANKS,
  sentence:
    'Join docks {dock} onto {onto}[, turned {turn}][, tilted {tiltX} about X][, tilted {tiltY} about Y][, {offset} off][, moving {moves}][, along with {with}][, by {by}][, {held}]',
  apply(draft, values, context) {
    const pair = bestPair(draft, values, context);
    if (isRefusal(pair)) return pair;
    const { moved, onto } = pair;
    const taken = takenRefusal(draft, onto, moved.part);
    if (taken && values.by === 'place') return taken;
    const locked =
      values.moves === 'part' ? lockedRefusal(draft, [moved.part, ...(values.with ?? [])]) : undefined;
    if (locked) return { ...locked, blank: 'dock' };
    return joined({ draft, context }, pair, values);
  },
});

type JoinValues = Values<typeof BLANKS>;

interface Pair {
  readonly moved: DockPlace;
  readonly onto: DockPlace;
}

/** The docks that were said; of parts alone those that match, free ones first and the nearest of them. */
function bestPair(draft: KadrelDocument, { dock, onto }: JoinValues, context: VerbContext): Pair | Refusal {
  if (dock.part === onto.part) return refuse('same-part.both-docks', {}, 'onto');
  const pairs = docksMeant(draft, dock, context).flatMap((a) =>
    docksMeant(draft, onto, context).map((b) => ({ moved: a, onto: b, off: apart(a.pose, b.pose).gap })),
  );
  const isSaid = dock.place !== undefined && onto.place !== undefined;
  const fitting = isSaid ? pairs : pairs.filter((pair) => matches(pair.moved.dock, pair.onto.dock));
  const [best] = fitting.sort((a, b) => a.off - b.off);
  if (best) return best;
  const whose = draft.items[(onto.place ? dock : onto).part]!.name;
  return refuse('no-dock.free-matches-name', { whose }, onto.place ? 'dock' : 'onto');
}

const numbersSaid = ({ turn = 0, tiltX = 0, tiltY = 0, offset = 0 }: JoinValues): JointNumbers => ({
  turn: valueOf(turn),
  tilt: [valueOf(tiltX), valueOf(tiltY)],
  offset: valueOf(offset),
});

function joined({ draft, context }: Drafting, { moved, onto }: Pair, values: JoinValues): Outcome {
  const { moves, by, held, turn = 0, tiltX = 0, tiltY = 0, offset = 0 } = values;
  const isCopy = moves === 'copy' || moves === 'linked';
  const carrier = isCopy ? (moves === 'copy' ? copyPart : linkPart)(draft, moved.part, context) : moved.part;
  const wanted = wantedPose(onto.pose, numbersSaid(values));
  const goal = by === 'direction' ? { turn: wanted.turn, shift: moved.pose.shift } : wanted;
  if (moves !== 'nothing') {
    const before = worldFromPart(draft, carrier);
    standDock(draft, draft.items[carrier]!, { from: moved.pose, to: goal });
    const motion = chain(worldFromPart(draft, carrier), inverse(before));
    for (const id of withoutNested(draft, values.with ?? []))
      if (id !== carrier) placePart(draft, draft.items[id]!, chain(motion, worldFromPart(draft, id)));
  }
  if (by === 'place')
    addJoint(
      draft,
      {
        moved: isCopy ? endOnCopy(draft, moved, carrier) : moved.end,
        onto: onto.end,
        turn,
        tilt: [tiltX, tiltY],
        offset,
        isHeld: held === 'held',
      },
      context,
    );
  return { select: [carrier], ...(isCopy ? { result: carrier } : {}) };
}
