import { valueOf, vectorOf } from '../../document/items.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { boxSize, unionBoxes } from '../../space/box.ts';
import { stretchAlong, column, frameAlong, cleanDirection, type Matrix } from '../../space/matrix.ts';
import { isIdentity, isQuarterTurn, turnBack, type Turn } from '../../space/pose.ts';
import { length, subtract, unit, type Vec3 } from '../../space/vector.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Affine,
  type Refusal,
  type Values,
  type VerbContext,
} from '../../statement/declare.ts';
import { axesOf } from '../../statement/frames.ts';
import { CENTRES, centresOf, lockedRefusal, withoutNested } from '../shared/placing.ts';
import { readThree } from '../../statement/reading.ts';
import { reshapePart } from '../shared/reshape.ts';

/** Stretches parts along the axes of a frame, by factors or to sizes; negative factors mirror. Solids stay exact. */
export const resize = declareVerb({
  id: 'resize',
  name: 'Resize',
  group: 'place',
  key: 'Z',
  about: 'By factors or to sizes, along one axis, two or all, about the centre that you choose; stays exact.',
  words: ['scale', 'stretch', 'size', 'larger', 'smaller', 'factor', 'flip', 'proportion'],
  blanks: {
    parts: needed('parts', 'parts', 'What is resized.', { least: 1 }),
    by: optional('quantities', 'factor', 'Factors along X, Y and Z; 1 leaves a size, −1 mirrors it.', {
      kind: 'number',
      excludes: 'to',
    }),
    to: optional('quantities', 'size', 'Sizes along X, Y and Z; “now” leaves one as it is.', {
      kind: 'length',
      excludes: 'by',
    }),
    in: needed('frame', 'frame', 'The axes that X, Y and Z refer to.', { default: 'own' }),
    others: needed('choice', 'the others', 'Whether the other axes follow in proportion.', {
      default: 'stay',
      choices: { stay: 'stay', follow: 'follow in proportion' },
    }),
    about: needed('choice', 'centre', 'What stays put.', { default: 'own', choices: CENTRES }),
    at: optional('point', 'centre point', 'The point that stays.', {
      next: 'by',
      askedBy: ['about', 'point'],
    }),
    from: optional('point', 'from', 'One end of a distance that gets a stated length.', { next: 'until' }),
    until: optional('point', 'until', 'The other end of it.', { next: 'length' }),
    length: optional('length', 'length', 'What that distance becomes.', { positive: true }),
  },
  sentence:
    'Resize {parts}[ by {by}][ to {to}][ in {in} frame][, the others {others}][, {about}][ at {at}]' +
    '[, so that from {from}][ until {until}][ is {length}]',
  apply(draft, values, context) {
    const { parts, in: frame, about, at } = values;
    const locked = lockedRefusal(draft, parts);
    if (locked) return locked;
    const chosen = withoutNested(draft, parts);
    const centres = centresOf({ document: draft, context }, chosen, {
      centre: about,
      at: at && vectorOf(at),
    });
    if ('refused' in centres) return centres;
    const groups = about === 'own' ? chosen.map((id) => [id]) : [chosen];
    const maps: { id: ItemId; map: Matrix }[] = [];
    for (const group of groups) {
      const axes = axesOf(draft, frame, group[0]!);
      const map = mapOf({ document: draft, group, context }, axes, values);
      if ('refused' in map) return map;
      maps.push(...group.map((id) => ({ id, map })));
    }
    const reshaped: Record<ItemId, Affine> = {};
    const fixed = chosen.map(centres);
    for (const { id, map } of maps) {
      const done = reshapePart({ draft, context }, draft.items[id]!, {
        linear: map,
        fixed: fixed[chosen.indexOf(id)]!,
      });
      if ('refused' in done) return done;
      reshaped[id] = done;
    }
    return { select: parts, reshaped };
  },
});

type ResizeValues = Values<(typeof resize)['blanks']>;

