/** What Split solid and Trim solid share: a plane, told in the frame of each part. */
import type { ItemId, KadrelDocument, Num } from '../../document/schema.ts';
import type { RecipeStep } from '../../recipes/steps/index.ts';
import { frameInPart, type ToldPlane } from '../../statement/planes.ts';
import { needed } from '../../statement/declare.ts';

export const cuttingBlanks = {
  parts: needed('parts', 'parts', 'The solids.', { least: 1 }),
  plane: needed('plane', 'plane', 'A work plane, a flat face or three points.', { default: 'plan' }),
  at: needed('length', 'distance', 'How far from the plane, to its front.', { default: '0' }),
} as const;

export type CutStep = Extract<RecipeStep, { kind: 'cut' }>;

interface Cutting {
  readonly plane: ToldPlane;
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
