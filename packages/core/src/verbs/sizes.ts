/** The sizes of recipes that Change sets: which blanks name which numbers of which recipe. */
import { ENDS, WALL_SIDES, loftWays, type BodyOf } from '../document/bodies.ts';
import { datumInPart } from '../document/datum.ts';
import { definitionOf, valueOf } from '../document/items.ts';
import type { KadrelDocument, Num, NumVector, Part } from '../document/schema.ts';
import { readOne, readThree } from './reading.ts';
import { figureFault } from './drawing.ts';
import { ACROSS, isSides } from './prism.ts';
import { rememberMade } from './reshape.ts';
import { isRefusal, optional, refuse, type Refusal, type VerbContext } from './declare.ts';

const choices = (list: readonly string[]): Readonly<Record<string, string>> =>
  Object.fromEntries(list.map((one) => [one, one]));
const length = (label: string, about: string) =>
  optional('quantity', label, about, { kind: 'length', rare: true });
const angle = (label: string, about: string) =>
  optional('quantity', label, about, { kind: 'angle', rare: true });

/** Blanks of profiles and of bodies made from them. */
export const SHAPE_BLANKS = {
  down: length('below', 'How far a raised part goes below its plane.'),
  draft: angle('draft', 'How far the sides of a raised part lean inward.'),
  angle: angle('angle', 'How far round a turned part goes.'),
  round: length('corner radius', 'Of a rectangle.'),
  first: angle('from', 'Where an arc begins.'),
  sweep: angle('sweep', 'How far an arc goes.'),
  spacing: length('spacing', 'Between the letters of a text.'),
  sheet: length('sheet', 'How wide the sheet of a plane is shown.'),
  words: optional('text', 'text', 'What a text says.', { rare: true }),
  side: optional('choice', 'side', 'Where a wall stands.', { choices: choices(WALL_SIDES), rare: true }),
  half: optional('choice', 'half', 'Which half is turned.', {
    choices: choices(['whole', 'left', 'right']),
    rare: true,
  }),
  flanks: optional('choice', 'flanks', 'Of a loft.', { choices: choices(['smooth', 'ruled']), rare: true }),
  corners: optional('choice', 'corners', 'Of a swept part.', {
    choices: choices(['square', 'round']),
    rare: true,
  }),
  twist: angle('twist', 'Of a swept part, from its start to its end.'),
  scale: optional('quantity', 'end size', 'How many times as large a swept part is at its end.', {
    kind: 'number',
    rare: true,
  }),
  ends: optional('choice', 'ends', 'A body, or an open surface.', {
    choices: choices(ENDS),
    rare: true,
  }),
  closed: optional('choice', 'round', 'Whether a loft comes back to its first section.', {
    choices: { no: 'no', yes: 'yes' },
    rare: true,
  }),
  align: optional('choice', 'alignment', 'Of a text.', {
    choices: choices(['left', 'centre', 'right']),
    rare: true,
  }),
};
export const SHAPE_SENTENCE =
  '[, below {down}][, draft {draft}][, angle {angle}][, corner radius {round}][, from {first}][, sweep {sweep}]' +
  '[, spacing {spacing}][, sheet {sheet}][, text {words}][, side {side}][, half {half}][, flanks {flanks}]' +
  '[, corners {corners}][, alignment {align}][, twisted {twist}][, end size {scale}][, ends {ends}][, back to the start {closed}]';

