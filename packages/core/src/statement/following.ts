/** What is cut along a profile or by a part, or joined with a surface, follows where that is placed anew. What is embossed stays where it was laid. */
import { FOLLOWING, idsListed } from '../document/itemIndex.ts';
import { shiftedBy, worldFromPart } from '../document/items.ts';
import { madeFromThemselves, type ItemId, type KadrelDocument } from '../document/schema.ts';
import type { Change } from '../history/edit.ts';
import { toolsIn } from '../recipes/bodies/index.ts';
import { refuse, type Refusal } from '../refusals/refusal.ts';
import { vectorOf } from '../recipes/numbers.ts';
import { referencesOfStep, type RecipeStep } from '../recipes/steps/index.ts';
import {
  chain,
  inverse,
  isIdentity,
  isSamePose,
  motionBetween,
  poseOf,
  roundPoint,
  turnBack,
  type Pose,
  type Turn,
} from '../space/pose.ts';
import { scale } from '../space/vector.ts';
import { degreesOf } from './planes.ts';

type FollowingStep = Extract<RecipeStep, { kind: 'cutAlong' | 'cutBy' | 'joined' }>;
type Frame = FollowingStep['frame'];

const isFollowing = (step: RecipeStep): step is FollowingStep => FOLLOWING.has(step.kind);

const partsFollowingOthers = (document: KadrelDocument): readonly ItemId[] =>
  idsListed(document, 'following');

/**
 * Moves the frames of steps that follow another item as that was moved in the world, unless the part was moved itself:
 * then its steps go with the part.
 * @param before the document that the draft was made from
 */
export function stepsFollow(before: KadrelDocument, draft: KadrelDocument): void {
  for (const id of partsFollowingOthers(before)) {
    const [was, is] = [before.items[id]!, draft.items[id]];
    const place = worldFromPart(before, id);
    if (!is || !isSamePose(place, worldFromPart(draft, id))) continue;
    for (const [i, step] of was.recipe.steps.entries()) {
      const motion = motionOf(step, before, draft);
      const now = is.recipe.steps[i];
      // What the statement has set itself stays.
      if (!motion || !now || !isFollowing(now) || JSON.stringify(now) !== JSON.stringify(step)) continue;
      now.frame = carried(now.frame, motionBefore(inPart(motion, place), is.recipe.steps.slice(i + 1)));
    }
  }
}

/** How what a step refers to first was moved in the world; undefined where it stands as it stood. */
function motionOf(step: RecipeStep, before: KadrelDocument, draft: KadrelDocument): Pose | undefined {
  const followed = isFollowing(step) ? referencesOfStep(step)[0] : undefined;
  if (followed === undefined || !draft.items[followed]) return undefined;
  const [from, to] = [worldFromPart(before, followed), worldFromPart(draft, followed)];
  if (isSamePose(from, to)) return undefined;
  return motionBetween(from, to);
}

/** A motion in the world as the part’s own frame sees it. */
const inPart = (motion: Pose, place: Pose): Pose =>
  isIdentity(motion.turn)
    ? { ...motion, shift: turnBack(place.turn, motion.shift) }
    : chain(inverse(place), chain(motion, place));

/** What a motion was before later steps have mirrored or resized what it moves. */
const motionBefore = (motion: Pose, later: readonly RecipeStep[]): Pose =>
  later.reduceRight((after, step): Pose => {
    const { turn, shift } = after;
    if (step.off) return after;
    if (step.kind === 'scale') return { turn, shift: scale(shift, 1 / step.by) };
    if (step.kind !== 'mirror') return after;
    return {
      turn: turn.map((n, i) => (MIXES_X[i] ? -n : n)) as unknown as Turn,
      shift: [-shift[0], shift[1], shift[2]],
    };
  }, motion);
/** Entries of a turn, row by row, that change their sign where X is mirrored before and after it. */
const MIXES_X = [false, true, true, true, false, false, true, false, false];

function carried(frame: Frame, motion: Pose): Frame {
  if (isIdentity(motion.turn)) return { ...frame, origin: shiftedBy(frame.origin, motion.shift) };
  const moved = chain(motion, poseOf(vectorOf(frame.origin), vectorOf(frame.turn)));
  return { origin: [...roundPoint(moved.shift)] as [number, number, number], turn: degreesOf(moved) };
}

/** Why what is left of a document does not hang together: something is made with what is gone, or with what is made from it. */
export function dependenceFault(before: KadrelDocument, { document, patches }: Change): Refusal | undefined {
  const { items } = document;
  const changed = patches.filter(isStructural).map(({ path }) => String(path[1]));
  // Where a thing stands changes at every move of the pointer, and nothing of this with it.
  if (changed.length === 0) return undefined;
  const made = [...new Set([...partsFollowingOthers(before), ...changed])].flatMap((id) => items[id] ?? []);
  const users = made.filter(({ recipe }) => toolsIn(recipe).length > 0);
  for (const { name, recipe } of users) {
    const gone = toolsIn(recipe).find((tool) => !items[tool]);
    if (gone === undefined) continue;
    const tool = before.items[gone]?.name ?? gone;
    return refuse('needed.made-stay', { name, tool });
  }
  const [ring] = users.length === 0 ? [] : madeFromThemselves(items);
  return ring && refuse('itself.would', { name: ring.name });
}

/** Whether a patch makes an item, takes one away, or changes what one is made from. */
const isStructural = ({ path }: Change['patches'][number]): boolean =>
  path[0] === 'items' &&
  (path.length < 3 || path[2] === 'parent' || (path[2] === 'recipe' && !path.includes('frame')));
