/** Heights that stand beside profiles. */
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { roundPoint, type Pose } from '../../space/pose.ts';

export const HEIGHTS_SHOWN = { hidden: 'without heights', shown: 'with heights' } as const;

/** @param plane what they are told over, in the world */
export function showHeights(draft: KadrelDocument, ids: readonly ItemId[], { turn, shift }: Pose): void {
  for (const id of ids) draft.items[id]!.heights = { turn: [...turn], shift: [...roundPoint(shift)] };
}
