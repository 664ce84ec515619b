/** What Union, Subtract and Intersect share: parts become operands of one part and stay editable below it. */
import { freeName, lineage, poseOfPlacement } from '../document/items.ts';
import type { CombineHow, ItemId, KadrelDocument, Part } from '../document/schema.ts';
import { AT_ORIGIN, chain, degreesOfTurn, inverse, isIdentity, roundPoint } from '../space/pose.ts';
import { refuse, type Outcome, type Refusal, type VerbContext } from './declare.ts';
import { addPart } from './make.ts';

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
  if (others.includes(base))
    return refuse('same-part', `${draft.items[base]!.name} cannot be on both sides.`, 'parts');
  for (const id of [base, ...others]) {
    const part = draft.items[id]!;
    const blank = id === base ? baseBlank : 'parts';
    if (part.parent !== null)
      return refuse(
        'operand',
        `${part.name} already belongs to ${draft.items[lineage(draft, id)[0]!]!.name}.`,
        blank,
      );
    if (part.locked) return refuse('locked', `${part.name} is locked. Unlock it in Parts first.`, blank);
  }
  const whole = growable(draft.items[base]!, how) ? base : wrap(draft, how, base, as, context);
  const result = draft.items[whole]!;
  if (as !== undefined && whole === base && result.name !== as) result.name = freeName(draft, as);
  if (result.recipe.base.kind === 'combine') result.recipe.base.operands.push(...others);
  for (const id of others) putBelow(draft.items[id]!, result);
  return { result: whole, select: [whole] };
}

const growable = (part: Part, how: CombineHow) =>
  part.recipe.base.kind === 'combine' && part.recipe.base.how === how;

function wrap(
  draft: KadrelDocument,
  how: CombineHow,
  id: ItemId,
  as: string | undefined,
  context: VerbContext,
): ItemId {
  const base = draft.items[id]!;
  const { name, colour, order } = base;
  if (as === undefined) base.name = freeName(draft, `${name} (base)`);
  const at = addPart(draft, context, {
    name: as ?? name,
    base: { kind: 'combine', how, operands: [id] },
    at: [0, 0, 0],
  });
  const result = draft.items[at]!;
  result.colour = colour;
  result.order = order;
  putBelow(base, result);
  return at;
}

/** The operand keeps its place in the world: its placement is told in its parent's frame from now on. */
function putBelow(part: Part, parent: Part): void {
  const parentFromWorld = inverse(poseOfPlacement(parent.placement));
  part.parent = parent.id;
  if (isIdentity(parentFromWorld.turn) && parentFromWorld.shift.every((n, i) => n === AT_ORIGIN.shift[i]))
    return;
  const pose = chain(parentFromWorld, poseOfPlacement(part.placement));
  part.placement.origin = [...roundPoint(pose.shift)];
  if (!isIdentity(parentFromWorld.turn)) part.placement.turn = [...degreesOfTurn(pose.turn)];
}
