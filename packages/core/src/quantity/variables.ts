/** Variables: a table of names and texts that may refer to one another, solved in order of dependency. */
import { reasonOf, type Reason } from '../language/reason.ts';
import { QuantityError } from './lexer.ts';
import { isReservedName, readVariable, type Quantity } from './evaluate.ts';
import { PLAIN, unitNamed, type LengthUnit } from './units.ts';

/** Why a variable has no value. */
export interface VariableFault {
  readonly name: string;
  /** Its `at` is a character of the variable's text. */
  readonly why: Reason;
}

/** The values of variables, and why others have none. */
export interface SolvedVariables {
  readonly values: ReadonlyMap<string, Quantity>;
  readonly faults: readonly VariableFault[];
}

const NAME = /^[\p{L}_][\p{L}\p{Nd}_]*$/u;

/** Why `name` cannot be a variable, or undefined. */
export function variableNameFault(name: string): Reason | undefined {
  if (!NAME.test(name)) return reasonOf('name.letters', { name });
  if (isReservedName(name)) return reasonOf('name.word', { name });
  if (unitNamed(name, 'length')) return reasonOf('name.unit', { name });
  return undefined;
}

/**
 * Solves every variable that can be solved; a cycle or a bad text is a fault of the variables in it and of those that
 * need them, and leaves the others alone. Cost: each text is read once, plus once for finding what it needs.
 */
export function solveVariables(
  given: Readonly<Record<string, string>>,
  units: LengthUnit,
  measured: ReadonlyMap<string, Quantity> = NOTHING_MEASURED,
): SolvedVariables {
  const { texts, values, faults: lost } = withMeasured(given, measured);
  const faults = new Map<string, VariableFault>(lost);
  const path: string[] = [];

  const solve = (name: string): void => {
    if (values.has(name) || faults.has(name)) return;
    const from = path.indexOf(name);
    if (from >= 0) {
      const cycle = [...path.slice(from), name];
      const why = reasonOf('cycle', { cycle: cycle.join(' → ') });
      for (const member of cycle) faults.set(member, { name: member, why });
      return;
    }
    const badName = variableNameFault(name);
    if (badName) {
      faults.set(name, { name, why: badName });
      return;
    }
    path.push(name);
    const text = texts[name]!;
    for (const word of text.match(/[\p{L}_][\p{L}\p{Nd}_]*/gu) ?? [])
      if (Object.hasOwn(texts, word)) solve(word);
    path.pop();
    if (faults.has(name)) return;
    try {
      values.set(name, readVariable(text, { units, variables: values }));
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      const { code, facts, message, at } = error;
      faults.set(name, { name, why: { code, facts, message, at } });
    }
  };

  for (const name of Object.keys(texts)) solve(name);
  for (const name of values.keys()) if (!Object.hasOwn(given, name)) values.delete(name);
  return { values, faults: [...faults.values()] };
}

const NOTHING_MEASURED: ReadonlyMap<string, Quantity> = new Map();

/** `measure("bee space")`, with straight or curly quotes. */
const MEASURE = /measure\(\s*["“]([^"“”]*)["”]\s*\)/g;

/** The kept measures that a text is set from. */
export const measuresIn = (text: string): string[] => [...text.matchAll(MEASURE)].map(([, name]) => name!);

/** The text with a measure called otherwise. */
export const withMeasureCalled = (text: string, from: string, to: string): string =>
  text.replace(MEASURE, (whole, name: string) => (name === from ? `measure("${to}")` : whole));

/** A name that no variable has. */
function standInFor(given: Readonly<Record<string, string>>, n: number): string {
  let name = `m_${n}`;
  while (Object.hasOwn(given, name)) name += '_';
  return name;
}

/** The text without the names of measures in it, which are no names of variables. */
export const withoutMeasures = (text: string): string => text.replace(MEASURE, '');

/** Measures become names of their own, as long as what they stand for, so that faults point at the right character. */
function withMeasured(given: Readonly<Record<string, string>>, measured: ReadonlyMap<string, Quantity>) {
  const values = new Map<string, Quantity>();
  const faults = new Map<string, VariableFault>();
  const texts = Object.fromEntries(
    Object.entries(given).map(([variable, text]) => [
      variable,
      text.replace(MEASURE, (whole, name: string) => {
        const value = measured.get(name);
        if (!value) faults.set(variable, { name: variable, why: reasonOf('no-measure', { name }) });
        const standIn = standInFor(given, values.size);
        values.set(standIn, value ?? { value: 0, dimension: PLAIN });
        return standIn.padEnd(whole.length);
      }),
    ]),
  );
  return { texts, values, faults };
}
