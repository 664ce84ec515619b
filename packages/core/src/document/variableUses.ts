/** Which variables the numbers and the other variables of a document refer to. */
import { withoutMeasures } from '../quantity/variables.ts';
import type { KadrelDocument } from './schema.ts';

const WORD = /[\p{L}_][\p{L}\p{Nd}_]*/gu;

/** How many numbers and other variables refer to each variable. Costs in proportion to the document. */
export function variableUses({ variables, items, joints }: KadrelDocument): ReadonlyMap<string, number> {
  const uses = new Map(Object.keys(variables).map((name) => [name, 0]));
  if (uses.size === 0) return uses;
  const count = (text: string) => {
    for (const word of new Set(withoutMeasures(text).match(WORD))) {
      const before = uses.get(word);
      if (before !== undefined) uses.set(word, before + 1);
    }
  };
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    if ('formula' in value && typeof value.formula === 'string') count(value.formula);
    else Object.values(value).forEach(visit);
  };
  Object.values(variables).forEach(count);
  for (const { placement, recipe, docks, taken } of Object.values(items))
    visit([placement, recipe, docks, taken?.values]);
  visit(joints);
  return uses;
}
