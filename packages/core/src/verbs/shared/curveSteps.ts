/** Changes of drawn profiles that are kept as steps: they follow when the figure changes, and can be taken out again. */
import { definitionOf, vectorOf, worldFromPart } from '../../document/items.ts';
import type { ItemId, KadrelDocument, NumVector } from '../../document/schema.ts';
import type { CurveStep } from '../../recipes/steps/index.ts';
import { drawnOf } from '../../document/drawn.ts';
import { carryBack } from '../../space/pose.ts';
import { needed, refuse, refuseFor, type Outcome, type Refusal } from '../../statement/declare.ts';

export const profileBlank = needed('part', 'profile', 'A drawn profile.');

/** Puts an edit after those that are there; refused where it cannot be made, or where one before it cannot. */
export function addEdit(
  draft: KadrelDocument,
  id: ItemId,
  { edit, blank }: { readonly edit: CurveStep; readonly blank: string },
): Outcome | Refusal {
  const item = draft.items[id]!;
  if (item.locked) return refuse('locked', { name: item.name }, 'profile');
  definitionOf(draft, item).recipe.steps.push(edit);
  const { fault, paths } = drawnOf(draft, id);
  if (fault) return refuseFor(fault.why, blank);
  if (paths.length === 0) return refuse('edit.nothing', {}, blank);
  return { select: [id] };
}

export const inProfile = (draft: KadrelDocument, id: ItemId, at: NumVector): [number, number] => {
  const [x, y] = carryBack(worldFromPart(draft, id), vectorOf(at));
  return [x, y];
};

/** The profiles that an edit asks for, without the edited one itself. */
export const besides = (id: ItemId, others: readonly ItemId[] | undefined) =>
  (others ?? []).filter((other) => other !== id);
