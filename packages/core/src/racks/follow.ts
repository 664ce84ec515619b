/** What was taken by formulas is made anew when their variables change. */
import { itemsIn } from '../document/items.ts';
import type { ItemId, KadrelDocument, Num, Taken } from '../document/schema.ts';
import type { RackPart } from '../document/rack.ts';
import { readQuantity } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import { variablesOf } from '../document/variables.ts';
import { isSameJson } from '../history/json.ts';
import { holdsFormula } from '../recipes/walk.ts';
import { labelled, withoutPlace } from '../language/reason.ts';
import { isRefusal, refuseFor, type Refusal } from '../refusals/refusal.ts';
import { remake } from './put.ts';

/** Why something can no longer be made, or undefined. */
export function takenFollow(draft: KadrelDocument, newId: () => ItemId): Refusal | undefined {
  const following = itemsIn(draft).filter(({ taken }) => taken && holdsFormula(taken.values));
  for (const { id, name, taken } of following) {
    const part = draft.rackParts[taken!.from]!;
    const values = valuesNow(draft, part, taken!);
    if (isRefusal(values)) return labelled(values, name);
    if (isSameJson(values, taken!.values)) continue;
    const taking = { values, size: taken!.size, follows: taken!.follows === true };
    const fault = remake({ draft, newId }, id, { part, taking });
    if (fault) return labelled(fault, name);
  }
  return undefined;
}

function valuesNow(draft: KadrelDocument, part: RackPart, { values }: Taken): Record<string, Num> | Refusal {
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
        return labelled(refuseFor(withoutPlace(error)), `“${n.formula}”`);
      }
  }
  return found;
}
