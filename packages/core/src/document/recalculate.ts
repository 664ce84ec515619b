/** Formulas follow their variables. */
import { readQuantity } from '../quantity/evaluate.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { variablesOf } from './variables.ts';
import { boundFault, type Bounds } from '../recipes/fields.ts';
import { layoutKind, sizedKind } from '../recipes/index.ts';
import type { Num, NumVector } from '../recipes/numbers.ts';
import { stepKind } from '../recipes/steps/index.ts';
import { holdsFormula, visitFormulas } from '../recipes/walk.ts';
import type { Joint } from './dock.ts';
import { labelled, reasonOf, withoutPlace, type Reason } from '../language/reason.ts';
import { itemsIn } from './items.ts';
import type { KadrelDocument, Part } from './schema.ts';

/** A formula that is worked out anew, given as that of a part where it goes wrong. */
type Update = (n: Num, kind: QuantityKind, bounds: Bounds) => Num;

/** Recomputes every number with a formula, in place. Returns why some no longer have a value, under the names of what they are of. */
export function recalculate(draft: KadrelDocument): Reason[] {
  const { values, faults } = variablesOf(draft);
  const problems = faults.map(({ name, why }) => labelled(withoutPlace(why), name));
  // Most parts follow no variable: they are not looked at through the draft, which would cost a proxy for all that they hold.
  const updateOf =
    (owner: string): Update =>
    (n, kind, bounds) => {
      if (typeof n === 'number') return n;
      const where = `${owner}: “${n.formula}”`;
      try {
        const { value } = readQuantity(n.formula, kind, { units: draft.scene.units, variables: values });
        const fault = boundFault(bounds, value);
        if (fault) problems.push(reasonOf('formula.out-of-bounds', { where, value, fault }));
        // What stays is left alone: an edit says only what it changes.
        return value === n.value ? n : { formula: n.formula, value };
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        problems.push(labelled(withoutPlace(error), where));
        return n;
      }
    };
  for (const { id, name, placement, recipe, docks } of itemsIn(draft)) {
    if (!holdsFormula([placement, recipe, docks])) continue;
    const part = draft.items[id]!;
    const update = updateOf(name);
    updateDocks(part, update);
    if (updatePart(part, update)) problems.push(...togetherFaults(part));
  }
  for (const joint of Object.values(draft.joints))
    if (holdsFormula(joint)) updateJoint(joint, updateOf(joint.name));
  return problems;
}

function updateDocks({ docks }: Part, update: Update): void {
  for (const dock of Object.values(docks ?? {})) {
    dock.origin = mapVector(dock.origin, (n) => update(n, 'length', {}));
    dock.turn = mapVector(dock.turn, (n) => update(n, 'angle', {}));
    if (dock.size !== undefined) dock.size = update(dock.size, 'length', { above: 0 });
  }
}

function updateJoint(joint: Joint, update: Update): void {
  joint.turn = update(joint.turn, 'angle', {});
  joint.offset = update(joint.offset, 'length', {});
  const [x, y] = joint.tilt;
  joint.tilt = [update(x, 'angle', {}), update(y, 'angle', {})];
}

/** Whether a number of its recipe has changed. */
function updatePart(part: Part, update: Update): boolean {
  const each = (v: NumVector, kind: QuantityKind) => mapVector(v, (n) => update(n, kind, {}));
  part.placement.origin = each(part.placement.origin, 'length');
  part.placement.turn = each(part.placement.turn, 'angle');
  let isChanged = false;
  const visit = (n: Num, field: Bounds & { readonly kind: QuantityKind }) => {
    const updated = update(n, field.kind, field);
    isChanged ||= updated !== n;
    return updated;
  };
  const { base, steps } = part.recipe;
  const sized = sizedKind(base);
  if (sized) visitFormulas(sized.kind.schema, sized.holder, visit);
  if (base.kind === 'pattern') visitFormulas(layoutKind(base.layout).schema, base.layout, visit);
  for (const step of steps) visitFormulas(stepKind(step).schema, step, visit);
  return isChanged;
}

/** Why numbers that were each well said no longer go together. */
function togetherFaults({ name, recipe: { base, steps } }: Part): Reason[] {
  const sized = sizedKind(base);
  const faults = [
    sized?.kind.fault?.(sized.holder as never),
    ...steps.map((step) => stepKind(step).fault?.(step as never)),
  ];
  return faults.flatMap((fault) => (fault ? [labelled(withoutPlace(fault), name)] : []));
}

/** The vector itself where nothing in it changes. */
function mapVector(v: NumVector, map: (n: Num) => Num): NumVector {
  const mapped = v.map(map) as NumVector;
  return mapped.every((n, i) => n === v[i]) ? v : mapped;
}
