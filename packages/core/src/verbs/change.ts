import { datumInPart, datumInWorld } from '../document/datum.ts';
import {
  definitionOf,
  poseOfPlacement,
  standingWithin,
  valueOf,
  vectorOf,
  worldFromParent,
} from '../document/items.ts';
import {
  colourSchema,
  type Datum,
  type KadrelDocument,
  type Num,
  type NumVector,
  type Part,
  type SolidBase,
} from '../document/schema.ts';
import { carryBack, turnVector } from '../space/pose.ts';
import { roundLength } from '../space/rounding.ts';
import type { Vec3 } from '../space/vector.ts';
import { readOne, readThree } from './reading.ts';
import { ACROSS, isSides } from './prism.ts';
import { rememberMade } from './reshape.ts';
import { linkedWith } from './tree.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
  type VerbContext,
} from './declare.ts';

const YES_NO = { yes: 'yes', no: 'no' } as const;

/** Sets what the Spec shows: sizes, place of the datum, turn, colour and the marks of a part. `now` is the present value. */
export const change = declareVerb({
  id: 'change',
  name: 'Change',
  group: 'edit',
  about: 'Sets sizes, place, turn, colour or marks of parts; “now + 20” counts from what is there.',
  words: ['edit', 'set', 'size', 'colour', 'resize', 'spec', 'hide', 'lock'],
  blanks: {
    parts: needed('parts', 'parts', 'What is changed.', { least: 1 }),
    size: optional('quantities', 'size', 'Length, width and height of a box.', {
      kind: 'length',
      positive: true,
    }),
    diameter: optional('quantity', 'diameter', 'Of what is round.', {
      kind: 'length',
      positive: true,
      excludes: 'radius',
    }),
    radius: optional('quantity', 'radius', 'Of what is round.', {
      kind: 'length',
      positive: true,
      excludes: 'diameter',
    }),
    height: optional('quantity', 'height', 'Of what stands upright.', { kind: 'length', positive: true }),
    top: optional('quantity', 'top', 'Across the top of a cone; 0 is a point.', {
      kind: 'length',
      rare: true,
    }),
    bore: optional('quantity', 'bore', 'Of a tube.', { kind: 'length', positive: true, rare: true }),
    thickness: optional('quantity', 'thickness', 'Of a torus.', {
      kind: 'length',
      positive: true,
      rare: true,
    }),
    width: optional('quantity', 'width', 'Of a prism.', { kind: 'length', positive: true, rare: true }),
    sides: optional('quantity', 'sides', 'Of a prism.', { kind: 'count', rare: true }),
    across: optional('choice', 'measured', 'What the width of a prism says.', {
      choices: ACROSS,
      rare: true,
    }),
    at: optional('quantities', 'place', 'Where the datum stands in the world.', { kind: 'length' }),
    turn: optional('quantities', 'turn', 'Degrees about X, then Y, then Z; the datum stays.', {
      kind: 'angle',
    }),
    datum: optional('text', 'datum', '“own”, or three of -1, 0, 1 for a point of its box.'),
    colour: optional('text', 'colour', 'As #rrggbb.'),
    visible: optional('choice', 'visible', 'Whether it is shown.', { choices: YES_NO }),
    locked: optional('choice', 'locked', 'Whether it is kept from moving.', { choices: YES_NO }),
    snappable: optional('choice', 'snappable', 'Whether snaps catch it.', { choices: YES_NO }),
  },
  sentence:
    'Change {parts}[ to size {size}][, diameter {diameter}][, radius {radius}][, height {height}][, top {top}][, bore {bore}][, thickness {thickness}][, {sides} sides][, width {width}][, {across}][, at {at}][, turned {turn}][, datum {datum}]' +
    '[, colour {colour}][, visible {visible}][, locked {locked}][, snappable {snappable}]',
  apply(draft, values, context) {
    for (const id of values.parts) {
      const refusal = changePart(draft, draft.items[id]!, values, context);
      if (refusal) return refusal;
    }
    return { select: values.parts };
  },
});

type ChangeValues = Values<(typeof change)['blanks']>;

