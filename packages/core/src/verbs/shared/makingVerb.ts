/** The verbs that make plain primitives, made from the declarations of their recipes. */
import type { Kind, Make, RecipeFault } from '../../recipes/declare.ts';
import { blankOf, boundFault, fieldsOf, type ChosenField, type Field } from '../../recipes/fields.ts';
import { valueOf, type Num, type NumVector } from '../../recipes/numbers.ts';
import { isChosenType, type ChosenType } from '../../recipes/chosen.ts';
import type { Base } from '../../document/schema.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Blank,
  type Refusal,
  type Verb,
} from '../../statement/declare.ts';
import { lowerCase } from '../../statement/letters.ts';
import { addPart } from './addPart.ts';
import { asRefusal, doubled } from './recipeBlanks.ts';

type Given = Readonly<Record<string, unknown>>;

/** Its blanks are its fields, a place and a name. */
export function makingVerb(kind: Kind): Verb {
  const { make } = kind;
  if (!make) throw new Error(`${kind.kind} does not say how it is made.`);
  const fields = fieldsOf(kind.schema);
  return declareVerb<Record<string, Blank>>({
    id: kind.kind,
    name: make.name,
    group: 'make',
    ...(make.key === undefined ? {} : { key: make.key }),
    about: make.about,
    words: make.words,
    blanks: {
      ...Object.fromEntries(fields.flatMap(([key, field]) => blanksFor(key, field, make))),
      at: needed('point', make.at[0], make.at[1], { default: ['0', '0', '0'] }),
      as: optional('name', 'name', 'What the new part is called.'),
    },
    sentence: make.sentence,
    gesture: make.gesture,
    apply(draft, given, context) {
      const recipe = recipeOf(kind, given);
      if (isRefusal(recipe)) return recipe;
      const { at, as } = given as { at: NumVector; as?: string };
      const id = addPart(draft, context, { name: as ?? make.name, base: recipe as Base, at });
      return { result: id, select: [id] };
    },
  });
}

function blanksFor(key: string, field: Field, { isByRadius, complete = {} }: Make): [string, Blank][] {
  const blank = blankOf(key, field);
  if (field.type === 'number' && field.half && isByRadius)
    return [
      [
        blank,
        optional('length', lowerCase(field.label), field.about, { positive: true, excludes: field.half }),
      ],
      [
        field.half,
        optional('length', field.half, 'Half the diameter; give one of the two.', {
          positive: true,
          excludes: blank,
        }),
      ],
    ];
  return [[blank, blankFor(field, key in complete ? optional : needed)]];
}

/** As a new one is typed. */
export const blankFor = (field: Field, need: typeof needed | typeof optional = needed): Blank =>
  need(typeOf(field), lowerCase(field.label), field.about, optionsOf(field));

function typeOf(
  field: Field,
): 'length' | 'numbers' | 'angle' | 'count' | 'vector' | 'choice' | 'text' | ChosenType {
  if (field.type === 'number' && field.kind !== 'number') return field.kind;
  if (field.type === 'number' || field.type === 'flag')
    throw new Error(`No blank of a new one tells ${field.label}.`);
  return field.type;
}

const optionsOf = (field: Field) => ({
  ...('default' in field && field.default !== undefined ? { default: field.default } : {}),
  ...('above' in field && field.above === 0 ? { positive: true } : {}),
  ...('choices' in field ? { choices: field.choices } : {}),
  ...(field.rare ? { rare: true } : {}),
  ...(isChosen(field) ? { of: 'part' } : {}),
});

const isChosen = (field: Field): field is ChosenField => isChosenType(field.type);

/** What is said of a base or a step by its fields. */
interface FromFields {
  readonly kind: string;
  readonly schema: Kind['schema'];
  readonly make?: Pick<Make, 'complete'>;
  fault?(recipe: Record<string, unknown>): RecipeFault | undefined;
}

/** The numbers as they are stored, if they are within their bounds and go together. */
export function recipeOf(kind: FromFields, given: Given): object | Refusal {
  const recipe: Record<string, unknown> = { kind: kind.kind };
  for (const [key, field] of fieldsOf(kind.schema)) {
    const value = valueFor(key, field, given, kind.make?.complete);
    if (isRefusal(value)) return value;
    // What may be missing, and was not said, is not stored.
    if (value !== undefined || field.type !== 'numbers') recipe[key] = value;
  }
  return asRefusal(kind.fault?.(recipe)) ?? recipe;
}

function valueFor(key: string, field: Field, given: Given, complete: Make['complete'] = {}): unknown {
  const blank = blankOf(key, field);
  if (isChosen(field)) return given[blank] ?? [];
  if (field.type !== 'number') return given[blank];
  const half = field.half === undefined ? undefined : (given[field.half] as Num | undefined);
  const whole = given[blank] as Num | undefined;
  if (half !== undefined && whole !== undefined)
    return refuse('both', { blank, half: field.half! }, field.half);
  const value = whole ?? (half === undefined ? undefined : doubled(half)) ?? complete[key]?.(given as never);
  if (value === undefined)
    return refuse('missing', { blank, words: field.half ? ` or a ${field.half}` : '' }, blank);
  const fault = boundFault(field, valueOf(value as Num));
  return fault ? refuse('out-of-bounds', { label: field.label, fault }, blank) : value;
}
