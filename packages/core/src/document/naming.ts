/**
 * Names of faces. A solid's faces are named by role (`top`, `side`); a combination keeps the names of its first operand
 * and puts the operand's id before those of the others (`p3.side`). A face that two operands share has both names.
 * People write the operand's name in place of its id, and may leave it out where that is plain.
 */
import { lineage } from './items.ts';
import { childrenOf, type ItemId, type KadrelDocument } from './schema.ts';

/** Joins the names of one face, where coplanar faces became one. */
export const MERGED = '+';
/** Joins the faces that meet in an edge or a corner. */
export const MEETING = '&';

/** Whether two names mean one face: they are the same, or faces that became one have a name in common. */
export function sharesName(kept: string, name: string): boolean {
  if (kept === name) return true;
  const names = new Set(name.split(MERGED));
  return kept.split(MERGED).some((one) => names.has(one));
}

/** What a face came from: all of its name before the last point; several, where faces became one. */
export const ownersOf = (name: string): string[] =>
  name.split(MERGED).map((one) => one.split('.').slice(0, -1).join('.'));

/** The names of faces of an operand, as the combination that it has become part of has them: `side&top` → `p3.side&p3.top`. */
export function namesWithin(
  document: KadrelDocument,
  { combination, operand }: { readonly combination: ItemId; readonly operand: ItemId },
  names: string,
): string {
  const path = lineage(document, operand);
  const before = path
    .slice(path.indexOf(combination) + 1)
    .filter((id) => childrenOf(document.items[document.items[id]!.parent!]!)[0] !== id)
    .map((id) => `${id}.`)
    .join('');
  const each = (joint: string, change: (name: string) => string) => (text: string) =>
    text.split(joint).map(change).join(joint);
  return each(
    MEETING,
    each(MERGED, (name) => `${before}${name.trim()}`),
  )(names);
}

/** `p3.side&top` → `Drill.side&top`. */
export function readableName(name: string, document: KadrelDocument): string {
  return name.replace(/([a-z0-9]+)\./g, (whole, id: string) =>
    document.items[id] ? `${document.items[id].name}.` : whole,
  );
}

/** How closely a written name fits a face: 2 the whole name, 1 the role at its end, 0 not at all. */
export function nameFit(written: string, faceName: string, document: KadrelDocument): 0 | 1 | 2 {
  const names = faceName.split(MERGED);
  // What was picked has all names of a merged face; one in common is enough, since it may be merged otherwise by now.
  const wanted = new Set(written.split(MERGED).map((one) => one.trim()));
  if (names.some((name) => wanted.has(name) || wanted.has(readableName(name, document)))) return 2;
  return names.some((name) => wanted.has(name.split('.').at(-1)!)) ? 1 : 0;
}
