/** Puts parts to where their docks belong. */
import { worldFromPart } from '../document/items.ts';
import { placePart, shiftPart } from '../document/placing.ts';
import type { KadrelDocument, Part } from '../document/schema.ts';
import { carry, chain, inverse, type Pose } from '../space/pose.ts';
import { subtract } from '../space/vector.ts';
import { partPose } from './joining.ts';

/** Puts a part so that its dock, which stands at `from` now, stands at `to`; both in the world. What rounding leaves goes out of the turn alone. */
export function standDock(
  draft: KadrelDocument,
  part: Part,
  { from, to }: { readonly from: Pose; readonly to: Pose },
): void {
  const pose = worldFromPart(draft, part.id);
  const own = chain(inverse(pose), from);
  placePart(draft, part, partPose(pose, from, to));
  const at = carry(worldFromPart(draft, part.id), own.shift);
  shiftPart(draft, part, subtract(to.shift, at));
}