/** The linear map in the world that the blanks come to for parts that are resized as one. */
function mapOf(
  {
    document,
    group,
    context,
  }: { readonly document: KadrelDocument; readonly group: readonly ItemId[]; readonly context: VerbContext },
  axes: Turn,
  { by, to, from, until, length: wanted, others }: ResizeValues,
): Matrix | Refusal {
  if (from !== undefined || until !== undefined || wanted !== undefined) {
    if (by ?? to) return refuse('both.length', {}, 'length');
    if (from === undefined) return refuse('missing.end', {}, 'from');
    if (until === undefined) return refuse('missing.until', {}, 'until');
    if (wanted === undefined) return refuse('missing.length', {}, 'length');
    const span = subtract(vectorOf(until), vectorOf(from));
    const now = length(span);
    if (now === 0) return refuse('zero.until', {}, 'until');
    const factor = valueOf(wanted) / now;
    if (others === 'follow') return stretchAlong(axes, [factor, factor, factor]);
    return stretchAlong(frameAlong(cleanDirection(unit(span))), [factor, 1, 1]);
  }
  if ((by === undefined) === (to === undefined))
    return by ? refuse('both.to', {}, 'to') : refuse('missing.by', {}, 'by');
  const factors = by
    ? readAll(by, { kind: 'number', now: [1, 1, 1] }, { context, blank: 'by' })
    : factorsTo(to!, sizesOf({ document, group, context }, axes), context);
  if ('refused' in factors) return factors;
  const spread = others === 'follow' ? proportioned(factors) : factors;
  const zero = spread.findIndex((n) => n === 0);
  if (zero >= 0) return refuse('zero.factor', { value: 'XYZ'[zero]! }, by ? 'by' : 'to');
  return stretchAlong(axes, spread);
}

/** Where the others follow, one factor is for all: the first that is not 1. */
function proportioned(factors: Vec3): Vec3 {
  const one = factors.find((n) => n !== 1) ?? 1;
  return [one, one, one];
}

function factorsTo(texts: readonly string[], sizes: Vec3, context: VerbContext): Vec3 | Refusal {
  const wanted = readAll(texts, { kind: 'length', now: sizes }, { context, blank: 'to' });
  if ('refused' in wanted) return wanted;
  return wanted.map((n, i) => (n === sizes[i] ? 1 : n / sizes[i]!)) as unknown as Vec3;
}

/** The sizes of parts along axes: of the part's own box, or of the box round them all. */
export function sizesOf(
  {
    document,
    group,
    context,
  }: { readonly document: KadrelDocument; readonly group: readonly ItemId[]; readonly context: VerbContext },
  axes: Turn,
): Vec3 {
  const [only, ...more] = group;
  if (more.length === 0) {
    const own = axesOf(document, { own: true }, only!);
    const box = context.boxOf(only!);
    if (box && own.every((n, i) => n === axes[i])) return boxSize(box);
  }
  if (isIdentity(axes)) return boxSize(unionBoxes(group.map((id) => context.worldBox(id)))!);
  if (isQuarterTurn(axes)) {
    const size = boxSize(unionBoxes(group.map((id) => context.worldBox(id)))!);
    return turnBack(axes, size).map(Math.abs) as unknown as Vec3;
  }
  return [0, 1, 2].map((i) => {
    const ranges = group.map((part) =>
      context.ask<'extent'>({ ask: 'extent', part, direction: column(axes, i) }),
    );
    return Math.max(...ranges.map(([, most]) => most)) - Math.min(...ranges.map(([least]) => least));
  }) as unknown as Vec3;
}

/** What is left empty stays as it is. */
function readAll(
  texts: readonly string[],
  { kind, now }: { readonly kind: 'length' | 'number'; readonly now: Vec3 },
  { context, blank }: { readonly context: VerbContext; readonly blank: string },
): Vec3 | Refusal {
  const filled = texts.map((text) => (text.trim() === '' ? 'now' : text));
  const read = readThree(filled, { kind, now: [...now], context, blank });
  return isRefusal(read) ? read : vectorOf(read);
}
