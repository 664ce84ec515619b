/** The tree of parts as rows, and where what is dragged or sent by keys would go. */
import {
  baseKind,
  below,
  childrenOf,
  countOf,
  isGroup,
  isLeftOut,
  memberKeys,
  topParts,
  type ItemId,
  type KadrelDocument,
  type Layout,
  type Part,
  isSurface,
} from '@kadrel/core';

/** A line of the tree. */
export interface Row {
  readonly part: Part;
  readonly level: number;
  /** Whether what is below is on show; null where nothing is below. */
  readonly open: boolean | null;
}

/** The rows on show, from the top down: what is below a part that is open, or all that match the search. */
export function rowsOf(document: KadrelDocument, open: ReadonlySet<ItemId>, search: string): Row[] {
  const wanted = search.trim().toLowerCase();
  if (wanted)
    return Object.values(document.items)
      .filter((part) => part.name.toLowerCase().includes(wanted))
      .map((part) => ({ part, level: 0, open: null }));
  const rows: Row[] = [];
  const add = (part: Part, level: number) => {
    const isOpen = open.has(part.id);
    rows.push({ part, level, open: childrenOf(part).length > 0 ? isOpen : null });
    if (isOpen) for (const child of below(document, part)) add(child, level + 1);
  };
  for (const part of topParts(document)) add(part, 0);
  return rows;
}

const LAYOUT_WORDS: Readonly<Record<Layout['kind'], string>> = {
  along: 'row',
  around: 'ring',
  grid: 'grid',
  path: 'path',
  reflection: 'pair',
};

const COMBINED = { union: 'union', subtract: 'cut', intersect: 'common' } as const;

/** What a part is, in a word; of patterns and groups also how many. */
export function kindWords(part: Part): string {
  const { base } = part.recipe;
  if (base.kind === 'group') return `group · ${base.members.length}`;
  if (base.kind === 'pattern') return `${LAYOUT_WORDS[base.layout.kind]} · ${membersLeft(base)}`;
  // An open surface is distinguished from solids at a glance.
  if (isSurface(part)) return 'surface';
  if (base.kind === 'combine') return COMBINED[base.how];
  if (base.kind === 'link') return 'linked';
  return baseKind(base)?.inAWord ?? base.kind;
}

/** How many members there are, without those left out. */
export function membersLeft(base: Extract<Part['recipe']['base'], { kind: 'pattern' }>): number {
  if (base.omitted.length === 0) return countOf(base.layout);
  return memberKeys(base.layout).filter((key) => !isLeftOut(base, key)).length;
}

/** Where something goes, seen from a row. */
export type Place = 'before' | 'after' | 'into';

/** The place meant by a height within a row, 0 at its top to 1 at its foot; groups also take things in. */
export function placeAt(part: Part, height: number): Place {
  if (isGroup(part) && height > 0.3 && height < 0.7) return 'into';
  return height < 0.5 ? 'before' : 'after';
}

/** The blanks of Arrange that bring parts there. */
export function arrangement(
  document: KadrelDocument,
  parts: readonly ItemId[],
  over: Part,
  place: Place,
): { readonly parts: readonly ItemId[]; readonly into?: ItemId; readonly before?: ItemId } {
  if (place === 'into') return { parts, into: over.id };
  if (place === 'before') return { parts, before: over.id };
  const siblings = siblingsOf(document, over);
  const next = siblings.slice(siblings.indexOf(over.id) + 1).find((id) => !parts.includes(id));
  if (next !== undefined) return { parts, before: next };
  return over.parent === null ? { parts } : { parts, into: over.parent };
}

export function siblingsOf(document: KadrelDocument, { parent }: Part): readonly ItemId[] {
  return parent === null ? topParts(document).map(({ id }) => id) : childrenOf(document.items[parent]!);
}

/** Where an arrow key with Alt sends a part: up or down among its siblings, into the group above it, or out of its own. */
export function sentBy(
  document: KadrelDocument,
  part: Part,
  key: string,
): { readonly over: Part; readonly place: Place } | undefined {
  const siblings = siblingsOf(document, part);
  const at = siblings.indexOf(part.id);
  const beside = (step: number) => document.items[siblings[at + step] ?? ''];
  const [above, under] = [beside(-1), beside(1)];
  if (key === 'ArrowUp') return above && { over: above, place: 'before' };
  if (key === 'ArrowDown') return under && { over: under, place: 'after' };
  if (key === 'ArrowRight') return above && isGroup(above) ? { over: above, place: 'into' } : undefined;
  const parent = part.parent === null ? undefined : document.items[part.parent];
  return key === 'ArrowLeft' && parent && isGroup(parent) ? { over: parent, place: 'after' } : undefined;
}
