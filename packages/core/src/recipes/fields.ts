/**
 * What the numbers, choices and texts of a recipe are: declared once, beside the schema. What makes, changes, recalculates, shows and
 * documents recipes reads it from there.
 */
import { z } from 'zod';
import type { SizeKind } from '../quantity/units.ts';
import { chosenEdgesSchema, chosenFacesSchema, chosenPlacesSchema, type ChosenType } from './chosen.ts';
import { countNumberSchema, finite, MAX_MEMBERS, numberSchema, vectorSchema } from './numbers.ts';

interface FieldFacts {
  /** In sentence case. */
  readonly label: string;
  /** One line on what it says. */
  readonly about: string;
  /** The blank that sets it, where that is not called like the property. */
  readonly blank?: string;
  /** Seldom set. */
  readonly rare?: true;
  /** How a sentence says that it is set, where that is not its label and the blank. */
  readonly says?: string;
}

/** What a number may be: mm, degrees, a count or a factor. */
export interface Bounds {
  /** It is more than this. */
  readonly above?: number;
  /** It is this or more. */
  readonly least?: number;
  /** It is this or less. */
  readonly most?: number;
  readonly whole?: true;
}

/** A number of a recipe: what it measures, and what it may be. */
export interface NumberField extends FieldFacts, Bounds {
  readonly type: 'number';
  readonly kind: SizeKind;
  /** The blank that sets it by the half of it, as a radius does. */
  readonly half?: string;
  /** It is stored as a plain number, which follows no variable. */
  readonly isPlain?: true;
  /** What holds where nothing is stored. */
  readonly absent?: number;
  /** As typed, where whoever makes a new one does not say. */
  readonly default?: string;
}

/** Three lengths along the axes. */
export interface VectorField extends FieldFacts, Bounds {
  readonly type: 'vector';
  readonly kind: 'length';
  readonly labels: readonly [string, string, string];
  /** Blanks that set one of them, by its place. */
  readonly parts?: Readonly<Record<string, 0 | 1 | 2>>;
}

/** Several numbers in a row; none where nothing is stored. */
export interface NumbersField extends FieldFacts, Bounds {
  readonly type: 'numbers';
  readonly kind: 'length' | 'count';
}

/** One of several words. */
export interface ChoiceField extends FieldFacts {
  readonly type: 'choice';
  /** What is stored → words. */
  readonly choices: Readonly<Record<string, string>>;
  readonly absent?: string;
  readonly default?: string;
}

/** Yes or no. */
export interface FlagField extends FieldFacts {
  readonly type: 'flag';
  readonly choices: Readonly<Record<'no' | 'yes', string>>;
  readonly absent?: boolean;
}

/** A text of a recipe. */
export interface TextField extends FieldFacts {
  readonly type: 'text';
}

/** Edges, or faces, of what was made so far. */
export interface ChosenField extends FieldFacts {
  readonly type: ChosenType;
  readonly default?: string;
  /** None is a choice too. */
  readonly mayBeNone?: true;
}

/** What stands in a recipe under a name. */
export type Field =
  NumberField | VectorField | NumbersField | ChoiceField | FlagField | TextField | ChosenField;

const fields = z.registry<Field>();

/** What is said of a schema, also of one that may be missing. */
export function fieldOf(schema: z.core.$ZodType): Field | undefined {
  return fields.get(schema) ?? (schema instanceof z.ZodOptional ? fieldOf(schema.unwrap()) : undefined);
}

/** The fields of a recipe by its properties, in order; properties of which nothing is declared are left out. */
export function fieldsOf(schema: z.ZodObject): (readonly [key: string, field: Field])[] {
  return Object.entries(schema.shape).flatMap(([key, of]) => {
    const field = fieldOf(of as z.ZodType);
    return field ? [[key, field] as const] : [];
  });
}

/** The blank that sets a field. */
export const blankOf = (key: string, { blank }: Field): string => blank ?? key;

type Without<F extends Field> = Omit<F, 'type' | 'label' | 'about' | 'kind'>;

const number = (field: Omit<NumberField, 'type'>) =>
  z
    .union([finite, z.strictObject({ formula: z.string().max(2000), value: finite })])
    .register(fields, { type: 'number', ...field });

/** A length, mm. */
export const length = (label: string, about = '', more: Without<NumberField> = {}): typeof numberSchema =>
  number({ label, about, kind: 'length', ...more });

