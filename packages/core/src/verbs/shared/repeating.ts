/** What the Repeat verbs share: parts become the sources of a pattern, in the place of the first of them. */
import { datumInWorld } from '../../document/datum.ts';
import { isStanding, poseOfPlacement, valueOf, worldFromParent } from '../../document/items.ts';
import type { Layout } from '../../recipes/layouts/index.ts';
import { MAX_MEMBERS } from '../../recipes/numbers.ts';
import type { Datum, ItemId, KadrelDocument, Num } from '../../document/schema.ts';
import { countOf } from '../../patterns/members.ts';
import { carryBack, turnBack, type Pose } from '../../space/pose.ts';
import { cleanDirection } from '../../space/matrix.ts';
import type { Vec3 } from '../../space/vector.ts';
import { wrapParts } from './combine.ts';
import { refuse, type Outcome, type Refusal, type VerbContext } from '../../statement/declare.ts';
import { lockedRefusal, withoutNested } from './placing.ts';

export type Triple = [number, number, number];

/** World directions and points in the frame of a pattern that is yet to be made. */
export interface InFrame {
  direction(world: Vec3): Triple;
  point(world: Vec3): Triple;
}

export const inFrameOf = (frame: Pose): InFrame => ({
  direction: (world) => [...cleanDirection(turnBack(frame.turn, world))] as Triple,
  point: (world) => [...carryBack(frame, world)] as Triple,
});

interface Making {
  readonly parts: readonly ItemId[];
  readonly as: string | undefined;
  /** What the pattern is called, after the first source. */
  readonly word: string;
  readonly layout: (inFrame: InFrame, chosen: readonly ItemId[]) => Layout | Refusal;
  /** Where its datum stands in the world, where that is not the first source's. */
  readonly datum?: Vec3;
}

export function makePattern(draft: KadrelDocument, making: Making, context: VerbContext): Outcome | Refusal {
  const { parts, as, word, datum } = making;
  const chosen = withoutNested(draft, parts);
  const locked = lockedRefusal(draft, chosen);
  if (locked) return locked;
  const first = draft.items[chosen[0]!]!;
  const stray = chosen.map((id) => draft.items[id]!).find((part) => part.parent !== first.parent);
  // Operands may be repeated where they are, all of one combination at once.
  if (stray && !chosen.every((id) => isStanding(draft, id)))
    return refuse('parents', { name: stray.name, first: first.name }, 'parts');
  const inFrame = inFrameOf(worldFromParent(draft, first.id));
  const layout = making.layout(inFrame, chosen);
  if ('refused' in layout) return layout;
  const many = tooMany(layout, 'count');
  if (many) return many;
  const at = datum ?? datumInWorld(draft, first, (id) => context.boxOf(id));
  const point: Datum = { point: at ? inFrame.point(at) : [...poseOfPlacement(first.placement).shift] };
  const made = wrapParts({ draft, context }, chosen, {
    name: as ?? `${first.name} ${word}`,
    base: { kind: 'pattern', sources: [], layout, omitted: [] },
  });
  draft.items[made]!.datum = point;
  return { result: made, select: [made] };
}

export function tooMany(layout: Layout, blank: string): Refusal | undefined {
  const count = countOf(layout);
  return count > MAX_MEMBERS
    ? refuse('too-many.these', { count, maxMembers: MAX_MEMBERS }, blank)
    : undefined;
}

/** A whole number of members, or why it is none. */
export function readCount(count: Num, blank: string): Num | Refusal {
  return Number.isInteger(valueOf(count)) && valueOf(count) >= 1 ? count : refuse('count.whole', {}, blank);
}

export const bothSpacings = (blank: string): Refusal => refuse('both.distance', {}, blank);
export const inOnePlace = (blank: string): Refusal => refuse('zero.all', {}, blank);

/** Pitch or span, exactly one of the two. */
export function readSpacing(
  pitch: Num | undefined,
  span: Num | undefined,
  { count, blanks = ['pitch', 'span'] }: { count: number; blanks?: readonly [string, string] },
): { pitch: Num } | { span: Num } | Refusal {
  if (pitch !== undefined && span !== undefined) return bothSpacings(blanks[1]);
  if (pitch === undefined && span === undefined) {
    if (count === 1) return { pitch: 0 };
    return refuse('missing.distance-next', {}, blanks[0]);
  }
  const given = pitch ?? span!;
  if (count > 1 && valueOf(given) === 0) return inOnePlace(pitch === undefined ? blanks[1] : blanks[0]);
  return pitch === undefined ? { span: span! } : { pitch };
}
