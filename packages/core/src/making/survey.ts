/** Asks the kernel what a report about making needs, solid by solid, so that progress can be reported and the work be left off. */
import { visibleParts } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import type { Asking } from '../fit/survey.ts';
import type { StandingSolid } from '../questions/fitFacts.ts';
import type { MakeFacts } from '../questions/makeFacts.ts';

/** What the kernel has said of each solid. */
export interface MakeSurveyed {
  readonly solids: readonly { readonly solid: StandingSolid; readonly facts: MakeFacts }[];
  readonly unbuilt: readonly ItemId[];
}

/** Which solids are looked at, and from which angle on something hangs over. */
export interface MakeScope {
  /** All that can be seen where nothing is said. */
  readonly parts?: readonly ItemId[] | undefined;
  /** Degrees from upright that need no support. */
  readonly overhang: number;
}

/** @param onDone how much of all is done, 0 to 1 */
export async function surveyMaking(
  document: KadrelDocument,
  scope: MakeScope,
  { ask, onDone = () => {} }: { readonly ask: Asking; readonly onDone?: (share: number) => void },
): Promise<MakeSurveyed> {
  const parts = scope.parts ?? visibleParts(document).map(({ id }) => id);
  const nearby = await ask<'nearby'>({ ask: 'nearby', parts, reach: 0 });
  if (!nearby) throw new Error('What these parts consist of cannot be told.');
  const solids: { solid: StandingSolid; facts: MakeFacts }[] = [];
  for (const [i, solid] of nearby.solids.entries()) {
    const facts = await ask<'making'>({ ask: 'making', solid: solid.tag, overhang: scope.overhang });
    if (facts) solids.push({ solid, facts });
    onDone((i + 1) / nearby.solids.length);
  }
  return { solids, unbuilt: nearby.unbuilt };
}
