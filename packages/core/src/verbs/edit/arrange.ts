import { isGroup, isStanding, lineage, topParts } from '../../document/items.ts';
import { childrenOf, type ItemId, type KadrelDocument, type Part } from '../../document/schema.ts';
import {
  declareVerb,
  needed,
  optional,
  refuse,
  type Refusal,
  type Drafting,
} from '../../statement/declare.ts';
import { lockedRefusal, withoutNested } from '../shared/placing.ts';
import { moveBelow } from '../shared/leaving.ts';
import { setChildren } from '../shared/tree.ts';

/** Orders the tree: into a group, out of it, or before another; everything stays where it is in the world. */
export const arrange = declareVerb({
  id: 'arrange',
  name: 'Arrange',
  group: 'edit',
  about: 'Puts parts elsewhere in the tree: into a group, out to the top, or before another.',
  words: ['order', 'reorder', 'sort', 'regroup', 'tree', 'into group', 'out of group'],
  blanks: {
    parts: needed('parts', 'parts', 'What goes elsewhere in the tree.', { least: 1 }),
    into: optional('part', 'into', 'The group that it goes into; without one, the top.'),
    before: optional('part', 'before', 'What it stands before; without one, it comes last.'),
  },
  sentence: 'Arrange {parts}[ into {into}][ before {before}]',
  apply(draft, { parts, into, before }, context) {
    const chosen = withoutNested(draft, parts).filter((id) => id !== before);
    if (chosen.length === 0) return refuse('same-part.before', {}, 'before');
    const locked = lockedRefusal(draft, chosen);
    if (locked) return locked;
    const parent = before === undefined ? into : (draft.items[before]!.parent ?? undefined);
    const to = parent === undefined ? null : draft.items[parent]!;
    for (const id of chosen) {
      const part = draft.items[id]!;
      const fault = putInto({ draft, context }, part, { to, before: before ?? null });
      if (fault) return fault;
    }
    if (!to) orderTop(draft, chosen, before ?? null);
    return { select: parts };
  },
});

function putInto(
  { draft, context }: Drafting,
  part: Part,
  { to, before }: { readonly to: Part | null; readonly before: ItemId | null },
): Refusal | undefined {
  if (to && lineage(draft, to.id).includes(part.id))
    return refuse('circle.into', { name: part.name }, 'into');
  if (to && part.parent === to.id) {
    const others = childrenOf(to).filter((id) => id !== part.id);
    const at = before === null ? others.length : others.indexOf(before);
    const { base } = to.recipe;
    const isCut = base.kind === 'combine' && base.how === 'subtract';
    const ids = [...others.slice(0, at), part.id, ...others.slice(at)];
    if (isCut && ids[0] !== childrenOf(to)[0]) return refuse('needed.before', { name: to.name }, 'before');
    setChildren(to, ids);
    return undefined;
  }
  if (!isStanding(draft, part.id)) {
    const owner = draft.items[part.parent!]!;
    return refuse('operand.parts', { name: part.name, owner: owner.name }, 'parts');
  }
  if (to && !isGroup(to)) return refuse('no-group', { name: to.name }, 'into');
  if (to && !isStanding(draft, to.id)) return refuse('operand.into', { name: to.name }, 'into');
  moveBelow({ draft, context }, part, { to, before });
  return undefined;
}

/** Ranks at the top, so that the chosen ones stand one after another before `before`, or last. */
function orderTop(draft: KadrelDocument, chosen: readonly ItemId[], before: ItemId | null): void {
  const others = topParts(draft)
    .map(({ id }) => id)
    .filter((id) => !chosen.includes(id));
  const at = before === null ? others.length : others.indexOf(before);
  [...others.slice(0, at), ...chosen, ...others.slice(at)].forEach((id, i) => {
    const part = draft.items[id]!;
    if (part.order !== i + 1) part.order = i + 1;
  });
}
