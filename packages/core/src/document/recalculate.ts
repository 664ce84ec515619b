/** Formulas follow their variables. */
import { readQuantity } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { solveVariables } from '../quantity/variables.ts';
import type { KadrelDocument, Num, NumVector } from './schema.ts';

/** Recomputes every number with a formula, in place. Returns sentences about those that no longer have a value. */
export function recalculate(draft: KadrelDocument): string[] {
  const { values, faults } = solveVariables(draft.variables, draft.scene.units);
  const problems = faults.map((fault) => `${fault.name}: ${fault.message}`);
  for (const part of Object.values(draft.items)) {
    const update = (n: Num, kind: QuantityKind, least: number): Num => {
      if (typeof n === 'number') return n;
      try {
        const { value } = readQuantity(n.formula, kind, { units: draft.scene.units, variables: values });
        if (value < least)
          problems.push(`${part.name}: “${n.formula}” must be more than zero, and is ${value} now.`);
        return { formula: n.formula, value };
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        problems.push(`${part.name}: “${n.formula}”: ${error.message}`);
        return n;
      }
    };
    const each = (v: NumVector, kind: QuantityKind, least: number) =>
      v.map((n) => update(n, kind, least)) as NumVector;
    part.placement.origin = each(part.placement.origin, 'length', -Infinity);
    part.placement.turn = each(part.placement.turn, 'angle', -Infinity);
    const { base } = part.recipe;
    if (base.kind === 'box') base.size = each(base.size, 'length', Number.MIN_VALUE);
    if (base.kind === 'cylinder' || base.kind === 'sphere')
      base.diameter = update(base.diameter, 'length', Number.MIN_VALUE);
    if (base.kind === 'cylinder') base.height = update(base.height, 'length', Number.MIN_VALUE);
  }
  return problems;
}