/** Blanks that say numbers of a recipe or a figure, and what they are called there. */
const SIZES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  cylinder: { diameter: 'diameter', radius: 'diameter', height: 'height' },
  sphere: { diameter: 'diameter', radius: 'diameter' },
  cone: { diameter: 'diameter', radius: 'diameter', top: 'top', height: 'height' },
  tube: { diameter: 'diameter', radius: 'diameter', bore: 'bore', height: 'height' },
  torus: { diameter: 'diameter', radius: 'diameter', thickness: 'thickness' },
  prism: { width: 'size', height: 'height' },
  wedge: { top: 'top' },
  cap: { diameter: 'diameter', radius: 'diameter', height: 'height' },
  raise: { height: 'height', down: 'down', draft: 'draft' },
  revolve: { angle: 'angle' },
  wall: { thickness: 'thickness', height: 'height' },
  sweep: { twist: 'twist' },
  plane: { sheet: 'size' },
  rectangle: { width: 'width', height: 'height', round: 'round' },
  circle: { diameter: 'diameter', radius: 'diameter' },
  ellipse: { width: 'width', height: 'height' },
  polygon: { width: 'size' },
  arc: { radius: 'radius', first: 'first', sweep: 'sweep' },
  text: { height: 'height', spacing: 'spacing' },
};
const SIZE_BLANKS = [
  'diameter',
  'radius',
  'height',
  'top',
  'bore',
  'thickness',
  'width',
  'down',
  'draft',
  'angle',
  'round',
  'first',
  'sweep',
  'spacing',
  'sheet',
  'twist',
] as const;
const ANGLE_BLANKS: ReadonlySet<string> = new Set(['draft', 'angle', 'first', 'sweep', 'twist']);
/** Numbers that may be 0 or less. */
const FREE_BLANKS: ReadonlySet<string> = new Set([
  'top',
  'down',
  'draft',
  'angle',
  'round',
  'first',
  'sweep',
  'spacing',
  'twist',
]);
/** Numbers of these that are not less than 0. */
const NOT_NEGATIVE: ReadonlySet<string> = new Set(['top', 'down', 'round']);

/** Blanks that say a choice or a text, and where it is kept. */
const CHOICES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  wall: { side: 'side' },
  revolve: { half: 'half', ends: 'ends' },
  raise: { ends: 'ends' },
  loft: { flanks: 'flanks', ends: 'ends' },
  sweep: { corners: 'corners', ends: 'ends' },
  text: { words: 'text', align: 'align' },
};
const CHOICE_BLANKS = ['words', 'side', 'half', 'flanks', 'corners', 'align', 'ends'] as const;

type Quantities = Partial<Readonly<Record<(typeof SIZE_BLANKS)[number] | 'sides' | 'scale', string>>>;
type Choices = Partial<Readonly<Record<(typeof CHOICE_BLANKS)[number] | 'across' | 'closed', string>>>;
export type SizeValues = Quantities &
  Choices & { readonly size?: readonly [string, string, string] | undefined };

const OTHERS = ['size', 'sides', 'across', 'scale', 'closed'] as const;
export const isSized = (values: { readonly [K in keyof SizeValues]?: unknown }): boolean =>
  [...SIZE_BLANKS, ...CHOICE_BLANKS, ...OTHERS].some((blank) => values[blank] !== undefined);

export function changeSize(
  draft: KadrelDocument,
  part: Part,
  values: SizeValues,
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
  const holder = base.kind === 'profile' ? base.figure : base;
  if (holder.kind === 'wedge' && values.size) {
    const read = readThree(values.size, 'length', holder.size, context, 'size', true);
    if ('refused' in read) return read;
    holder.size = read;
  } else if (values.size !== undefined) return without('size');
  const fault =
    changeNumbers(holder, values, context, without) ??
    changeChoices(holder, values, without) ??
    changeSides(holder, values, context, without) ??
    changeEnds(holder, values, context, without);
  if (fault || base.kind !== 'profile') return fault;
  const wrong = figureFault(base.figure);
  return wrong && refuse('figure', wrong.message, wrong.blank);
}

type Without = (blank: string) => Refusal;
interface Holder {
  readonly kind: string;
}

