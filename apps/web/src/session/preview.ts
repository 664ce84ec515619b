/** What a statement would come to, without a kernel: where parts would stand, by the verb's own `apply`. */
import {
  applyMatrix,
  isRefusal,
  multiply,
  perform,
  topParts,
  verbNamed,
  worldFromPart,
  type Affine,
  type ItemId,
  type KadrelDocument,
  type Refusal,
  type World,
} from '@kadrel/core';
import { contentOf, keyOf } from '@kadrel/kernel';
import type { Statement } from './statement.ts';

export interface Preview {
  /** From a part's own frame, as it is built now, to the world. */
  readonly placed: ReadonlyMap<ItemId, Affine>;
  /** New parts whose solid is known already. */
  readonly copies: readonly { readonly key: string; readonly at: Affine }[];
}

export const NO_PREVIEW: Preview = { placed: new Map(), copies: [] };

/** Verbs whose outcome is where parts stand; the others show nothing before they are carried out. */
export const hasPreview = (verb: string): boolean => {
  const group = verbNamed(verb)?.group;
  return group === 'place' || group === 'repeat';
};

export function previewOf(
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  document: KadrelDocument,
  world: World,
): Preview | Refusal {
  const done = perform(verbNamed(verb)!, typed, document, world);
  if (isRefusal(done)) return done;
  const placed = new Map<ItemId, Affine>();
  const copies: { key: string; at: Affine }[] = [];
  for (const part of topParts(done.document)) {
    const { id } = part;
    const reshaped = done.outcome.reshaped?.[id];
    const before = document.items[id];
    if (before === part) continue;
    const now = worldFromPart(done.document, id);
    if (!before) {
      if (!reshaped)
        copies.push({ key: keyOf(contentOf(done.document, id)), at: { linear: now.turn, shift: now.shift } });
    } else if (reshaped) placed.set(id, after(reshaped, worldFromPart(document, id)));
    else placed.set(id, { linear: now.turn, shift: now.shift });
  }
  return { placed, copies };
}

/** A map of the world after a placement. */
function after(map: Affine, { turn, shift }: ReturnType<typeof worldFromPart>): Affine {
  const carried = applyMatrix(map.linear, shift);
  return {
    linear: multiply(map.linear, turn),
    shift: [carried[0] + map.shift[0], carried[1] + map.shift[1], carried[2] + map.shift[2]],
  };
}
