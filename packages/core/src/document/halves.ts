/** Halves of what was split: one part holds the recipe, the other is linked to it, has the other side of the plane, and steps of its own. */
import type { RecipeStep } from '../recipes/steps/index.ts';
import { definitionOf } from './items.ts';
import type { ItemId, KadrelDocument, Part } from './schema.ts';

/** Whether a part is what Split has left beside the one whose recipe it shares. */
export const isHalf = ({ recipe: { base } }: Part): boolean => base.kind === 'link' && base.half === true;

type Cut = Extract<RecipeStep, { kind: 'cut' | 'cutAlong' | 'cutBy' }>;
const CUTS: ReadonlySet<string> = new Set<Cut['kind']>(['cut', 'cutAlong', 'cutBy']);
const isCut = (step: RecipeStep): step is Cut => CUTS.has(step.kind);

/** The steps up to the last split, with its other side. */
function stepsOfOtherHalf(steps: readonly RecipeStep[]): RecipeStep[] {
  const at = steps.findLastIndex((step) => isCut(step) && step.split);
  return steps
    .slice(0, at + 1)
    .map((step, i) =>
      i === at && isCut(step)
        ? { ...step, keep: step.keep === 'front' ? ('behind' as const) : ('front' as const) }
        : step,
    );
}

/** What a part is built from: its own recipe, or that of what it is linked to; of a half, up to the split, and then its own steps. */
export function builtRecipe(document: KadrelDocument, part: Part): Part['recipe'] {
  const { recipe } = definitionOf(document, part);
  if (!isHalf(part)) return recipe;
  return { base: recipe.base, steps: [...stepsOfOtherHalf(recipe.steps), ...part.recipe.steps] };
}

/** The part whose recipe takes a new step of this one. */
export const shapedPart = (document: KadrelDocument, part: Part): Part =>
  isHalf(part) ? part : definitionOf(document, part);

/** A new step is done last. Where Soften is off one works on the cage under it, and the step goes in there. */
export function addStep({ recipe: { steps } }: Part, step: RecipeStep): void {
  const last = steps.findLastIndex(({ kind, off }) => kind !== 'soften' || !off);
  steps.splice(last + 1, 0, step);
}

/** The step that makes a part the cage of a soft form, from 0; undefined where none does. */
export function softenedBy(document: KadrelDocument, part: Part): number | undefined {
  const at = builtRecipe(document, part).steps.findLastIndex(({ kind, off }) => kind === 'soften' && !off);
  return at < 0 ? undefined : at;
}

/** Whether a part had this step before, as it is now: what fails in it is not of the statement’s own making. */
export function hadStep(before: KadrelDocument, after: KadrelDocument, { part, step }: StepOf): boolean {
  const [was, is] = [before, after].map((document) => {
    const item = document.items[part];
    return item && step !== null ? builtRecipe(document, item).steps[step] : undefined;
  });
  return was !== undefined && is !== undefined && JSON.stringify(was) === JSON.stringify(is);
}

interface StepOf {
  readonly part: ItemId;
  /** From 0; null for the base. */
  readonly step: number | null;
}

/** The list that holds a step of `builtRecipe`, and its place there. */
export function stepList(
  document: KadrelDocument,
  part: Part,
  index: number,
): { readonly steps: RecipeStep[]; readonly at: number } {
  const { steps } = definitionOf(document, part).recipe;
  if (!isHalf(part)) return { steps, at: index };
  const shared = stepsOfOtherHalf(steps).length;
  return index < shared ? { steps, at: index } : { steps: part.recipe.steps, at: index - shared };
}

/** The document with the steps of a part after one switched off. @param step from 0 */
export function withStepsUpTo(document: KadrelDocument, id: ItemId, step: number): KadrelDocument {
  const part = document.items[id]!;
  const off = new Map<ItemId, Set<number>>();
  for (let index = step + 1; index < builtRecipe(document, part).steps.length; index++) {
    const { steps, at } = stepList(document, part, index);
    const holder = steps === part.recipe.steps ? part : definitionOf(document, part);
    off.set(holder.id, (off.get(holder.id) ?? new Set()).add(at));
  }
  const switched = [...off].map(([holder, places]): [ItemId, Part] => {
    const item = document.items[holder]!;
    const steps = item.recipe.steps.map((one, at) => (places.has(at) ? { ...one, off: true as const } : one));
    return [holder, { ...item, recipe: { ...item.recipe, steps } }];
  });
  return { ...document, items: { ...document.items, ...Object.fromEntries(switched) } };
}
