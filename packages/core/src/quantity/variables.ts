/** Variables: a table of names and texts that may refer to one another, solved in order of dependency. */
import { QuantityError } from './lexer.ts';
import { isReservedName, readVariable, type Quantity } from './evaluate.ts';
import { unitNamed, type LengthUnit } from './units.ts';

/** Why a variable has no value. */
export interface VariableFault {
  readonly name: string;
  readonly code: string;
  /** Character of the variable's text, where one is to blame. */
  readonly at?: number;
  readonly message: string;
}

/** The values of variables, and why others have none. */
export interface SolvedVariables {
  readonly values: ReadonlyMap<string, Quantity>;
  readonly faults: readonly VariableFault[];
}

const NAME = /^[\p{L}_][\p{L}\p{Nd}_]*$/u;

/** Why `name` cannot be a variable, or undefined. */
export function variableNameFault(name: string): string | undefined {
  if (!NAME.test(name)) return `“${name}” is not a name: use letters, digits and _, and begin with a letter.`;
  if (isReservedName(name)) return `“${name}” is a word of the number language.`;
  if (unitNamed(name, 'length')) return `“${name}” is a unit.`;
  return undefined;
}

/**
 * Solves every variable that can be solved; a cycle or a bad text is a fault of the variables in it and of those that
 * need them, and leaves the others alone. Cost: each text is read once, plus once for finding what it needs.
 */
export function solveVariables(texts: Readonly<Record<string, string>>, units: LengthUnit): SolvedVariables {
  const values = new Map<string, Quantity>();
  const faults = new Map<string, VariableFault>();
  const path: string[] = [];

  const solve = (name: string): void => {
    if (values.has(name) || faults.has(name)) return;
    const from = path.indexOf(name);
    if (from >= 0) {
      const cycle = [...path.slice(from), name];
      const message = `These variables refer to one another in a circle: ${cycle.join(' → ')}.`;
      for (const member of cycle) faults.set(member, { name: member, code: 'cycle', message });
      return;
    }
    const badName = variableNameFault(name);
    if (badName) {
      faults.set(name, { name, code: 'name', message: badName });
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
      faults.set(name, { name, code: error.code, at: error.at, message: error.message });
    }
  };

  for (const name of Object.keys(texts)) solve(name);
  return { values, faults: [...faults.values()] };
}
