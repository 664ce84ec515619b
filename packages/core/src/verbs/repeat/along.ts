import { valueOf, vectorOf } from '../../document/items.ts';
import type { Growth, LayoutOf } from '../../recipes/layouts/index.ts';
import type { ItemId, KadrelDocument, Num } from '../../document/schema.ts';
import { cleanLength } from '../../space/rounding.ts';
import { NO_TURN } from '../../space/pose.ts';
import { length, subtract, unit, type Vec3 } from '../../space/vector.ts';
import {
  declareVerb,
  needed,
  optional,
  isRefusal,
  refuse,
  type Refusal,
  type Values,
  type VerbContext,
} from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { rangeAlong } from '../place/distribute.ts';
import { growthFault } from '../shared/freeing.ts';
import { makePattern, readCount, readSpacing, type InFrame } from '../shared/repeating.ts';

const blanks = {
  parts: needed('parts', 'parts', 'What is repeated.', { least: 1 }),
  count: optional('tally', 'in all', 'How many there are, the first one included.'),
  along: needed('direction', 'along', 'X, Y or Z, or a picked edge or face.', { default: 'x' }),
  pitch: optional('length', 'every', 'From one to the next.', { excludes: 'span' }),
  span: optional('length', 'across', 'Over the whole row, measured as the next blank says.', {
    excludes: 'pitch',
  }),
  measured: optional('choice', 'measured', 'What the row is measured by.', {
    choices: {
      ends: 'from the first to the last',
      outer: 'over their outer faces',
      halves: 'with half a pitch at each end',
    },
    unsaid: 'ends',
    of: 'span',
  }),
  from: optional('point', 'from', 'With “to”: the direction goes from this point to that.', { rare: true }),
  to: optional('point', 'to', 'With “from”: the direction goes to this point.', { rare: true }),
  centred: needed('choice', 'standing', 'Where the row stands from its source.', {
    default: 'from',
    choices: { from: 'from the source on', centred: 'centred on the source' },
    rare: true,
  }),
  fit: needed('choice', 'as many as fit', 'Counts what fits into the span, for a given gap.', {
    default: 'no',
    choices: { no: 'as counted', least: 'with gaps of at least', most: 'with gaps of at most' },
    rare: true,
  }),
  gap: optional('length', 'gap', 'Between one and the next, for as many as fit.', { rare: true }),
  widening: optional('length', 'widening by', 'How much each gap is wider than the one before.', {
    rare: true,
  }),
  twist: optional('angle', 'twisting by', 'How much each is turned further, about the direction.', {
    rare: true,
  }),
  growth: optional('vector', 'growing by', 'How much each is larger than the one before, along X, Y, Z.', {
    rare: true,
  }),
  as: optional('name', 'name', 'What the row is called.', { rare: true }),
};

/** A row: parts again and again along a direction, by pitch or by span. */
export const along = declareVerb({
  id: 'along',
  name: 'Repeat along',
  group: 'repeat',
  key: 'R',
  about: 'A row along a direction: so many in all, every so far or across so much. Stays editable.',
  words: ['array', 'row', 'linear', 'posts', 'slats', 'pitch', 'spacing', 'copies', 'multiply', 'evenly'],
  blanks,
  sentence:
    'Repeat along {along} with {parts}[, {count} in all][, every {pitch}][, across {span}][ {measured}][, from {from}][ to {to}]' +
    '[, {centred}][, as many as fit {fit}][ {gap}][, widening by {widening}][, twisting by {twist}]' +
    '[, growing by {growth}][ named {as}]',
  apply(draft, values, context) {
    const { parts, as } = values;
    return makePattern(
      draft,
      {
        parts,
        as,
        word: 'row',
        layout: (inFrame, chosen) => layoutOf(draft, values, { inFrame, chosen, context }),
      },
      context,
    );
  },
});

type AlongValues = Values<typeof blanks>;

interface Around {
  readonly inFrame: InFrame;
  readonly chosen: readonly ItemId[];
  readonly context: VerbContext;
}

