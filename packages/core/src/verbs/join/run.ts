import { valueOf } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { apart, wantedPose, type JointNumbers } from '../../docks/joining.ts';
import { matches } from '../../docks/report.ts';
import type { DockPlace } from '../../docks/places.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
  type VerbContext,
  type Drafting,
} from '../../statement/declare.ts';
import { copyPart, linkPart } from '../shared/copying.ts';
import { addJoint, carriedDock, docksMeant, endOnCopy, poseNow, takenRefusal } from '../shared/docks.ts';
import { standDock } from '../../docks/standing.ts';

/** More pieces than this are better made by a pattern. */
const MAX_PIECES = 500;
/** A length that is a whole number of pieces but for this share of one holds them all. */
const WHOLE_SHARE = 1e-9;

const BLANKS = {
  end: needed('dock', 'end', 'The dock of the part that the next one joins on to.', { next: 'start' }),
  start: needed(
    'dock',
    'start',
    'The dock of the same part that joins there; of the part alone the one that matches.',
  ),
  count: optional('count', 'pieces', 'How many in all, with the first.', {
    excludes: 'length',
    neededUnless: 'length',
  }),
  length: optional('length', 'length', 'As many as it holds, dock to dock.', {
    positive: true,
    excludes: 'count',
  }),
  turn: optional('angle', 'turn', 'Of each about the axis of its joint.'),
  offset: optional('length', 'offset', 'Held off from one to the next.'),
  kind: needed('choice', 'pieces', 'Whether the pieces follow the first.', {
    default: 'linked',
    choices: { linked: 'linked: a change to one changes all', independent: 'independent' },
  }),
  held: needed('choice', 'held', 'Whether each goes along with the one before.', {
    default: 'free',
    choices: { free: 'free', held: 'held: it goes along' },
  }),
};

/** The same part joined end to end, again and again. */
export const run = declareVerb({
  id: 'run',
  name: 'Run',
  group: 'join',
  about: 'Goes on with the same part end to end, so many times or until a length is filled.',
  words: ['chain', 'row', 'end to end', 'again', 'track', 'pipe', 'series'],
  blanks: BLANKS,
  sentence:
    'Run on from {end} by {start}[, {count} pieces][, {length} long][, each turned {turn}][, {offset} off][, {kind}][, {held}]',
  apply(draft, values, context) {
    const pair = endsOf(draft, values, context);
    if (isRefusal(pair)) return pair;
    const taken = takenRefusal(draft, pair.end, '');
    if (taken) return { ...taken, blank: 'end' };
    const count = countOf(pair, values);
    if (isRefusal(count)) return count;
    return { select: laid({ draft, context }, pair, { ...values, count }) };
  },
});

type RunValues = Values<typeof BLANKS>;

interface Ends {
  readonly start: DockPlace;
  readonly end: DockPlace;
}

function endsOf(draft: KadrelDocument, { end, start }: RunValues, context: VerbContext): Ends | Refusal {
  if (end.part !== start.part) return refuse('same-part.start', {}, 'start');
  const { place } = end;
  if (!place) return refuse('dock.end', {}, 'end');
  const [found] = docksMeant(draft, start, context).filter(
    (one) => one.end.dock !== place.end.dock && (start.place !== undefined || matches(one.dock, place.dock)),
  );
  return found
    ? { end: place, start: found }
    : refuse('no-dock.start', { name: draft.items[end.part]!.name, place: place.dock.name }, 'start');
}

/** How many pieces: given, or as many as a length holds. */
function countOf({ start, end }: Ends, { count, length, offset = 0 }: RunValues): number | Refusal {
  const gap = valueOf(offset);
  const one = apart(start.pose, end.pose).gap;
  const held =
    length === undefined ? (count ?? 0) : Math.floor((valueOf(length) + gap) / (one + gap) + WHOLE_SHARE);
  if (!(one + gap > 0)) return refuse('no-length', {}, 'start');
  if (held < 2) return refuse('too-few.run', {}, length === undefined ? 'count' : 'length');
  return held > MAX_PIECES
    ? refuse('too-many.run', { maxPieces: MAX_PIECES }, length === undefined ? 'count' : 'length')
    : held;
}

interface Laying {
  readonly count: number;
  readonly turn: RunValues['turn'];
  readonly offset: RunValues['offset'];
  readonly kind: string;
  readonly held: string;
}

function laid({ draft, context }: Drafting, { start, end }: Ends, values: Laying): ItemId[] {
  const { count, turn = 0, offset = 0, kind, held } = values;
  const numbers: JointNumbers = { turn: valueOf(turn), tilt: [0, 0], offset: valueOf(offset) };
  const [head, tail] = [carriedDock(draft, start), carriedDock(draft, end)];
  const pieces = [end.part];
  for (let i = 1; i < count; i++) {
    const last = pieces.at(-1)!;
    const piece = (kind === 'linked' ? linkPart : copyPart)(draft, end.part, context);
    draft.items[piece]!.locked = false;
    standDock(draft, draft.items[piece]!, {
      from: poseNow(draft, head, piece),
      to: wantedPose(poseNow(draft, tail, last), numbers),
    });
    const [moved, onto] = [endOnCopy(draft, start, piece), endOnCopy(draft, end, last)];
    addJoint(draft, { moved, onto, turn, tilt: [0, 0], offset, isHeld: held === 'held' }, context);
    pieces.push(piece);
  }
  return pieces;
}
