/** What the verbs that cut solids share: a plane, given in the frame of each part, and what becomes of the halves. */
import type { ItemId, KadrelDocument, Num } from '../../document/schema.ts';
import type { RecipeStep } from '../../recipes/steps/index.ts';
import { frameInPart, type GivenPlane } from '../../statement/planes.ts';
import { isRefusal, needed, type Refusal, type VerbContext } from '../../statement/declare.ts';
import { linkPart, makeIndependent } from './copying.ts';
import { solidToShape } from './shapingVerb.ts';

export const cuttingBlanks = {
  parts: needed('parts', 'parts', 'The solids.', { least: 1 }),
  plane: needed('plane', 'plane', 'A work plane, a flat face or three points.', { default: 'plan' }),
  at: needed('length', 'distance', 'How far from the plane, to its front.', { default: '0' }),
} as const;

export type CutStep = Extract<RecipeStep, { kind: 'cut' | 'cutAlong' | 'cutBy' }>;

interface Cutting {
  readonly plane: GivenPlane;
  readonly at: Num;
  readonly keep: 'front' | 'behind';
}

/** The step, with the plane in the part’s own frame. */
export const cutStep = (draft: KadrelDocument, id: ItemId, { plane, at, keep }: Cutting): CutStep => ({
  kind: 'cut',
  frame: frameInPart(draft, id, plane).kept,
  at,
  keep,
});

/**
 * Cuts solids in two: each half is a part, and both have one recipe. Returns the halves.
 * @param stepOf what is done to a part; its front stays there
 */
export function splitInTwo(
  draft: KadrelDocument,
  { parts, stepOf }: { readonly parts: readonly ItemId[]; readonly stepOf: (id: ItemId) => CutStep },
  context: VerbContext,
): ItemId[] | Refusal {
  const halves: ItemId[] = [];
  for (const id of parts) {
    const refusal = solidToShape(draft, id);
    if (isRefusal(refusal)) return { ...refusal, blank: 'parts' };
    const part = draft.items[id]!;
    // What others share is not cut with it.
    makeIndependent(draft, part, context);
    part.recipe.steps.push({ ...stepOf(id), split: true });
    const other = linkPart(draft, id, context);
    draft.items[other]!.recipe.base = { kind: 'link', to: id, half: true };
    halves.push(id, other);
  }
  return halves;
}

/** Takes one side of solids away. Returns why it cannot. */
export function trimAll(
  draft: KadrelDocument,
  parts: readonly ItemId[],
  stepOf: (id: ItemId) => CutStep,
): Refusal | undefined {
  for (const id of parts) {
    const solid = solidToShape(draft, id);
    if (isRefusal(solid)) return { ...solid, blank: 'parts' };
    solid.recipe.steps.push(stepOf(id));
  }
  return undefined;
}