function changePart(
  draft: KadrelDocument,
  part: Part,
  values: ChangeValues,
  context: VerbContext,
): Refusal | undefined {
  if (
    part.locked &&
    values.locked !== 'no' &&
    (values.at !== undefined || values.turn !== undefined || isSized(values))
  )
    return refuse('locked', `${part.name} is locked. Unlock it in Parts first.`, 'parts');
  if (values.colour !== undefined) {
    const colour = colourSchema.safeParse(values.colour.toLowerCase());
    if (!colour.success) return refuse('colour', 'A colour is written #rrggbb, as in #d9c3a0.', 'colour');
    // A group has the colours of what stands in it.
    for (const one of [part, ...standingWithin(draft, part)]) one.colour = colour.data;
  }
  if (values.visible) part.visible = values.visible === 'yes';
  if (values.locked) part.locked = values.locked === 'yes';
  if (values.snappable) part.snappable = values.snappable === 'yes';
  if (values.datum !== undefined) {
    const datum = readDatum(values.datum);
    if (!datum)
      return refuse('datum', 'A datum is “own”, or three of -1, 0 and 1 such as “0 0 -1”.', 'datum');
    part.datum = datum;
  }
  const sized = isSized(values);
  // Parts that share the recipe change with it, each about its own datum.
  const shared = sized ? linkedWith(draft, part).filter(({ id }) => id !== part.id) : [];
  // The sizes come before the place, so that the datum of the new size is what is put there.
  const fixed =
    values.at !== undefined || values.turn !== undefined || sized
      ? datumInWorld(draft, part, (id) => context.boxOf(id))
      : undefined;
  const sharing = shared.map((one) => ({ one, datum: datumInWorld(draft, one, (id) => context.boxOf(id)) }));
  return (
    changeSize(draft, part, values, context) ??
    keepShared(draft, sharing, context) ??
    (values.turn && changeTurn(part, values.turn, context)) ??
    (fixed && keepDatum(draft, part, fixed, context)) ??
    (values.at && changePlace(draft, part, values.at, context))
  );
}

function keepShared(
  draft: KadrelDocument,
  sharing: readonly { one: Part; datum: Vec3 | undefined }[],
  context: VerbContext,
): undefined {
  for (const { one, datum } of sharing) if (datum) keepDatum(draft, one, datum, context);
  return undefined;
}

/** Blanks that say sizes of a recipe, and what they are called there. */
const SIZES: Readonly<Partial<Record<SolidBase['kind'], Readonly<Record<string, string>>>>> = {
  cylinder: { diameter: 'diameter', radius: 'diameter', height: 'height' },
  sphere: { diameter: 'diameter', radius: 'diameter' },
  cone: { diameter: 'diameter', radius: 'diameter', top: 'top', height: 'height' },
  tube: { diameter: 'diameter', radius: 'diameter', bore: 'bore', height: 'height' },
  torus: { diameter: 'diameter', radius: 'diameter', thickness: 'thickness' },
  prism: { width: 'size', height: 'height' },
};
const SIZE_BLANKS = ['diameter', 'radius', 'height', 'top', 'bore', 'thickness', 'width'] as const;

const isSized = (values: ChangeValues): boolean =>
  [...SIZE_BLANKS, 'size' as const, 'sides' as const, 'across' as const].some(
    (blank) => values[blank] !== undefined,
  );

function changeSize(
  draft: KadrelDocument,
  part: Part,
  values: ChangeValues,
  context: VerbContext,
): Refusal | undefined {
  if (!isSized(values)) return undefined;
  rememberMade(
    definitionOf(draft, part),
    datumInPart(part, (id) => context.boxOf(id)),
  );
  // A linked part has the sizes of what it is linked to.
  const { base } = definitionOf(draft, part).recipe;
  const without = (blank: string) =>
    refuse('no-such-size', `${part.name} has no ${blank} of its own.`, blank);
  if (base.kind === 'box') return changeBox(base, values, context, without);
  if (values.size !== undefined) return without('size');
  const known = SIZES[base.kind as SolidBase['kind']] ?? {};
  // Every blank of `known` names a number of this base.
  const numbers = base as unknown as Record<string, Num>;
  for (const blank of SIZE_BLANKS) {
    const text = values[blank];
    if (text === undefined) continue;
    const key = known[blank];
    if (key === undefined) return without(blank);
    const isRadius = blank === 'radius';
    const now = isRadius ? valueOf(numbers[key]!) / 2 : numbers[key]!;
    const read = readOne(text, 'length', now, context, blank, blank !== 'top');
    if (isRefusal(read)) return read;
    if (valueOf(read) < 0) return refuse('negative', 'The top is 0 or more.', blank);
    numbers[key] = isRadius ? doubled(read) : read;
  }
  return changeSides(base, values, context, without);
}

