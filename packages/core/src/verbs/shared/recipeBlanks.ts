/** The numbers, choices and texts of recipes as blanks of Change, made from their declarations. */
import {
  blankOf,
  boundFault,
  fieldsOf,
  type Field,
  type NumbersField,
  type NumberField,
  type VectorField,
} from '../../recipes/fields.ts';
import type { Kind, RecipeFault } from '../../recipes/declare.ts';
import { SIZED } from '../../recipes/index.ts';
import type { Num, NumVector } from '../../recipes/numbers.ts';
import { valueOf } from '../../recipes/numbers.ts';
import {
  isRefusal,
  optional,
  refuse,
  refuseFor,
  type Blank,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { lowerCase, sentenceCase } from '../../statement/letters.ts';
import { readOne, readThree } from '../../statement/reading.ts';

/** As Change has it: empty unless it is to be changed, and read where `now` is known. */
function blankFor(field: Field): Blank {
  const { about, rare } = field;
  const label = lowerCase(field.label);
  const more = rare ? { rare } : {};
  switch (field.type) {
    case 'number':
      return optional('quantity', label, about, {
        kind: field.kind,
        ...(field.above === 0 ? { positive: true } : {}),
        ...more,
      });
    case 'vector':
      return optional('quantities', label, about, { kind: field.kind, positive: true, ...more });
    case 'numbers':
      return optional('numbers', label, about, { kind: field.kind, ...more });
    case 'choice':
    case 'flag':
      return optional('choice', label, about, { choices: field.choices, ...more });
    case 'text':
      return optional('text', label, about, more);
    case 'edges':
    case 'faces':
    case 'places':
      return optional(field.type, label, about, { of: 'part', ...more });
  }
}

/** The first field that a blank sets, by the order of the kinds; what is one kind's alone stands with it. */
const FIELDS = new Map<string, Field>();
for (const kind of SIZED)
  for (const [key, field] of fieldsOf(kind.schema)) {
    const blank = blankOf(key, field);
    const known = FIELDS.get(blank);
    // What is common somewhere is offered at once.
    if (!known) FIELDS.set(blank, field);
    else if (known.rare && !field.rare && known.type === field.type)
      FIELDS.set(blank, { ...known, rare: undefined });
    if (field.type === 'number' && field.half && !FIELDS.has(field.half))
      FIELDS.set(field.half, { ...field, label: sentenceCase(field.half), about: 'Half the diameter.' });
  }

export const RECIPE_BLANKS: Readonly<Record<string, Blank>> = {
  ...Object.fromEntries([...FIELDS].map(([blank, field]) => [blank, blankFor(field)])),
  ...excluding('diameter', 'radius'),
};

function excluding(one: string, other: string) {
  return {
    [one]: { ...blankFor(FIELDS.get(one)!), excludes: other },
    [other]: { ...blankFor(FIELDS.get(other)!), excludes: one },
  };
}

export const RECIPE_SENTENCE = [...FIELDS]
  .map(([blank, { says, label }]) => `[, ${says ?? `${lowerCase(label)} {${blank}}`}]`)
  .join('')
  .replace('[, size {size}]', '[ to size {size}]');

/** What is typed for the blanks of recipes. */
export type Typed = Readonly<Record<string, unknown>>;

/** The blanks of recipes that are filled, in order. */
export const sizedBlanks = (values: Typed): string[] =>
  [...FIELDS.keys()].filter((blank) => values[blank] !== undefined);

/** What is changed, and how. */
export interface Changing {
  readonly kind: Kind;
  readonly holder: object;
  readonly values: Typed;
  readonly context: VerbContext;
  /** Why it has no such blank. */
  readonly without: (blank: string) => Refusal;
}

/** Sets what is typed; why not, or undefined. */
export function changeFields(changing: Changing): Refusal | undefined {
  const { kind, holder, values, without } = changing;
  const own = fieldsOf(kind.schema);
  for (const blank of sizedBlanks(values)) {
    const found = own.find(([key, field]) => blanksOf(key, field).includes(blank));
    if (!found) return without(blank);
    const fault = changeField(changing, { key: found[0], field: found[1], blank });
    if (fault) return fault;
  }
  return asRefusal(kind.fault?.(holder as never));
}

export const asRefusal = (fault: RecipeFault | undefined): Refusal | undefined =>
  fault && refuseFor(fault, fault.blank);

const blanksOf = (key: string, field: Field): readonly string[] => [
  blankOf(key, field),
  ...(field.type === 'number' && field.half ? [field.half] : []),
  ...(field.type === 'vector' ? Object.keys(field.parts ?? {}) : []),
];

interface Target {
  readonly key: string;
  readonly field: Field;
  readonly blank: string;
}

function changeField({ holder, values, context }: Changing, { key, field, blank }: Target) {
  const held = holder as Record<string, unknown>;
  const read = readField({ field, now: held[key], given: values[blank] }, { context, blank });
  if (isRefusal(read)) return read;
  held[key] = read;
  return undefined;
}

/** A field that is to hold something else, as typed. */
interface FieldGiven {
  readonly field: Field;
  readonly now: unknown;
  readonly given: unknown;
}

/** What the field is to hold, as it is stored. */
export function readField({ field, now, given }: FieldGiven, reading: Reading): unknown {
  switch (field.type) {
    case 'number':
      return readNumber(field, now as Num | undefined, given as string, reading);
    case 'vector':
      return readVector(field, now as NumVector, given, reading);
    case 'numbers':
      return readNumbers(field, now as readonly Num[] | undefined, given, reading);
    case 'flag':
      return given === 'yes';
    default:
      return given;
  }
}

/** `2, 3`; an empty text leaves none. */
function readNumbers(
  field: NumbersField,
  now: readonly Num[] = [],
  given: unknown,
  { context, blank }: Reading,
): Num[] | Refusal | undefined {
  const texts = (typeof given === 'string' ? given.split(',') : [given].flat().map(String)).filter(
    (text) => text.trim() !== '',
  );
  const read: Num[] = [];
  for (const [i, text] of texts.entries()) {
    const one = readOne(text, { kind: field.kind, now: now[i] ?? 0, context, blank });
    const fault = isRefusal(one) ? undefined : boundFault(field, valueOf(one));
    if (isRefusal(one)) return one;
    if (fault) return refuse('out-of-bounds.each', { label: field.label, fault }, blank);
    read.push(one);
  }
  return read.length === 0 ? undefined : read;
}

interface Reading {
  readonly context: VerbContext;
  readonly blank: string;
}

function readNumber(
  field: NumberField,
  now: Num | undefined,
  text: string,
  { context, blank }: Reading,
): Num | Refusal {
  const isHalf = blank === field.half;
  const present = now ?? field.absent ?? 0;
  const read = readOne(text, {
    kind: field.kind,
    now: isHalf ? valueOf(present) / 2 : present,
    context,
    blank,
  });
  if (isRefusal(read)) return read;
  const fault = boundFault(field, valueOf(read));
  if (fault) return refuse('out-of-bounds.this', { fault }, blank);
  if (isHalf) return doubled(read);
  return field.isPlain ? valueOf(read) : read;
}

function readVector(
  field: VectorField,
  now: NumVector,
  given: unknown,
  { context, blank }: Reading,
): NumVector | Refusal {
  const at = field.parts?.[blank];
  const texts =
    at === undefined ? (given as string[]) : [0, 1, 2].map((i) => (i === at ? String(given) : 'now'));
  const read = readThree(texts, { kind: field.kind, now, context, blank });
  if (isRefusal(read)) return read;
  const fault = read.map((n) => boundFault(field, valueOf(n))).find((words) => words !== undefined);
  return fault ? refuse('out-of-bounds.this', { fault }, blank) : read;
}

/** Twice a number, as a diameter is of a radius. */
export const doubled = (n: Num): Num =>
  typeof n === 'number' ? n * 2 : { formula: `2 * (${n.formula})`, value: n.value * 2 };
