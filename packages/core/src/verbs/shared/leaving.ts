/** Taking items out of their parents, and putting them below others, where they stand in the world. */
import { isGroup, withAllBelow } from '../../document/items.ts';
import { childrenOf, type ItemId, type KadrelDocument, type Part } from '../../document/schema.ts';
import { handOver } from './copying.ts';
import type { VerbContext, Drafting } from '../../statement/declare.ts';
import { attach, setChildren } from './tree.ts';

type NewId = Pick<VerbContext, 'newId'>;

/** Takes an item out of the list of its parent, or of the one it had. A group of which nothing is left goes too; links to it keep what it had. */
export function detach({ draft, context }: Drafting<NewId>, part: Part, from = part.parent): void {
  const parent = from === null ? undefined : draft.items[from];
  if (!parent) return;
  const left = childrenOf(parent).filter((id) => id !== part.id);
  const isEmptied = isGroup(parent) && left.length === 0;
  if (isEmptied) handOver(draft, parent, context);
  setChildren(parent, left);
  if (!isEmptied) return;
  detach({ draft, context }, parent);
  delete draft.items[parent.id];
}

/** Where an item goes in the tree: below another or to the top, before one of those there, or last. */
export interface Goal {
  readonly to: Part | null;
  readonly before?: ItemId | null;
}

/** Takes an item out of its parent and puts it elsewhere in the tree; in the world it stays where it is. */
export function moveBelow({ draft, context }: Drafting<NewId>, part: Part, { to, before }: Goal): void {
  const from = part.parent;
  // First put there, then taken away here: the group that it goes into may be one that this would leave empty.
  attach(draft, part, to, { before: before ?? null });
  if (from !== (to?.id ?? null)) detach({ draft, context }, part, from);
}

/** Takes an item away with all that is below it. What is linked to any of that goes on sharing among itself. */
export function remove(draft: KadrelDocument, part: Part, context: NewId): void {
  detach({ draft, context }, part);
  const gone = withAllBelow(draft, part.id).map(({ id }) => id);
  // Links that go too are no heirs.
  for (const id of gone) if (draft.items[id]!.recipe.base.kind === 'link') delete draft.items[id];
  for (const id of gone) {
    const item = draft.items[id];
    if (item) handOver(draft, item, context);
  }
  for (const id of gone) delete draft.items[id];
}
