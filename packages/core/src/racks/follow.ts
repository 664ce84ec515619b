/** What was taken by formulas is made anew when their variables change. */
import { itemsIn } from '../document/items.ts';
import type { ItemId, KadrelDocument, Num, Taken } from '../document/schema.ts';
import type { RackPart } from '../document/rack.ts';
import { readQuantity } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import { variablesOf } from '../document/variables.ts';
import { isSameJson } from '../history/json.ts';
import { holdsFormula } from '../recipes/walk.ts';
import { remake } from './put.ts';

/** Returns a sentence where something can no longer be made. */
export function takenFollow(draft: KadrelDocument, newId: () => ItemId): string | undefined {
  const following = itemsIn(draft).filter(({ taken }) => taken && holdsFormula(taken.values));
  for (const { id, name, taken } of following) {
    const part = draft.rackParts[taken!.from]!;
    const values = valuesNow(draft, part, taken!);
    if (typeof values === 'string') return `${name}: ${values}`;
    if (isSameJson(values, taken!.values)) continue;
    const taking = { values, size: taken!.size, follows: taken!.follows === true };
    const fault = remake({ draft, newId }, id, { part, taking });
    if (fault !== undefined) return `${name}: ${fault}`;
  }
  return undefined;
}

function valuesNow(draft: KadrelDocument, part: RackPart, { values }: Taken): Record<string, Num> | string {
  const { values: variables } = variablesOf(draft);
  const found: Record<string, Num> = {};
  for (const [name, n] of Object.entries(values)) {
    const kind = part.parameters.find((one) => one.name === name)?.kind ?? 'length';
    if (typeof n === 'number') found[name] = n;
    else
      try {
        const { value } = readQuantity(n.formula, kind, { units: draft.scene.units, variables });
        found[name] = { formula: n.formula, value };
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        return `“${n.formula}”: ${error.message}`;
      }
  }
  return found;
}
