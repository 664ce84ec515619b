/** The variables of a document: some may be set from kept measures. */
import { ANGLE, AREA, LENGTH, PLAIN, VOLUME, type Dimension } from '../quantity/units.ts';
import type { Quantity } from '../quantity/evaluate.ts';
import { measuresIn, solveVariables, type SolvedVariables } from '../quantity/variables.ts';
import type { Measure } from './fit.ts';
import type { KadrelDocument } from './schema.ts';

/** What a document’s variables come to, from what their measures came to when the model last changed. */
export const variablesOf = (
  document: Pick<KadrelDocument, 'variables' | 'measures' | 'scene'>,
): SolvedVariables => solveVariables(document.variables, document.scene.units, measuredIn(document));

/** The kept measures that variables are set from. */
export function measuresUsed({
  variables,
  measures,
}: Pick<KadrelDocument, 'variables' | 'measures'>): Measure[] {
  const names = new Set(Object.values(variables).flatMap(measuresIn));
  return names.size === 0 ? [] : Object.values(measures).filter(({ name }) => names.has(name));
}

/** A variable that is set from a measure, if there is one. */
export const variableFrom = (
  { variables }: Pick<KadrelDocument, 'variables'>,
  measure: string,
): string | undefined =>
  Object.keys(variables).find((name) => measuresIn(variables[name]!).includes(measure));

function measuredIn(document: Pick<KadrelDocument, 'variables' | 'measures'>): ReadonlyMap<string, Quantity> {
  return new Map(
    measuresUsed(document).flatMap(({ name, what, value }) =>
      value === undefined ? [] : [[name, { value, dimension: dimensionOf(what) }] as const],
    ),
  );
}

/** A mass is a plain number of grams. */
function dimensionOf(what: Measure['what']): Dimension {
  switch (what) {
    case 'angle':
      return ANGLE;
    case 'area':
      return AREA;
    case 'volume':
      return VOLUME;
    case 'mass':
      return PLAIN;
    default:
      return LENGTH;
  }
}
