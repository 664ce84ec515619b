/** What the verbs share that speak of single members of a pattern. */
import type { MemberKey } from '../../recipes/layouts/index.ts';
import type { ItemId, KadrelDocument, Part, PatternBase } from '../../document/schema.ts';
import { memberNamed, sameMember } from '../../patterns/members.ts';
import { MAX_MEMBERS } from '../../recipes/numbers.ts';
import { refuse, type Refusal } from '../../statement/declare.ts';

export interface Members {
  readonly part: Part;
  readonly base: PatternBase;
  readonly keys: readonly MemberKey[];
}

/** The members that a text names: `3`, `3, 7`, `2-4`, `2x3` in a grid; or why there are none. */
export function membersNamed(document: KadrelDocument, id: ItemId, text: string): Members | Refusal {
  const part = document.items[id]!;
  const { base } = part.recipe;
  if (base.kind !== 'pattern') return refuse('no-pattern', { name: part.name }, 'part');
  const keys: MemberKey[] = [];
  for (const piece of text.split(/[,;]/)) {
    const labels = labelsIn(piece);
    if (!labels) return refuse('range.members', { piece: piece.trim() }, 'members');
    for (const label of labels) {
      const key = memberNamed(base.layout, label);
      if (!key) return refuse('no-member.members', { name: part.name, label: label.trim() }, 'members');
      if (!keys.some((one) => sameMember(one, key))) keys.push(key);
    }
  }
  return { part, base, keys };
}

/** `2-4` is 2, 3, 4; anything else stands for itself. Undefined for a range that runs backward or without end. */
function labelsIn(piece: string): string[] | undefined {
  const range = /^\s*(\d+)\s*[-–]\s*(\d+)\s*$/.exec(piece);
  if (!range) return [piece];
  const [from, to] = [Number(range[1]), Number(range[2])];
  if (!(from <= to && to - from < MAX_MEMBERS)) return undefined;
  return Array.from({ length: to - from + 1 }, (_, i) => String(from + i));
}
