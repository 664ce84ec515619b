/** Who stands below whom: taking items out of their parents, and putting them below others, where they are in the world. */
import {
  definitionOf,
  nextOrder,
  poseOfPlacement,
  worldFromParent,
  worldFromPart,
} from '../../document/items.ts';
import { childrenOf, type ItemId, type KadrelDocument, type Part } from '../../document/schema.ts';
import {
  AT_ORIGIN,
  chain,
  degreesOfTurn,
  inverse,
  isIdentity,
  isSamePose,
  roundPoint,
  type Pose,
} from '../../space/pose.ts';
import { roundAngle } from '../../space/rounding.ts';

/** Puts other items in the place of what a part is made from. */
export function setChildren({ recipe: { base } }: Part, ids: ItemId[]): void {
  if (base.kind === 'combine') base.operands = ids;
  if (base.kind === 'pattern') base.sources = ids;
  if (base.kind === 'group') base.members = ids;
}

/** Before which of its new siblings, and the frame that its placement is given in so far. */
interface Attaching {
  readonly before?: ItemId | null;
  readonly was?: Pose;
}

/**
 * Puts an item below another, or at the top, where it stands in the world; in a list before `before`, or last. Take it out of
 * its old parent first, unless that is gone.
 */
export function attach(
  draft: KadrelDocument,
  part: Part,
  to: Part | null,
  { before = null, was = worldFromParent(draft, part.id) }: Attaching = {},
): void {
  const frame = to ? worldFromPart(draft, to.id) : AT_ORIGIN;
  if (!isSamePose(was, frame)) {
    const pose = chain(inverse(frame), chain(was, poseOfPlacement(part.placement)));
    part.placement.origin = [...roundPoint(pose.shift)];
    if (!isIdentity(was.turn) || !isIdentity(frame.turn))
      part.placement.turn = degreesOfTurn(pose.turn).map(roundAngle) as [number, number, number];
  }
  part.parent = to?.id ?? null;
  if (!to) {
    part.order = nextOrder(draft);
    return;
  }
  const ids = childrenOf(to).filter((id) => id !== part.id);
  const at = before === null ? -1 : ids.indexOf(before);
  setChildren(to, at < 0 ? [...ids, part.id] : [...ids.slice(0, at), part.id, ...ids.slice(at)]);
}

/** All that have the recipe of this part: what it is linked to, and the links to that. */
export function linkedWith(document: KadrelDocument, part: Part): Part[] {
  const { id } = definitionOf(document, part);
  return Object.values(document.items).filter(
    (item) => item.id === id || (item.recipe.base.kind === 'link' && item.recipe.base.to === id),
  );
}
