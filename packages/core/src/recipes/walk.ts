/** The numbers of recipes that follow variables, wherever they stand. */
import { z } from 'zod';
import { fieldOf, type NumberField } from './fields.ts';
import type { Num } from './numbers.ts';

/** Some number with a formula, and what it is. */
export type Visit = (n: Extract<Num, object>, field: NumberField) => Num;

const isFormula = (value: object): value is Extract<Num, object> => 'formula' in value && 'value' in value;

/** Whether a number with a formula stands in it, at any depth. */
export const holdsFormula = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  (isFormula(value) || Object.values(value).some(holdsFormula));

/** Puts what `visit` returns in place of each number that has a formula. What has none is not looked at. */
export function visitFormulas(schema: z.core.$ZodType, held: object, visit: Visit): void {
  for (const [key, value] of Object.entries(held) as [string, unknown][]) {
    if (!holdsFormula(value)) continue;
    const of = schemaAt(schema, key, held);
    if (!of) continue;
    if (isFormula(value as object)) put(held, key, visit(value as Extract<Num, object>, numberOf(of)));
    else visitFormulas(of, value as object, visit);
  }
}

function put(held: object, key: string, value: Num): void {
  const at = held as Record<string, Num>;
  // What stays is left alone: an edit says only what it changes.
  if (at[key] !== value) at[key] = value;
}

/** What is said of several numbers together is said of each. */
function numberOf(schema: z.core.$ZodType): NumberField {
  const field = fieldOf(schema);
  if (field?.type === 'number') return field;
  if (field?.type === 'vector' || field?.type === 'numbers') return { ...field, type: 'number' };
  return { type: 'number', kind: 'length', label: '', about: '' };
}

/** The schema of a property, an element or the option that fits. */
function schemaAt(schema: z.core.$ZodType, key: string, held: unknown): z.core.$ZodType | undefined {
  if (schema instanceof z.ZodOptional || schema instanceof z.ZodNullable)
    return schemaAt(schema.unwrap(), key, held);
  if (schema instanceof z.ZodObject) return (schema.shape as Record<string, z.core.$ZodType>)[key];
  if (schema instanceof z.ZodArray) return fieldOf(schema)?.type === 'numbers' ? schema : schema.element;
  if (schema instanceof z.ZodTuple) return vectorPart(schema) ?? schema.def.items[Number(key)];
  if (schema instanceof z.ZodUnion) {
    const fitting = schema.options.find((option) => z.safeParse(option, held).success);
    return fitting && schemaAt(fitting, key, held);
  }
  return undefined;
}

const vectorPart = (schema: z.ZodTuple) => (fieldOf(schema)?.type === 'vector' ? schema : undefined);