function layoutOf(
  draft: KadrelDocument,
  values: AlongValues,
  { inFrame, chosen, context }: Around,
): LayoutOf<'along'> | Refusal {
  const direction = directionOf(values);
  if ('refused' in direction) return direction;
  const growth = growthOf(values);
  if (growth && 'refused' in growth) return growth;
  const fault = growth && 'size' in growth ? growthFault(draft, chosen, 'growth') : undefined;
  if (fault) return fault;
  const row = {
    kind: 'along',
    direction: inFrame.direction(direction),
    centred: values.centred === 'centred',
    ...(growth ? { growth } : {}),
  } as const;
  if (values.fit !== 'no') {
    const fit = fitted(values, { direction, chosen }, context);
    return 'refused' in fit ? fit : { ...row, ...fit };
  }
  if (values.count === undefined) return refuse('missing.how-many', {}, 'count');
  const count = readCount(values.count, 'count');
  if (isRefusal(count)) return count;
  const span = spanOf(values, count, { direction, chosen, context });
  if (isRefusal(span)) return span;
  const spacing = readSpacing(values.pitch, span, { count: valueOf(count) });
  return 'refused' in spacing ? spacing : { ...row, count, spacing };
}

/** From the first to the last, however it was measured. */
function spanOf(
  { span, measured = 'ends' }: AlongValues,
  count: Num,
  { direction, chosen, context }: { direction: Vec3; chosen: readonly ItemId[]; context: VerbContext },
): Num | Refusal | undefined {
  if (span === undefined || measured === 'ends') return span;
  if (measured === 'halves') {
    const share = `(${formulaOf(count)} - 1) / (${formulaOf(count)})`;
    return calculated(
      `(${formulaOf(span)}) * ${share}`,
      (valueOf(span) * (valueOf(count) - 1)) / valueOf(count),
      [span, count],
    );
  }
  const size = extentOf(chosen, direction, context);
  const rest = valueOf(span) - size;
  if (!(rest > 0) && valueOf(count) > 1) return refuse('span', {}, 'span');
  return calculated(`(${formulaOf(span)}) - ${size} mm`, rest, [span]);
}

/** As a text of the number language, lengths with their unit. */
const formulaOf = (n: Num) => (typeof n === 'number' ? `${n}` : n.formula);

/** A number that goes on following variables where one of those that it is made from does. */
const calculated = (formula: string, value: number, from: readonly Num[]): Num =>
  from.some((n) => typeof n !== 'number') ? { formula, value } : cleanLength(value);

/** What parts take up along a direction, by their exact extents. */
function extentOf(chosen: readonly ItemId[], direction: Vec3, context: VerbContext): number {
  const ranges = chosen.map((id) => rangeAlong(id, direction, context));
  return Math.max(...ranges.map(([, most]) => most)) - Math.min(...ranges.map(([least]) => least));
}

/** The picked direction, or from a point to a point. */
function directionOf({ along: direction, from, to }: AlongValues): Vec3 | Refusal {
  if ((from === undefined) !== (to === undefined))
    return refuse('missing.direction', {}, from ? 'to' : 'from');
  if (!from || !to) return worldDirection(direction, NO_TURN);
  const way = subtract(vectorOf(to), vectorOf(from));
  return length(way) > 0 ? unit(way) : refuse('same-point', {}, 'to');
}

function growthOf({ widening, twist, growth }: AlongValues): Growth | Refusal | undefined {
  const given = [widening, twist, growth].filter((value) => value !== undefined);
  if (given.length > 1) return refuse('both.gaps', {}, growth ? 'growth' : 'twist');
  if (widening !== undefined) return { gap: widening };
  if (twist !== undefined) return { turn: twist };
  return growth && { size: [...growth] };
}

type Fit = Pick<LayoutOf<'along'>, 'count' | 'spacing' | 'fit'>;

/** As many as fit: counted from the span and from what the parts take up along it, by their exact extents. */
function fitted(
  { fit, gap, span, pitch, count }: AlongValues,
  { direction, chosen }: { readonly direction: Vec3; readonly chosen: readonly ItemId[] },
  context: VerbContext,
): Fit | Refusal {
  if (count !== undefined) return refuse('both.count', {}, 'count');
  if (span === undefined || pitch !== undefined) return refuse('missing.span', {}, 'span');
  if (gap === undefined) return refuse('missing.how-wide-gaps', {}, 'gap');
  const size = extentOf(chosen, direction, context);
  if (!(size + valueOf(gap) > 0)) return refuse('gap', {}, 'gap');
  return { count: 1, spacing: { span }, fit: { rule: fit === 'most' ? 'most' : 'least', gap, size } };
}
