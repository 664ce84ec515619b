/** Members of a pattern as parts of their own: copies of the sources, where the member stands. */
import {
  below,
  definitionOf,
  freeName,
  poseOfPlacement,
  valueOf,
  worldFromPart,
} from '../../document/items.ts';
import type { LayoutOf, MemberKey } from '../../recipes/layouts/index.ts';
import type { ItemId, KadrelDocument, Num, Part, PatternBase } from '../../document/schema.ts';
import { memberExtra, memberLabel, memberPlacement } from '../../patterns/members.ts';
import { holdOf } from '../../patterns/placed.ts';
import { frameAlong, stretchAlong } from '../../space/matrix.ts';
import { carry, chain, turnVector, type Pose } from '../../space/pose.ts';
import type { Vec3 } from '../../space/vector.ts';
import { copyPart, makeIndependent } from './copying.ts';
import { refuse, type Refusal, type VerbContext } from '../../statement/declare.ts';
import { placePart } from './placing.ts';
import { reshapePart } from './reshape.ts';
import { moveBelow } from './leaving.ts';

/** Takes a member out as parts of their own, beside the pattern in the tree. Returns them. */
export function freeMember(
  draft: KadrelDocument,
  pattern: Part,
  base: PatternBase,
  key: MemberKey,
  context: VerbContext,
): ItemId[] | Refusal {
  const frame = worldFromPart(draft, pattern.id);
  const hold = holdOf(draft, pattern);
  const parent = pattern.parent === null ? null : draft.items[pattern.parent]!;
  const made: ItemId[] = [];
  for (const source of below(draft, pattern)) {
    const id = copyPart(draft, source.id, context);
    const copy = draft.items[id]!;
    // The copy's own name is no reason for another.
    copy.name = '';
    copy.name = freeName(draft, `${source.name} ${memberLabel(base.layout, key)}`);
    copy.visible = true;
    moveBelow(draft, copy, { to: parent }, context);
    const extra = memberExtra(base.layout, key);
    if (extra) grow(draft, copy, extra, context);
    if (base.layout.kind === 'reflection') {
      const fault = key[0] === 1 ? reflectCopy(draft, copy, base.layout, frame, context) : undefined;
      if (fault) return fault;
    } else {
      const { pose } = memberPlacement(base.layout, key, hold);
      placePart(draft, copy, chain(frame, chain(pose, poseOfPlacement(source.placement))));
    }
    made.push(id);
  }
  return made;
}

function reflectCopy(
  draft: KadrelDocument,
  copy: Part,
  { point, normal }: LayoutOf<'reflection'>,
  frame: Pose,
  context: VerbContext,
): Refusal | undefined {
  makeIndependent(draft, copy, context);
  const linear = stretchAlong(frameAlong(turnVector(frame.turn, normal)), [-1, 1, 1]);
  const map = reshapePart(draft, copy, linear, carry(frame, point), context);
  delete copy.made;
  return 'refused' in map ? map : undefined;
}

/** Gives a plain solid the sizes of a member that has grown. */
function grow(draft: KadrelDocument, copy: Part, [x, y, z]: Vec3, context: VerbContext): void {
  makeIndependent(draft, copy, context);
  const more = (n: Num, by: number): Num => (by === 0 ? n : valueOf(n) + by);
  const whole = copy.recipe.base;
  const base = whole.kind === 'stretched' ? whole.of : whole;
  if (base.kind === 'box') base.size = [more(base.size[0], x), more(base.size[1], y), more(base.size[2], z)];
  if (base.kind === 'cylinder' || base.kind === 'sphere') base.diameter = more(base.diameter, x);
  if (base.kind === 'cylinder') base.height = more(base.height, z);
}

/** Sizes can grow from member to member where they are the recipe's own; why not, or undefined. */
export function growthFault(
  document: KadrelDocument,
  sources: readonly ItemId[],
  blank: string,
): Refusal | undefined {
  const odd = sources
    .map((id) => document.items[id]!)
    .find((part) => {
      const { base } = definitionOf(document, part).recipe;
      return !['box', 'cylinder', 'sphere'].includes(base.kind === 'stretched' ? base.of.kind : base.kind);
    });
  return (
    odd &&
    refuse('growth', `${odd.name} has no sizes that could grow: boxes, cylinders and balls have.`, blank)
  );
}
