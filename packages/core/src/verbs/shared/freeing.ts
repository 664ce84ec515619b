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
import { refuse, type Refusal, type Drafting } from '../../statement/declare.ts';
import { placePart } from './placing.ts';
import { reshapePart } from './reshape.ts';
import { moveBelow } from './leaving.ts';

/** Takes a member out as parts of their own, beside the pattern in the tree. Returns them. */
export function freeMember(
  { draft, context }: Drafting,
  { pattern, base }: { readonly pattern: Part; readonly base: PatternBase },
  key: MemberKey,
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
    moveBelow({ draft, context }, copy, { to: parent });
    const extra = memberExtra(base.layout, key);
    if (extra) grow({ draft, context }, copy, extra);
    if (base.layout.kind === 'reflection') {
      const fault = key[0] === 1 ? reflectCopy({ draft, context }, copy, base.layout, frame) : undefined;
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
  { draft, context }: Drafting,
  copy: Part,
  { point, normal }: LayoutOf<'reflection'>,
  frame: Pose,
): Refusal | undefined {
  makeIndependent(draft, copy, context);
  const linear = stretchAlong(frameAlong(turnVector(frame.turn, normal)), [-1, 1, 1]);
  const map = reshapePart({ draft, context }, copy, { linear, fixed: carry(frame, point) });
  delete copy.made;
  return 'refused' in map ? map : undefined;
}

/** Gives a plain solid the sizes of a member that has grown. */
function grow({ draft, context }: Drafting, copy: Part, [x, y, z]: Vec3): void {
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
  return odd && refuse('growth', { name: odd.name }, blank);
}
