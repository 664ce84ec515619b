/** What the verbs share that speak of single members of a pattern. */
import type { MemberKey } from '../document/layout.ts';
import type { ItemId, KadrelDocument, Part, PatternBase } from '../document/schema.ts';
import { memberNamed } from '../patterns/members.ts';
import { refuse, type Refusal } from './declare.ts';

export interface Members {
  readonly part: Part;
  readonly base: PatternBase;
  readonly keys: readonly MemberKey[];
}

/** The members that a text names: `3`, `3, 7`, `2x3` in a grid; or why there are none. */
export function membersNamed(document: KadrelDocument, id: ItemId, text: string): Members | Refusal {
  const part = document.items[id]!;
  const { base } = part.recipe;
  if (base.kind !== 'pattern') return refuse('no-pattern', `${part.name} is not a pattern.`, 'part');
  const keys: MemberKey[] = [];
  for (const label of text.split(/[,;]/)) {
    const key = memberNamed(base.layout, label);
    if (!key) return refuse('no-member', `${part.name} has no member ${label.trim()}.`, 'members');
    keys.push(key);
  }
  return { part, base, keys };
}