function changeNumbers(
  holder: Holder,
  values: SizeValues,
  context: VerbContext,
  without: Without,
): Refusal | undefined {
  const known = SIZES[holder.kind] ?? {};
  // Every blank of `known` names a number of this recipe.
  const numbers = holder as unknown as Record<string, Num>;
  for (const blank of SIZE_BLANKS) {
    const text = values[blank];
    if (text === undefined) continue;
    const key = known[blank];
    if (key === undefined) return without(blank);
    const isHalf = blank === 'radius' && key === 'diameter';
    const now = isHalf ? valueOf(numbers[key]!) / 2 : (numbers[key] ?? 0);
    const kind = ANGLE_BLANKS.has(blank) ? 'angle' : 'length';
    const read = readOne(text, kind, now, context, blank, !FREE_BLANKS.has(blank));
    if (isRefusal(read)) return read;
    if (NOT_NEGATIVE.has(blank) && valueOf(read) < 0) return refuse('negative', 'This is 0 or more.', blank);
    if (blank === 'angle' && !(Math.abs(valueOf(read)) > 0 && Math.abs(valueOf(read)) <= 360))
      return refuse('angle', 'It turns by more than 0° and at most 360°, either way.', blank);
    numbers[key] = isHalf ? doubled(read) : read;
  }
  return undefined;
}

function changeChoices(holder: Holder, values: SizeValues, without: Without): Refusal | undefined {
  const known = CHOICES[holder.kind] ?? {};
  const kept = holder as unknown as Record<string, string>;
  for (const blank of CHOICE_BLANKS) {
    const choice = values[blank];
    if (choice === undefined) continue;
    const key = known[blank];
    if (key === undefined) return without(blank);
    kept[key] = choice;
  }
  return undefined;
}

function changeBox(
  base: { size: NumVector },
  values: SizeValues,
  context: VerbContext,
  without: Without,
): Refusal | undefined {
  const odd = [...SIZE_BLANKS, ...CHOICE_BLANKS, 'sides' as const, 'across' as const].find(
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
  holder: Holder,
  { sides, across }: SizeValues,
  context: VerbContext,
  without: Without,
): Refusal | undefined {
  if (sides === undefined && across === undefined) return undefined;
  if (holder.kind !== 'prism' && holder.kind !== 'polygon')
    return without(sides === undefined ? 'across' : 'sides');
  const polygon = holder as unknown as { sides: number; across: keyof typeof ACROSS };
  if (sides !== undefined) {
    const read = readOne(sides, 'count', polygon.sides, context, 'sides', true);
    if (isRefusal(read)) return read;
    if (!isSides(valueOf(read))) return refuse('count', 'Sides: a whole number from 3 to 1000.', 'sides');
    polygon.sides = valueOf(read);
  }
  if (across) polygon.across = across as keyof typeof ACROSS;
  return undefined;
}

/** How large a swept part is at its end, and whether a loft comes back. */
function changeEnds(
  holder: Holder,
  { scale, closed }: SizeValues,
  context: VerbContext,
  without: Without,
): Refusal | undefined {
  if (scale !== undefined) {
    if (holder.kind !== 'sweep') return without('scale');
    const sweep = holder as unknown as { scale?: number };
    const read = readOne(scale, 'number', sweep.scale ?? 1, context, 'scale', true);
    if (isRefusal(read)) return read;
    sweep.scale = valueOf(read);
  }
  if (closed !== undefined) {
    if (holder.kind !== 'loft') return without('closed');
    const loft = holder as unknown as BodyOf<'loft'>;
    if (closed === 'yes' && loftWays(loft).sections.length < 3)
      return refuse('too-few', 'A loft that comes back to its first section needs three or more.', 'closed');
    if (closed === 'yes' && loftWays(loft).guides.length > 0)
      return refuse('guides', 'A loft with guides leads from one section to another.', 'closed');
    loft.closed = closed === 'yes';
  }
  return undefined;
}

const doubled = (n: Num): Num =>
  typeof n === 'number' ? n * 2 : { formula: `2 * (${n.formula})`, value: n.value * 2 };
