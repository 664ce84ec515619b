import { standingOf, visibleParts } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { NO_TURN } from '../../space/pose.ts';
import { scale, type Vec3 } from '../../space/vector.ts';
import {
  declareVerb,
  needed,
  optional,
  refuse,
  type Standing,
  type VerbContext,
} from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { rangeAlong } from './distribute.ts';
import { lockedRefusal, shiftPart, withoutNested } from '../shared/placing.ts';

/** Lets parts go towards a direction until they rest: by true contact of their surfaces, or on the bed. */
export const seat = declareVerb({
  id: 'seat',
  name: 'Seat',
  group: 'place',
  key: 'S',
  about: 'Down onto the bed or the first thing underneath, by true contact; or towards any direction.',
  words: ['drop', 'rest', 'ground', 'floor', 'land', 'put down', 'bed'],
  blanks: {
    parts: needed('parts', 'parts', 'What is let down.', { least: 1 }),
    onto: needed('choice', 'onto', 'Where it comes to rest.', {
      default: 'first',
      choices: { first: 'the first thing in the way', bed: 'the bed', part: 'one part' },
    }),
    on: optional('part', 'part', 'The part that it rests on.', { askedBy: ['onto', 'part'] }),
    towards: needed('direction', 'towards', 'Which way it goes.', { default: '-z' }),
    as: needed('choice', 'as', 'Whether each goes as far as it can, or all as one.', {
      default: 'each',
      choices: { each: 'each by itself', one: 'one block' },
    }),
  },
  sentence: 'Seat {parts} onto {onto}[, {on}][, towards {towards}][, as {as}]',
  apply(draft, { parts, onto, on, towards, as }, context) {
    const chosen = withoutNested(draft, parts);
    const locked = lockedRefusal(draft, chosen);
    if (locked) return locked;
    const direction = worldDirection(towards, NO_TURN);
    if (onto === 'bed' && direction[2] >= 0) return refuse('bed', {}, 'towards');
    if (onto === 'part' && on === undefined) return refuse('missing.on', {}, 'on');
    const fixed = obstaclesOf(draft, chosen, { onto, on }).map((part): Standing => ({
      part,
      shift: [0, 0, 0],
    }));
    // The lowest goes first, so that one that is over another finds it where it has come to rest.
    const reach = (id: ItemId) => rangeAlong(id, direction, context)[1];
    const order = as === 'one' ? [chosen] : [...chosen].sort((a, b) => reach(b) - reach(a)).map((id) => [id]);
    for (const group of order) {
      const way = wayOf(group, { onto, fixed, direction }, context);
      if (way === null)
        return refuse('nothing-there.towards', { name: draft.items[group[0]!]!.name }, 'towards');
      const shift = scale(direction, way).map((n) => n + 0) as unknown as Vec3;
      for (const id of group) shiftPart(draft, draft.items[id]!, shift);
      if (onto !== 'bed') fixed.push(...group.map((part) => ({ part, shift })));
    }
    return { select: parts };
  },
});

interface Rest {
  readonly onto: string;
  readonly on: ItemId | undefined;
}

/** What may be in the way. */
function obstaclesOf(draft: KadrelDocument, chosen: readonly ItemId[], { onto, on }: Rest): ItemId[] {
  const own = standingOf(draft, chosen);
  const wanted = on === undefined ? own : standingOf(draft, [on]);
  return visibleParts(draft)
    .map((part) => part.id)
    .filter((id) => (onto === 'part' ? wanted.has(id) : onto === 'first') && !own.has(id));
}

interface Going {
  readonly onto: string;
  readonly fixed: readonly Standing[];
  readonly direction: Vec3;
}

/** How far parts go as one block; null where nothing is in the way. */
function wayOf(
  group: readonly ItemId[],
  { onto, fixed, direction }: Going,
  context: VerbContext,
): number | null {
  const moving = group.map((part) => ({ part, shift: [0, 0, 0] as Vec3 }));
  const met =
    onto === 'bed' || fixed.length === 0
      ? null
      : context.ask<'contact'>({ ask: 'contact', moving, fixed, towards: direction });
  if (direction[2] >= 0 || onto === 'part') return met;
  const toBed = Math.min(...group.map((id) => context.worldBox(id).min[2] / -direction[2]));
  return met === null || sinks(toBed) ? toBed : Math.min(met, toBed);
}

/** A part that reaches below the bed is lifted onto it. */
const sinks = (toBed: number) => toBed < 0;
