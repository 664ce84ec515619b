/** Tables of what stands: the points of a curve, the openings of a wall, the levels of tiers. What follows from them follows. */
import type { Opening, Tier } from '../recipes/bodies/index.ts';
import { definitionOf, valueOf } from '../document/items.ts';
import type { ItemId, KadrelDocument, Num, Part } from '../document/schema.ts';
import type { FigureOf } from '../recipes/figures/index.ts';
import { cleanLength } from '../space/rounding.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from './declare.ts';
import { figureFault } from './drawing.ts';
import { TIER_COLUMNS, tierOf } from './tiers.ts';
import { typedLength, typedNumber } from './told.ts';
import { OPENING_COLUMNS, openingOf } from './wall.ts';

type Base = Part['recipe']['base'];

/** The recipe that a table changes; of another kind, or of a locked part, it is refused. */
function baseOf(
  draft: KadrelDocument,
  part: ItemId,
  { kind, words, blank }: { kind: Base['kind']; words: string; blank: string },
): Base | Refusal {
  const item = draft.items[part]!;
  const { base } = definitionOf(draft, item).recipe;
  if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, blank);
  return base.kind === kind ? base : refuse('other-kind', `${item.name} is no ${words}.`, blank);
}

/** Other points for a curve that is there. */
export const repoint = declareVerb({
  id: 'repoint',
  name: 'Change points',
  group: 'edit',
  about: 'Gives a curve other points, in its own plane; what is made from it follows.',
  words: ['curve', 'spline', 'points', 'edit', 'table', 'coordinates'],
  blanks: {
    profile: needed('part', 'curve', 'Which one.'),
    points: optional('rows', 'points', 'All of them, as they are to be.', {
      columns: {
        x: { label: 'X', kind: 'length', needed: true },
        y: { label: 'Y', kind: 'length', needed: true },
      },
    }),
    how: optional('choice', 'how', 'Whether it goes through the points.', {
      choices: { through: 'through the points', control: 'drawn towards the points' },
    }),
    closed: optional('choice', 'end', 'Whether it comes back to its start.', {
      choices: { no: 'open', yes: 'closed' },
    }),
  },
  sentence: 'Change points of {profile}[ to {points}][, {how}][, {closed}]',
  apply(draft, { profile, points, how, closed }) {
    const base = baseOf(draft, profile, { kind: 'profile', words: 'profile', blank: 'profile' });
    if (isRefusal(base)) return base;
    if (base.kind !== 'profile' || base.figure.kind !== 'curve')
      return refuse('no-curve', `${draft.items[profile]!.name} is no curve through points.`, 'profile');
    const { figure } = base;
    if (points)
      figure.points = points.map(({ x, y }) => [
        cleanLength(valueOf(x as Num)),
        cleanLength(valueOf(y as Num)),
      ]);
    if (how) figure.how = how === 'control' ? 'control' : 'through';
    if (closed) figure.closed = closed === 'yes';
    const least = figure.closed ? 3 : 2;
    if (figure.points.length < least)
      return refuse('too-few', `A curve like this needs ${least} points or more.`, 'points');
    const fault = figureFault(figure);
    return fault ? refuse('figure', fault.message, 'points') : { select: [profile] };
  },
});

/** Other doors and windows for a wall that stands. */
export const openings = declareVerb({
  id: 'openings',
  name: 'Change openings',
  group: 'edit',
  about: 'Gives a wall other openings: the leg, how far from its start, the sill and the sizes.',
  words: ['wall', 'door', 'window', 'hole', 'edit', 'table'],
  blanks: {
    wall: needed('part', 'wall', 'Which one.'),
    openings: optional('rows', 'openings', 'All of them, as they are to be; none closes the wall.', {
      columns: OPENING_COLUMNS,
    }),
  },
  sentence: 'Change openings of {wall}[ to {openings}]',
  apply(draft, { wall, openings: rows }) {
    const base = baseOf(draft, wall, { kind: 'wall', words: 'wall', blank: 'wall' });
    if (isRefusal(base)) return base;
    const read = (rows ?? []).map(openingOf);
    const wrong = read.find(isRefusal);
    if (wrong) return wrong;
    if (base.kind === 'wall') base.openings = read as Opening[];
    return { select: [wall] };
  },
});

/** Other levels for tiers that are there. */
export const levels = declareVerb({
  id: 'levels',
  name: 'Change levels',
  group: 'edit',
  about: 'Gives tiers other levels, from the bottom up.',
  words: ['tiers', 'stack', 'steps', 'edit', 'table'],
  blanks: {
    part: needed('part', 'tiers', 'Which ones.'),
    levels: needed('rows', 'levels', 'All of them, as they are to be.', { columns: TIER_COLUMNS }),
  },
  sentence: 'Change levels of {part} to {levels}',
  apply(draft, { part, levels: rows }) {
    const base = baseOf(draft, part, { kind: 'tiers', words: 'stack of tiers', blank: 'part' });
    if (isRefusal(base)) return base;
    const read = rows.map(tierOf);
    const wrong = read.find(isRefusal);
    if (wrong) return wrong;
    if (base.kind === 'tiers') base.levels = read as Tier[];
    return { select: [part] };
  },
});

/** The rows that say a figure or a recipe, as they would be typed. */
type Rows = Record<string, string>[];

export const rowsOfCurve = ({ points }: FigureOf<'curve'>): Rows =>
  points.map(([x, y]) => ({ x: typedLength(x), y: typedLength(y) }));

export const rowsOfOpenings = (of: readonly Opening[]): Rows =>
  of.map(({ leg, from, sill, width, height }) => ({
    leg: typedNumber(leg),
    from: typedLength(from),
    sill: typedLength(sill),
    width: typedLength(width),
    height: typedLength(height),
  }));

export const rowsOfTiers = (of: readonly Tier[]): Rows =>
  of.map(({ below, above, height, outline, flank, sides }) => ({
    below: typedLength(below),
    above: typedLength(above),
    height: typedLength(height),
    outline,
    flank,
    sides: typedNumber(sides),
  }));
