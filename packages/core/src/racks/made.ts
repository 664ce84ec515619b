/** A rack part at a size: its items with plain numbers, worked out from its own variables. */
import { produce } from 'immer';
import { emptyDocument } from '../document/items.ts';
import { recalculate } from '../document/recalculate.ts';
import type { Parameter, RackPart } from '../document/rack.ts';
import { joinFaults, type ItemId, type Part } from '../document/schema.ts';
import { readVariable } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import { solveVariables } from '../quantity/variables.ts';
import { valued } from '../recipes/numbers.ts';

/** Items by the ids that they have in the rack part. */
export type MadeItems = Readonly<Record<ItemId, Part>>;

/** mm, degrees or counts by the names of parameters. */
export type ParameterValues = Readonly<Record<string, number>>;

/** The items of a rack part at these values, under its own ids; or a sentence on why there are none. */
export function madeItems(part: RackPart, values: ParameterValues): MadeItems | string {
  const parameters = part.parameters.flatMap(({ name, kind }) =>
    values[name] === undefined ? [] : [[name, textOf(kind, values[name])]],
  );
  let problems: readonly string[] = [];
  const { items } = produce(
    {
      ...emptyDocument(),
      items: part.items,
      variables: { ...part.variables, ...(Object.fromEntries(parameters) as Record<string, string>) },
    },
    (draft) => {
      problems = recalculate(draft);
    },
  );
  const [problem] = problems;
  return problem === undefined ? (valued(items) as MadeItems) : `${part.name}: ${problem}`;
}

/** A number as a variable of the rack part says it. */
const UNITS: Readonly<Record<Parameter['kind'], string>> = { length: ' mm', angle: ' deg', count: '' };
const textOf = (kind: Parameter['kind'], value: number): string => `${value}${UNITS[kind]}`;

/** What the parameters come to when nothing is said, or at a standard size; undefined for a size that it does not have. */
export function usualValues(part: RackPart, size?: string): ParameterValues | undefined {
  const sized = size === undefined ? { values: {} } : part.sizes.find(({ name }) => name === size);
  if (!sized) return undefined;
  const texts = { ...part.variables, ...sized.values };
  const { values } = solveVariables(texts, 'mm');
  return Object.fromEntries(
    part.parameters.flatMap(({ name }) => {
      const found = values.get(name);
      return found ? [[name, found.value]] : [];
    }),
  );
}

/** Why the texts of a rack part are none, or undefined: each variable must have a value, and so must each size. */
export function rackPartFault(part: RackPart): string | undefined {
  const { faults } = solveVariables(part.variables, 'mm');
  if (faults[0]) return `${part.name}: ${faults[0].why.message}`;
  const lost = part.parameters.find(({ name }) => part.variables[name] === undefined);
  if (lost) return `${part.name}: there is no variable ${lost.name} for ${lost.label}.`;
  for (const { name, values } of part.sizes) {
    const fault = sizeFault(part, values);
    if (fault !== undefined) return `${part.name}, size ${name}: ${fault}`;
  }
  const [loose] = joinFaults({ ...emptyDocument(), items: part.items });
  if (loose) return `${part.name}: ${loose.message}`;
  const made = madeItems(part, {});
  return typeof made === 'string' ? made : undefined;
}

function sizeFault(part: RackPart, values: Readonly<Record<string, string>>): string | undefined {
  for (const [name, text] of Object.entries(values)) {
    if (!part.parameters.some((one) => one.name === name)) return `there is no parameter ${name}.`;
    try {
      readVariable(text, { units: 'mm', variables: new Map() });
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      return error.message;
    }
  }
  return undefined;
}
