/** Notices of solids by the names of the document. */
import { below, definitionOf, type ItemId, type KadrelDocument } from '@kadrel/core';
import type { Notice } from './combine/combination.ts';

/** Something worth knowing of a part that was built: what it consists of may be idle, or was taken with a tolerance. */
export interface PartNotice {
  readonly part: ItemId;
  readonly what: Notice['what'] | 'nothing cut';
  readonly words: string;
}

/** What should be known of a part, whose solid has these notices. */
export function noticesIn(document: KadrelDocument, part: ItemId, notices: readonly Notice[]): PartNotice[] {
  const found = notices.map((notice): PartNotice => {
    const { what } = notice;
    const words = notice.what === 'without effect' ? idleWords(document, part, notice.operand) : notice.words;
    return { part, what, words };
  });
  if (!document.items[part]!.traced?.lost) return found;
  const words = 'Nothing is cut any more where this was cut: its curves are those of the last cut.';
  return [{ part, what: 'nothing cut', words }, ...found];
}

/** The name of an operand by its tag: the id of an item, with what follows a point telling which member of a pattern. */
export const nameOfTag = (document: KadrelDocument, tag: string): string =>
  document.items[tag]?.name ?? document.items[tag.split('.')[0]!]?.name ?? tag;

function idleWords(document: KadrelDocument, part: ItemId, operand: string): string {
  const name = nameOfTag(document, operand);
  const { base } = definitionOf(document, document.items[part]!).recipe;
  const [first] = below(document, document.items[part]!);
  const how = base.kind === 'combine' ? base.how : 'union';
  const own = document.items[part]!.name;
  // What is called after the whole goes by the name of the whole.
  const from = !first || first.name.startsWith(`${own} (`) ? own : first.name;
  return how === 'subtract'
    ? `Nothing of ${name} lies within ${from}: it takes nothing out.`
    : `${name} lies wholly within the others: it adds nothing.`;
}
