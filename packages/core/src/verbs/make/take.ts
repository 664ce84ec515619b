import { wantedPose } from '../../docks/joining.ts';
import { matches } from '../../docks/report.ts';
import { docksByNumbers, type DockPlace } from '../../docks/places.ts';
import type { Dock, DockEnd } from '../../document/dock.ts';
import { valueOf } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { usualValues } from '../../racks/made.ts';
import { putRackPart } from '../../racks/put.ts';
import { vectorOf } from '../../recipes/numbers.ts';
import type { Pose } from '../../space/pose.ts';
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
import { addJoint, docksMeant, takenRefusal } from '../shared/docks.ts';
import { standDock } from '../../docks/standing.ts';
import { shiftPart } from '../shared/placing.ts';

const BLANKS = {
  part: needed('rackPart', 'rack part', 'What is taken: its name, or chosen from a rack.'),
  size: optional('size', 'size', 'One of its standard sizes.', { of: 'part' }),
  values: optional('parameters', 'with', 'Its parameters, where they are not as usual.', { of: 'part' }),
  at: optional('point', 'to', 'Where its own origin stands.', { excludes: 'onto' }),
  onto: optional('dock', 'onto', 'The dock that it is joined to; of a part alone the best free one.', {
    excludes: 'at',
  }),
  by: optional('text', 'by', 'The name of the dock by which it is joined.', { rare: true }),
  turn: optional('angle', 'turn', 'About the axis of the joint.', { rare: true }),
  offset: optional('length', 'offset', 'Held off along the axis of the joint.', { rare: true }),
  held: needed('choice', 'held', 'Whether it goes along with what it is joined to.', {
    default: 'free',
    choices: { free: 'free', held: 'held: it goes along' },
    rare: true,
  }),
  follow: needed('choice', 'follows', 'Whether newer versions on the rack are offered.', {
    default: 'own',
    choices: { own: 'its own', follows: 'follows the rack' },
  }),
  as: optional('name', 'name', 'What it is called.'),
};

/** Takes a part from a rack, at a size, to a place or onto a dock. */
export const take = declareVerb({
  id: 'take',
  handling: 'joins',
  name: 'Take from rack',
  group: 'make',
  about: 'A part from a rack, at a standard size or by its parameters, put to a place or joined to a dock.',
  words: ['library', 'catalogue', 'standard part', 'bolt', 'nut', 'screw', 'pipe', 'insert', 'kit', 'rack'],
  isBuiltFirst: true,
  blanks: BLANKS,
  sentence:
    'Take from rack {part}[, size {size}][, with {values}][, to {at}][, onto {onto}][ by {by}][, turned {turn}][, {offset} off][, {held}][, {follow}][ named {as}]',
  apply(draft, values, context) {
    const { part, size, at, onto, follow, as } = values;
    const sized = size === undefined ? {} : usualValues(part, size);
    if (!sized) {
      const sizes = part.sizes.map(({ name }) => name).join(', ');
      return refuse(
        'size.of-rack-part',
        { name: part.name, size: size!, words: sizes === '' ? '' : `; it has ${sizes}` },
        'size',
      );
    }
    const taking = { values: { ...sized, ...values.values }, size, follows: follow === 'follows' };
    const put = putRackPart({ draft, newId: () => context.newId() }, part, taking);
    if (isRefusal(put)) return { ...put, blank: values.values ? 'values' : 'part' };
    const { item } = put;
    if (as !== undefined) draft.items[item]!.name = as;
    if (at) shiftPart(draft, draft.items[item]!, vectorOf(at));
    const fault = onto && joinTaken({ draft, context }, item, values);
    return fault ?? { result: item, select: [item] };
  },
});

type TakeValues = Values<typeof BLANKS>;

interface OwnDock {
  readonly end: DockEnd;
  readonly dock: Dock;
  readonly pose: Pose;
}

/** The docks of what was taken as they stand, or by their numbers where it cannot be built. */
function ownDocks(draft: KadrelDocument, item: ItemId, context: VerbContext): OwnDock[] {
  const standing = context.docksAfter(draft, item);
  const found = standing.length > 0 ? standing : docksByNumbers(draft, item);
  return found.map(({ end, pose }) => ({ end, pose, dock: draft.items[end.of]!.docks![end.dock]! }));
}

/** Puts what was taken onto a dock, by the dock that was said or the first that matches. */
function joinTaken({ draft, context }: Drafting, item: ItemId, values: TakeValues): Refusal | undefined {
  const { onto, by, turn = 0, offset = 0, held } = values;
  const pair = pairFor(ownDocks(draft, item, context), docksMeant(draft, onto!, context), {
    by,
    isSaid: onto!.place !== undefined,
  });
  if (!pair)
    return by === undefined
      ? refuse('no-dock.none-docks', {}, by === undefined ? 'onto' : 'by')
      : refuse('no-dock.named', { by }, by === undefined ? 'onto' : 'by');
  const taken = takenRefusal(draft, pair.goal, item);
  if (taken) return taken;
  const numbers = { turn: valueOf(turn), tilt: [0, 0], offset: valueOf(offset) } as const;
  standDock(draft, draft.items[item]!, { from: pair.own.pose, to: wantedPose(pair.goal.pose, numbers) });
  addJoint(
    draft,
    { moved: pair.own.end, onto: pair.goal.end, turn, tilt: [0, 0], offset, isHeld: held === 'held' },
    context,
  );
  return undefined;
}

interface Wanted {
  readonly by: string | undefined;
  /** The dock to join to was said itself, so that it need not match. */
  readonly isSaid: boolean;
}

function pairFor(
  owns: readonly OwnDock[],
  goals: readonly DockPlace[],
  { by, isSaid }: Wanted,
): { own: OwnDock; goal: DockPlace } | undefined {
  const named = owns.filter(({ dock }) => by === undefined || dock.name === by);
  for (const goal of goals) {
    const own =
      named.find(({ dock }) => matches(dock, goal.dock)) ??
      (isSaid && by !== undefined ? named[0] : undefined);
    if (own) return { own, goal };
  }
  return undefined;
}