type Without = (blank: string) => Refusal;

function changeBox(
  base: Extract<SolidBase, { kind: 'box' }>,
  values: ChangeValues,
  context: VerbContext,
  without: Without,
): Refusal | undefined {
  const odd = [...SIZE_BLANKS, 'sides' as const, 'across' as const].find(
    (blank) => blank !== 'height' && values[blank] !== undefined,
  );
  if (odd) return without(odd);
  const { size, height } = values;
  const texts = size ?? (height === undefined ? undefined : (['now', 'now', height] as const));
  const read = texts && readThree(texts, 'length', base.size, context, size ? 'size' : 'height', true);
  if (read && 'refused' in read) return read;
  if (read) base.size = read;
  return undefined;
}

function changeSides(
  base: Part['recipe']['base'],
  { sides, across }: ChangeValues,
  context: VerbContext,
  without: Without,
): Refusal | undefined {
  if (sides === undefined && across === undefined) return undefined;
  if (base.kind !== 'prism') return without(sides === undefined ? 'across' : 'sides');
  if (sides !== undefined) {
    const read = readOne(sides, 'count', base.sides, context, 'sides', true);
    if (isRefusal(read)) return read;
    if (!isSides(valueOf(read))) return refuse('count', 'Sides: a whole number from 3 to 1000.', 'sides');
    base.sides = valueOf(read);
  }
  if (across) base.across = across as keyof typeof ACROSS;
  return undefined;
}

const doubled = (n: Num): Num =>
  typeof n === 'number' ? n * 2 : { formula: `2 * (${n.formula})`, value: n.value * 2 };

function changeTurn(
  part: Part,
  texts: readonly [string, string, string],
  context: VerbContext,
): Refusal | undefined {
  const read = readThree(texts, 'angle', part.placement.turn, context, 'turn', false);
  if ('refused' in read) return read;
  part.placement.turn = read;
  return undefined;
}

/** After a change of size or turn: shifts the part so that its datum stands where it stood. */
function keepDatum(
  draft: KadrelDocument,
  part: Part,
  fixed: Vec3,
  context: VerbContext,
): Refusal | undefined {
  const now = datumInWorld(draft, part, (id) => context.boxOf(id));
  if (now && now.some((n, axis) => Math.abs(n - fixed[axis]!) > 0)) setDatum(draft, part, fixed, context);
  return undefined;
}

function setDatum(draft: KadrelDocument, part: Part, world: Vec3, context: VerbContext): boolean {
  const { base } = definitionOf(draft, part).recipe;
  const inPart = datumInPart(part, (id) => context.boxOf(id), base);
  if (!inPart) return false;
  const target = carryBack(worldFromParent(draft, part.id), world);
  const offset = turnVector(poseOfPlacement(part.placement).turn, inPart);
  const origin = vectorOf(part.placement.origin);
  part.placement.origin = part.placement.origin.map((n, axis) => {
    const wanted = roundLength(target[axis]! - offset[axis]!);
    return wanted === origin[axis] ? n : wanted;
  }) as NumVector;
  return true;
}

function changePlace(
  draft: KadrelDocument,
  part: Part,
  texts: readonly [string, string, string],
  context: VerbContext,
): Refusal | undefined {
  const now = datumInWorld(draft, part, (id) => context.boxOf(id));
  if (!now) return refuse('no-box', `The box of ${part.name} is not known yet. Try again in a moment.`, 'at');
  const read = readThree(texts, 'length', [...now] as NumVector, context, 'at', false);
  if ('refused' in read) return read;
  setDatum(draft, part, vectorOf(read), context);
  // A formula survives only where the datum is the part's own origin in the world: elsewhere it would say another number.
  if (part.datum === 'own' && part.parent === null)
    part.placement.origin = part.placement.origin.map((n, axis) =>
      typeof read[axis] === 'object' ? read[axis] : n,
    ) as NumVector;
  return undefined;
}

function readDatum(text: string): Datum | undefined {
  if (text.trim() === 'own') return 'own';
  const steps = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return steps.length === 3 && steps.every((n) => n === -1 || n === 0 || n === 1)
    ? (steps as Datum)
    : undefined;
}
