/** A rack part at a size: its items with plain numbers, worked out from its own variables. */
import { produce } from 'immer';
import { emptyDocument } from '../document/items.ts';
import { recalculate } from '../document/recalculate.ts';
import { labelled, withoutPlace, type Reason } from '../language/reason.ts';
import { isRefusal, refuse, refuseFor, type Refusal } from '../refusals/refusal.ts';
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

/** The items of a rack part at these values, under its own ids; or why there are none. */
export function madeItems(part: RackPart, values: ParameterValues): MadeItems | Refusal {
  const made = itemsAt(part, values);
  return isRefusal(made) ? labelled(made, part.name) : made;
}

function itemsAt(part: RackPart, values: ParameterValues): MadeItems | Refusal {
  const parameters = part.parameters.flatMap(({ name, kind }) =>
    values[name] === undefined ? [] : [[name, textOf(kind, values[name])]],
  );
  let problems: readonly Reason[] = [];
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
  return problem ? refuseFor(problem) : (valued(items) as MadeItems);
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
export function rackPartFault(part: RackPart): Refusal | undefined {
  const fault = ownFault(part);
  return fault && labelled(fault, part.name);
}

function ownFault(part: RackPart): Refusal | undefined {
  const { faults } = solveVariables(part.variables, 'mm');
  if (faults[0]) return refuseFor(withoutPlace(faults[0].why));
  const lost = part.parameters.find(({ name }) => part.variables[name] === undefined);
  if (lost) return refuse('rack-part.no-variable', { variable: lost.name, label: lost.label });
  for (const { name, values } of part.sizes) {
    const fault = sizeFault(part, values);
    if (fault) return labelled(fault, `size ${name}`);
  }
  const [loose] = joinFaults({ ...emptyDocument(), items: part.items });
  if (loose) return refuse('rack-part.loose', { message: loose.message });
  const made = itemsAt(part, {});
  return isRefusal(made) ? made : undefined;
}

function sizeFault(part: RackPart, values: Readonly<Record<string, string>>): Refusal | undefined {
  for (const [name, text] of Object.entries(values)) {
    if (!part.parameters.some((one) => one.name === name))
      return refuse('rack-part.no-parameter', { parameter: name });
    try {
      readVariable(text, { units: 'mm', variables: new Map() });
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      return refuseFor(withoutPlace(error));
    }
  }
  return undefined;
}
