/** What Union, Subtract and Intersect share: parts become operands of one part and stay editable below it. */
import { isSurface } from '../../recipes/bodies/index.ts';
import {
  definitionOf,
  freeName,
  isFlatPart,
  isGroup,
  isStanding,
  lineage,
  worldFromPart,
} from '../../document/items.ts';
import {
  madeFromThemselves,
  type Base,
  type CombineHow,
  type ItemId,
  type KadrelDocument,
  type Part,
} from '../../document/schema.ts';
import {
  refuse,
  type Outcome,
  type Refusal,
  type VerbContext,
  type Drafting,
} from '../../statement/declare.ts';
import { addPart } from './addPart.ts';
import { moveBelow } from './leaving.ts';
import { attach, linkedWith } from './tree.ts';

interface Combination {
  readonly how: CombineHow;
  /** The part that gives name and colour; for a subtraction, what is cut. */
  readonly base: ItemId;
  readonly others: readonly ItemId[];
  readonly as: string | undefined;
}

/**
 * A combination of the same kind takes further operands; anything else becomes the first operand of a new one. The new
 * part takes the name and colour of its base when no name is given, and the base is then called “… (base)”.
 */
export function combine(
  draft: KadrelDocument,
  { how, base, others, as }: Combination,
  context: VerbContext,
): Outcome | Refusal {
  const baseBlank = how === 'subtract' ? 'from' : 'parts';
  if (others.includes(base)) return refuse('same-part.parts', { name: draft.items[base]!.name }, 'parts');
  for (const id of [base, ...others]) {
    const part = draft.items[id]!;
    const blank = id === base ? baseBlank : 'parts';
    if (!isStanding(draft, id)) {
      const owner = lineage(draft, id).find((above) => !isGroup(draft.items[above]!))!;
      return refuse('operand.already', { name: part.name, owner: draft.items[owner]!.name }, blank);
    }
    const whole = [base, ...others].find((other) => other !== id && lineage(draft, id).includes(other));
    if (whole !== undefined)
      return refuse('within', { name: part.name, whole: draft.items[whole]!.name }, blank);
    if (isFlatPart(draft, part)) return refuse('flat.solid-raise', { name: part.name }, blank);
    if (isSurface(definitionOf(draft, part))) return refuse('surface.open', { name: part.name }, blank);
    if (part.locked) return refuse('locked', { name: part.name }, blank);
  }
  const whole = growable(draft.items[base]!, how) ? base : wrap({ draft, context }, { how, as }, base);
  const result = draft.items[whole]!;
  if (as !== undefined && whole === base && result.name !== as) result.name = freeName(draft, as);
  for (const id of others) moveBelow({ draft, context }, draft.items[id]!, { to: result });
  const links = linkedWith(draft, result);
  const rings = links.length === 0 ? [] : madeFromThemselves(draft.items).map(({ id: ring }) => ring);
  const made = links.find((link) => rings.includes(link.id));
  if (made) return refuse('circle.parts', { name: made.name, result: result.name }, 'parts');
  return { result: whole, select: [whole] };
}

const growable = (part: Part, how: CombineHow) =>
  part.recipe.base.kind === 'combine' && part.recipe.base.how === how;

function wrap(
  { draft, context }: Drafting,
  { how, as }: { readonly how: CombineHow; readonly as: string | undefined },
  id: ItemId,
): ItemId {
  const base = draft.items[id]!;
  const { name } = base;
  if (as === undefined) base.name = freeName(draft, `${name} (base)`);
  return wrapParts({ draft, context }, [id], {
    name: as ?? name,
    base: { kind: 'combine', how, operands: [] },
  });
}

/** A new part in the place of the first of others, which become what it is made from, where they stand in the world. */
export function wrapParts(
  { draft, context }: Drafting,
  ids: readonly ItemId[],
  made: { readonly name: string; readonly base: Base },
): ItemId {
  const first = draft.items[ids[0]!]!;
  const { colour, order, id: firstId } = first;
  const parent = first.parent === null ? null : draft.items[first.parent]!;
  const at = addPart(draft, context, { ...made, at: [0, 0, 0] });
  const result = draft.items[at]!;
  if (parent) {
    // Its frame is the group's, so that it stands square to it.
    attach(draft, result, parent, { before: firstId, was: worldFromPart(draft, parent.id) });
  }
  result.colour = colour;
  result.order = order;
  for (const id of ids) moveBelow({ draft, context }, draft.items[id]!, { to: result });
  return at;
}
