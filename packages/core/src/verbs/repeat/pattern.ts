import { valueOf } from '../../document/items.ts';
import type { Layout, LayoutOf, Spacing } from '../../recipes/layouts/index.ts';
import type { Num, PatternBase } from '../../document/schema.ts';
import type { QuantityKind } from '../../quantity/units.ts';
import { countAlong, pitchOf, spanOf } from '../../patterns/members.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
  type VerbContext,
} from '../../statement/declare.ts';
import { lockedRefusal } from '../shared/placing.ts';
import { readOne } from '../../statement/reading.ts';
import { readCount, bothSpacings, inOnePlace, tooMany } from '../shared/repeating.ts';

const blanks = {
  parts: needed('parts', 'patterns', 'What is changed.', { least: 1 }),
  count: optional('quantity', 'in all', 'How many there are.', { kind: 'count' }),
  pitch: optional('quantity', 'every', 'From one to the next: a length, or an angle of a ring.', {
    excludes: 'span',
  }),
  span: optional('quantity', 'across', 'From the first to the last: a length, or an angle of a ring.', {
    excludes: 'pitch',
  }),
  counts: optional('quantities', 'columns, rows, levels', 'Of a grid.', { kind: 'count', rare: true }),
  pitches: optional('quantities', 'each every', 'Of columns, rows and levels; “now” leaves one as it is.', {
    kind: 'length',
    rare: true,
  }),
  spans: optional('quantities', 'each across', 'Of columns, rows and levels; “now” leaves one as it is.', {
    kind: 'length',
    rare: true,
  }),
  rise: optional('quantity', 'rising by', 'Of a ring, from one to the next.', { kind: 'length', rare: true }),
  centred: optional('choice', 'standing', 'Of a row.', {
    choices: { from: 'from the source on', centred: 'centred on the source' },
    rare: true,
  }),
  attitude: optional('choice', 'attitude', 'Of a ring or on a path.', {
    choices: { turning: 'turning along', keeping: 'all facing as the first' },
    rare: true,
  }),
  stagger: optional('choice', 'every other row', 'Of a grid.', {
    choices: { no: 'in line', half: 'shifted by half' },
    rare: true,
  }),
};

/** Changes the numbers of patterns: counts, pitches and spans. A pitch in place of a span makes it a pitch, and the other way round. */
export const pattern = declareVerb({
  id: 'pattern',
  name: 'Set pattern',
  group: 'repeat',
  about: 'Changes count, pitch or span of patterns; “now + 1” counts from what is there.',
  words: ['array', 'count', 'number', 'more', 'fewer', 'respace', 'pitch', 'span', 'ring', 'row', 'grid'],
  blanks,
  sentence:
    'Set pattern {parts}[ to {count} in all][, every {pitch}][, across {span}][, {counts} columns, rows and levels]' +
    '[, each every {pitches}][, each across {spans}][, rising by {rise}][, {centred}][, {attitude}][, every other row {stagger}]',
  apply(draft, values, context) {
    const locked = lockedRefusal(draft, values.parts);
    if (locked) return locked;
    for (const id of values.parts) {
      const part = draft.items[id]!;
      const { base } = part.recipe;
      if (base.kind !== 'pattern') return refuse('no-pattern', { name: part.name }, 'parts');
      const fault = setPattern(base, values, context) ?? tooMany(base.layout, 'count');
      if (fault) return fault;
    }
    return { select: values.parts };
  },
});

type PatternValues = Values<typeof blanks>;

const without = (blank: string, what: string) => refuse('no-such-number.none', { what }, blank);
const WORDS: Readonly<Record<Layout['kind'], string>> = {
  along: 'row',
  around: 'ring',
  grid: 'grid',
  path: 'row on a path',
  reflection: 'mirrored pair',
};

function setPattern(base: PatternBase, values: PatternValues, context: VerbContext): Refusal | undefined {
  const { layout } = base;
  const { count, pitch, span, counts, pitches, spans, rise, centred, attitude, stagger } = values;
  if (layout.kind === 'grid') {
    if (count !== undefined) return refuse('no-such-number.count', {}, 'count');
    if (pitch !== undefined || span !== undefined)
      return refuse('no-such-number.pitch', {}, pitch ? 'pitch' : 'span');
    if (stagger) layout.stagger = stagger === 'half' ? 0.5 : 0;
    return setGrid(layout, { counts, pitches, spans }, context);
  }
  for (const [blank, given] of Object.entries({ counts, pitches, spans, stagger }))
    if (given !== undefined) return without(blank, WORDS[layout.kind]);
  if (layout.kind === 'reflection') {
    const blank = (['count', 'pitch', 'span', 'rise', 'centred', 'attitude'] as const).find((b) => values[b]);
    return blank && without(blank, WORDS.reflection);
  }
  if (rise !== undefined) {
    if (layout.kind !== 'around') return without('rise', WORDS[layout.kind]);
    const read = readOne(rise, { kind: 'length', now: layout.rise, context, blank: 'rise' });
    if (isRefusal(read)) return read;
    layout.rise = read;
  }
  if (centred) {
    if (layout.kind !== 'along') return without('centred', WORDS[layout.kind]);
    layout.centred = centred === 'centred';
  }
  if (attitude) {
    if (layout.kind === 'along') return without('attitude', WORDS.along);
    layout.attitude = attitude === 'keeping' ? 'keeping' : 'turning';
  }
  return setRow(layout, { count, pitch, span }, context);
}