/** An angle, degrees. */
export const angle = (label: string, about = '', more: Without<NumberField> = {}): typeof numberSchema =>
  number({ label, about, kind: 'angle', ...more });

/** How many, at least one; it follows its variables. */
export const tally = (label: string): typeof countNumberSchema =>
  countNumberSchema
    .clone()
    .register(fields, { type: 'number', label, about: '', kind: 'count', least: 1, most: MAX_MEMBERS });

/** A whole number that is stored as it is. */
export const count = (
  label: string,
  about: string,
  more: Without<NumberField> & { readonly least: number; readonly most: number },
) =>
  z
    .number()
    .int()
    .min(more.least)
    .max(more.most)
    .register(fields, { type: 'number', label, about, kind: 'count', whole: true, isPlain: true, ...more });

/** How many times as large, stored as it is. */
export const factor = (label: string, about: string, more: Without<NumberField> = {}) =>
  finite
    .positive()
    .register(fields, { type: 'number', label, about, kind: 'number', above: 0, isPlain: true, ...more });

/** Length, width and height along X, Y and Z, mm. */
export const sizes = (about: string): typeof vectorSchema =>
  vectorSchema.clone().register(fields, {
    type: 'vector',
    label: 'Size',
    about,
    kind: 'length',
    above: 0,
    labels: ['Length', 'Width', 'Height'],
    parts: { height: 2 },
  });

/** More in a row are chosen by a rule. */
const MAX_IN_A_ROW = 100;

const numbers = (kind: NumbersField['kind']) => (label: string, about: string, more: Without<NumbersField>) =>
  z
    .array(numberSchema)
    .min(1)
    .max(MAX_IN_A_ROW)
    .register(fields, { type: 'numbers', kind, label, about, ...more })
    .optional();

/** Several lengths in a row. */
export const lengths = numbers('length');

/** Several plain numbers in a row. */
export const counts = numbers('count');

/** One of these words. */
export const choice = <const C extends Readonly<Record<string, string>>>(
  label: string,
  choices: C,
  more: Omit<Without<ChoiceField>, 'choices'> & { readonly about: string },
) =>
  z
    .enum(Object.keys(choices) as (keyof C & string)[])
    .register(fields, { type: 'choice', label, choices, ...more });

/** Yes or no. */
export const flag = (
  label: string,
  choices: FlagField['choices'],
  more: Omit<Without<FlagField>, 'choices'> & { readonly about: string },
) => z.boolean().register(fields, { type: 'flag', label, choices, ...more });

/** A text. */
export const text = (label: string, about: string, more: Without<TextField> = {}) =>
  z
    .string()
    .min(1)
    .max(500)
    .register(fields, { type: 'text', label, about, ...more });

/** Edges of the solid before the step. */
export const edges = (label: string, about: string, more: Without<ChosenField> = {}) =>
  chosenEdgesSchema
    .clone()
    .min(more.mayBeNone ? 0 : 1)
    .register(fields, { type: 'edges', label, about, ...more });

/** Faces, edges and corners of the solid before the step. */
export const places = (label: string, about: string, more: Without<ChosenField> = {}) =>
  chosenPlacesSchema
    .clone()
    .min(more.mayBeNone ? 0 : 1)
    .register(fields, { type: 'places', label, about, ...more });

/** Faces of the solid before the step. */
export const faces = (label: string, about: string, more: Without<ChosenField> = {}) =>
  chosenFacesSchema
    .clone()
    .min(more.mayBeNone ? 0 : 1)
    .register(fields, { type: 'faces', label, about, ...more });

/** What is wrong with a number, said of it as its subject; undefined where nothing is. */
export function boundFault({ above, least, most, whole }: Bounds, value: number): string | undefined {
  const isWithin =
    value > (above ?? -Infinity) && value >= (least ?? -Infinity) && value <= (most ?? Infinity);
  if (whole && !(isWithin && Number.isInteger(value)))
    return most === undefined || most === Infinity
      ? `must be a whole number from ${least}`
      : `must be a whole number from ${least} to ${most}`;
  if (isWithin) return undefined;
  if (above !== undefined && !(value > above)) return `must be more than ${above === 0 ? 'zero' : above}`;
  if (least !== undefined && !(value >= least)) return `must be ${least} or more`;
  return `must be at most ${most}`;
}
