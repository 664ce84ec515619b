/** Which solid a named feature is on. */
import { partNamed } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { placedOf, type Placed } from '../patterns/placed.ts';
import { refuse, type Refusal } from '../refusals/refusal.ts';
import type { NamedPoint } from './locate.ts';

/** The solid that a part is, or which one of those that a pattern or a group consists of. */
export function solidNamed(
  document: KadrelDocument,
  part: ItemId,
  { member, of }: Pick<NamedPoint, 'member' | 'of'>,
): Placed | Refusal {
  const { name } = document.items[part]!;
  const leaf = of === undefined ? undefined : partNamed(document, of)?.id;
  if (of !== undefined && leaf === undefined) return refuse('unknown-part', { of });
  const placed = placedOf(document, part, { withHidden: true });
  const found = placed.filter(
    (one) =>
      (member === undefined || one.member === String(member)) && (leaf === undefined || one.leaf === leaf),
  );
  const [first] = found;
  if (!first) return noMember(name, { member: member === undefined ? undefined : String(member), of });
  if (found.some((one) => one.leaf !== first.leaf) && leaf === undefined)
    return refuse('ambiguous.consists', { name });
  return first;
}

function noMember(
  name: string,
  { member, of }: { member: string | undefined; of: string | undefined },
): Refusal {
  if (of === undefined) return refuse('no-member.member', { name, member: member ?? '' });
  return member === undefined
    ? refuse('no-member.of', { name, of })
    : refuse('no-member.member-of', { name, member, of });
}
