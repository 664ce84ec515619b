/** What hangs on a part by a held joint goes along when that part is moved or gets another form; joints of what is gone go too. */
import { current, isDraft } from 'immer';
import { poseOfPlacement, worldFromPart } from '../document/items.ts';
import { isSameEnd, type DockEnd, type Joint } from '../document/dock.ts';
import { withAllNeeded } from '../document/needed.ts';
import { placePart, shiftPart } from '../document/placing.ts';
import type { ItemId, KadrelDocument, Part } from '../document/schema.ts';
import type { StandingDock } from '../questions/question.ts';
import { chain, inverse, isIdentity, isSamePose, motionBetween, type Pose } from '../space/pose.ts';
import { isClosed, numbersOf, wantedPose } from './joining.ts';
import { carrierOf } from './places.ts';
import { standDock } from './standing.ts';

/** What was changed, and what is known of docks before and after. */
export interface Changing {
  /** The document that the draft was made from. */
  readonly before: KadrelDocument;
  readonly draft: KadrelDocument;
  /** The draft as the statement left it, plain; asked only where something held has got another form. */
  now(): KadrelDocument;
  /** The docks of an item in `before`, or in `now`; none where that cannot be known. */
  docksOf(which: 'before' | 'now', part: ItemId): readonly StandingDock[];
}

/** A held joint, and which item hangs on which. */
interface Link {
  readonly joint: Joint;
  readonly hanging: ItemId;
  readonly onto: ItemId;
}

/**
 * Carries what hangs on what was moved or changed, and on that in turn. What the statement has moved itself stays there, and so does
 * what is locked: such joints are then reported as drifted apart. What has got another form itself is put back to where it hangs.
 */
export function jointsFollow(changing: Changing): void {
  const { before, draft } = changing;
  dropLost(before, draft);
  const held = Object.values(draft.joints).filter((joint) => joint.held);
  const links = held.flatMap((joint) => linkOf(draft, joint));
  if (links.length > 0) new Followers(changing, links).follow();
}

/** One statement’s worth of following. */
class Followers {
  /** Items that stay where they now are. */
  private readonly done = new Set<ItemId>();
  private readonly open: ItemId[] = [];
  private readonly formed: ReadonlySet<ItemId>;

  constructor(
    private readonly changing: Changing,
    private readonly links: readonly Link[],
  ) {
    const involved = new Set(links.flatMap(({ hanging, onto }) => [hanging, onto]));
    this.formed = new Set(
      [...involved].filter((id) => changing.before.items[id] && !isSameForm(changing, id)),
    );
  }

  follow(): void {
    for (const { hanging, onto } of this.links)
      for (const id of [onto, hanging]) if (!this.formed.has(id) && this.isMoved(id)) this.begin(id);
    const dirty = new Set([...this.done, ...this.formed]);
    // What hangs on nothing that changed is put back first; the rest is reached from what it hangs on.
    for (const id of this.formed) {
      const link = this.links.find(({ hanging }) => hanging === id);
      if (!link) this.begin(id);
      else if (!dirty.has(link.onto)) this.carry(link);
    }
    for (const link of this.links) if (this.isRetoldAlone(link)) this.carry(link);
    this.goOn();
    for (const id of this.formed) {
      this.begin(id);
      this.goOn();
    }
  }

  private begin(id: ItemId): void {
    if (this.done.has(id)) return;
    this.done.add(id);
    this.open.push(id);
  }

  private goOn(): void {
    for (let next = this.open.pop(); next !== undefined; next = this.open.pop())
      for (const link of this.links) if (link.onto === next) this.carry(link);
  }

  private isMoved(id: ItemId): boolean {
    return motionOf(this.changing.before, this.changing.draft, id) !== undefined;
  }

  /** Nothing else carries it. */
  private isRetoldAlone(link: Link): boolean {
    return !this.done.has(link.onto) && !this.done.has(link.hanging) && this.isRetold(link);
  }

  /** Another angle or clearance, as by a variable. */
  private isRetold({ joint }: Link): boolean {
    const was = this.changing.before.joints[joint.id];
    return was !== undefined && JSON.stringify(numbersOf(was)) !== JSON.stringify(numbersOf(joint));
  }

  private carry(link: Link): void {
    if (this.done.has(link.hanging)) return;
    const { before, draft } = this.changing;
    const part = draft.items[link.hanging]!;
    this.begin(link.hanging);
    if (part.locked) return;
    if (this.formed.has(link.hanging) || this.formed.has(link.onto) || this.isRetold(link))
      return this.stand(link, part);
    const motion = motionOf(before, draft, link.onto);
    if (motion) carryPart(draft, part, motion);
  }

  /** Puts a dock to where it belongs, both docks found anew. */
  private stand({ joint, hanging, onto }: Link, part: Part): void {
    const was = this.changing.before.joints[joint.id];
    const [from, to] = [this.poseOf('before', hanging, joint.moved), this.poseOf('before', onto, joint.onto)];
    const [moved, goal] = [this.poseOf('now', hanging, joint.moved), this.poseOf('now', onto, joint.onto)];
    if (!was || !from || !to || !moved || !goal) return;
    const wasClosed = isClosed(from, wantedPose(to, numbersOf(was)));
    const there = wasClosed ? wantedPose(goal, numbersOf(joint)) : chain(goal, chain(inverse(to), from));
    if (!isClosed(moved, there)) standDock(this.changing.draft, part, { from: moved, to: there });
  }

  /** Where a dock stands in the world; afterwards, on what carries it as that stands by then. */
  private poseOf(which: 'before' | 'now', carrier: ItemId, end: DockEnd): Pose | undefined {
    const found = this.changing.docksOf(which, carrier).find((dock) => isSameEnd(dock.end, end))?.pose;
    if (!found || which === 'before') return found;
    const own = chain(inverse(worldFromPart(this.changing.now(), carrier)), found);
    return chain(worldFromPart(this.changing.draft, carrier), own);
  }
}

/** Whether all that an item is made from is as it was, apart from where the item itself stands. A preview asks at every move. */
function isSameForm({ before, draft }: Changing, id: ItemId): boolean {
  return withAllNeeded(draft, id).every((one) => {
    const was = before.items[one.id];
    const item = isDraft(one) ? current(one) : one;
    if (was === item) return true;
    if (!was || was.recipe !== item.recipe || was.docks !== item.docks) return false;
    return item.id === id || was.placement === item.placement;
  });
}

/** Which item hangs on which. */
function linkOf(document: KadrelDocument, joint: Joint): Link[] {
  const [hanging, onto] = [carrierOf(document, joint.moved), carrierOf(document, joint.onto)];
  return hanging === undefined || onto === undefined || hanging === onto ? [] : [{ joint, hanging, onto }];
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
