/** What a statement would come to, without a kernel: where parts would stand, by the verb's own `apply`. */
import {
  applyMatrix,
  isRefusal,
  lineage,
  multiply,
  perform,
  placedOf,
  standingParts,
  verbNamed,
  worldFromPart,
  type Affine,
  type ItemId,
  type KadrelDocument,
  type Outcome,
  type Part,
  type Refusal,
  type World,
} from '@kadrel/core';
import { contentOf, keyOf } from '@kadrel/kernel';
import type { Statement } from './statement.ts';

/** Where things would stand. */
export interface Preview {
  /** From an item's own frame, as it is built now, to the world. */
  readonly placed: ReadonlyMap<ItemId, Affine>;
  /** New solids that are known already. */
  readonly copies: readonly { readonly key: string; readonly at: Affine }[];
}

/** When nothing is shown. */
export const NO_PREVIEW: Preview = { placed: new Map(), copies: [] };

/** Verbs whose outcome is where parts stand; the others show nothing before they are carried out. */
export const hasPreview = (verb: string): boolean => {
  const group = verbNamed(verb)?.group;
  return group === 'place' || group === 'join' || group === 'repeat';
};

/** Ghosts of more solids than this say no more, and cost frames. */
const MAX_COPIES = 2000;

/** @param before the document that the statement begins with @param document the one on screen */
export function previewOf(
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  before: KadrelDocument,
  world: World,
  document = before,
): Preview | Refusal {
  const done = perform(verbNamed(verb)!, typed, before, world);
  if (isRefusal(done)) return done;
  const placed = new Map<ItemId, Affine>();
  const copies: { key: string; at: Affine }[] = [];
  for (const part of standingParts(done.document)) {
    const { id } = part;
    const shown = document.items[id];
    const map = reshapedBy(done.document, id, done.outcome);
    if (shown && map) {
      // What is on screen already has another form, once the statement is done.
      if (before === document) placed.set(id, after(map, worldFromPart(before, id)));
      continue;
    }
    const now = worldFromPart(done.document, id);
    if (shown?.recipe === part.recipe) {
      const was = worldFromPart(document, id);
      const isMoved =
        was.shift.some((n, i) => n !== now.shift[i]) || was.turn.some((n, i) => n !== now.turn[i]);
      if (isMoved) placed.set(id, { linear: now.turn, shift: now.shift });
    } else if (!map) copies.push(...ghostsOf(done.document, part));
  }
  return { placed, copies: copies.slice(0, MAX_COPIES) };
}

/** The map of the item, or of a group that it is in. */
function reshapedBy(document: KadrelDocument, id: ItemId, { reshaped }: Outcome): Affine | undefined {
  if (!reshaped) return undefined;
  const mapped = lineage(document, id).find((above) => reshaped[above]);
  return mapped === undefined ? undefined : reshaped[mapped];
}

function ghostsOf(document: KadrelDocument, part: Part): { key: string; at: Affine }[] {
  const keys = new Map<string, string>();
  return placedOf(document, part.id).map((one) => {
    const name = `${one.leaf} ${one.mirrored} ${one.extra?.join() ?? ''}`;
    const key = keys.get(name) ?? keyOf(contentOf(document, one.leaf, one));
    keys.set(name, key);
    return { key, at: { linear: one.pose.turn, shift: one.pose.shift } };
  });
}

/** A map of the world after a placement. */
function after(map: Affine, { turn, shift }: ReturnType<typeof worldFromPart>): Affine {
  const carried = applyMatrix(map.linear, shift);
  return {
    linear: multiply(map.linear, turn),
    shift: [carried[0] + map.shift[0], carried[1] + map.shift[1], carried[2] + map.shift[2]],
  };
}