interface RowTexts {
  readonly count: string | undefined;
  readonly pitch: string | undefined;
  readonly span: string | undefined;
}

function setRow(
  layout: LayoutOf<'along'> | LayoutOf<'around'> | LayoutOf<'path'>,
  { count, pitch, span }: RowTexts,
  context: VerbContext,
): Refusal | undefined {
  const present = layout.kind === 'along' ? countAlong(layout) : valueOf(layout.count);
  if (count !== undefined) {
    const read = readWhole(count, present, { context, blank: 'count' });
    if (isRefusal(read)) return read;
    layout.count = read;
    // What is counted by hand is no longer what fits.
    if (layout.kind === 'along') delete layout.fit;
  }
  if (pitch === undefined && span === undefined) return undefined;
  const kind: QuantityKind = layout.kind === 'around' ? 'angle' : 'length';
  const spacing = changedSpacing(
    { spacing: layout.spacing ?? { pitch: 0 }, count: valueOf(layout.count) },
    { pitch, span, kind },
    context,
  );
  if ('refused' in spacing) return spacing;
  layout.spacing = spacing;
  if (layout.kind === 'along' && 'pitch' in spacing) {
    layout.count = layout.fit ? present : layout.count;
    delete layout.fit;
  }
  return undefined;
}

interface GridTexts {
  readonly counts: readonly string[] | undefined;
  readonly pitches: readonly string[] | undefined;
  readonly spans: readonly string[] | undefined;
}

function setGrid(
  { rows }: LayoutOf<'grid'>,
  { counts, pitches, spans }: GridTexts,
  context: VerbContext,
): Refusal | undefined {
  for (const [i, row] of rows.entries()) {
    const count = counts && readWhole(counts[i]!, valueOf(row.count), { context, blank: 'counts' });
    if (isRefusal(count)) return count;
    if (count !== undefined) row.count = count;
    const parsed = (texts: readonly string[] | undefined) =>
      texts?.[i]!.trim() === 'now' || texts?.[i]!.trim() === '' ? undefined : texts?.[i];
    const [pitch, span] = [parsed(pitches), parsed(spans)];
    if (pitch === undefined && span === undefined) continue;
    const blanks = ['pitches', 'spans'] as const;
    const spacing = changedSpacing(
      { spacing: row.spacing, count: valueOf(row.count) },
      { pitch, span, kind: 'length', blanks },
      context,
    );
    if ('refused' in spacing) return spacing;
    row.spacing = spacing;
  }
  return undefined;
}

function readWhole(
  text: string,
  now: number,
  { context, blank }: { readonly context: VerbContext; readonly blank: string },
): Num | Refusal {
  const read = readOne(text, { kind: 'count', now, context, blank });
  return isRefusal(read) ? read : readCount(read, blank);
}

interface SpacingTexts {
  readonly pitch: string | undefined;
  readonly span: string | undefined;
  readonly kind: QuantityKind;
  readonly blanks?: readonly [string, string];
}

/** `now` is the present pitch, or the present span, whichever of the two is stored. */
function changedSpacing(
  { spacing, count }: { readonly spacing: Spacing; readonly count: number },
  { pitch, span, kind, blanks = ['pitch', 'span'] }: SpacingTexts,
  context: VerbContext,
): Spacing | Refusal {
  if (pitch !== undefined && span !== undefined) return bothSpacings(blanks[1]);
  const isPitch = pitch !== undefined;
  const blank = blanks[isPitch ? 0 : 1];
  const stored: Num | undefined = isPitch
    ? 'pitch' in spacing
      ? spacing.pitch
      : undefined
    : 'span' in spacing
      ? spacing.span
      : undefined;
  const now = stored ?? (isPitch ? pitchOf(spacing, count) : spanOf(spacing, count));
  const read = readOne(isPitch ? pitch : span!, { kind, now, context, blank });
  if (isRefusal(read)) return read;
  if (count > 1 && valueOf(read) === 0) return inOnePlace(blank);
  return isPitch ? { pitch: read } : { span: read };
}
