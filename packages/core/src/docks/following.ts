/** What hangs on a part by a held joint goes along when that part is moved; joints of what is gone go too. */
import { poseOfPlacement, worldFromPart } from '../document/items.ts';
import type { Joint } from '../document/dock.ts';
import { placePart, shiftPart } from '../document/placing.ts';
import type { ItemId, KadrelDocument, Part } from '../document/schema.ts';
import { chain, isIdentity, isSamePose, motionBetween, type Pose } from '../space/pose.ts';
import { carrierOf } from './places.ts';

/**
 * Carries what hangs on what was moved, and on that in turn. What the statement has placed itself stays there, and so does what is
 * locked: such joints are then told as drifted apart.
 * @param before the document that the draft was made from
 * @param isSameForm whether a part has kept its recipe: only then its motion is rigid
 */
export function jointsFollow(
  before: KadrelDocument,
  draft: KadrelDocument,
  isSameForm: (part: ItemId) => boolean,
): void {
  dropLost(before, draft);
  const held = Object.values(draft.joints).filter((joint) => joint.held);
  if (held.length === 0) return;
  const links = held.flatMap((joint) => linkOf(draft, joint));
  const moved = new Map<ItemId, Pose>();
  for (const { onto, hanging } of links)
    for (const id of [onto, hanging]) {
      const motion = moved.has(id) ? undefined : motionOf(before, draft, id);
      if (motion) moved.set(id, motion);
    }
  const open = [...moved].filter(([id]) => isSameForm(id));
  const done = new Set(moved.keys());
  for (let next = open.pop(); next; next = open.pop()) {
    const [id, motion] = next;
    for (const { hanging } of links.filter(({ onto }) => onto === id)) {
      const part = draft.items[hanging]!;
      if (done.has(hanging) || part.locked) continue;
      done.add(hanging);
      carryPart(draft, part, motion);
      open.push([hanging, motion]);
    }
  }
}

/** Which item hangs on which. */
function linkOf(document: KadrelDocument, { moved, onto }: Joint): { hanging: ItemId; onto: ItemId }[] {
  const [hanging, carrying] = [carrierOf(document, moved), carrierOf(document, onto)];
  return hanging === undefined || carrying === undefined || hanging === carrying
    ? []
    : [{ hanging, onto: carrying }];
}

/** How an item was moved in the world; undefined where it stands as it stood, or is new. */
function motionOf(before: KadrelDocument, draft: KadrelDocument, id: ItemId): Pose | undefined {
  if (!before.items[id]) return undefined;
  const [from, to] = [worldFromPart(before, id), worldFromPart(draft, id)];
  if (isSamePose(from, to)) return undefined;
  return motionBetween(from, to);
}

function carryPart(draft: KadrelDocument, part: Part, motion: Pose): void {
  if (isIdentity(motion.turn)) return shiftPart(draft, part, motion.shift);
  const parent = part.parent === null ? undefined : worldFromPart(draft, part.parent);
  const own = poseOfPlacement(part.placement);
  placePart(draft, part, chain(motion, parent ? chain(parent, own) : own));
}

/** Joints of which an end is gone. */
function dropLost(before: KadrelDocument, draft: KadrelDocument): void {
  if (before.items === draft.items && before.joints === draft.joints) return;
  for (const joint of Object.values(draft.joints))
    if ([joint.moved, joint.onto].some(({ of, dock }) => !draft.items[of]?.docks?.[dock]))
      delete draft.joints[joint.id];
}
