/** Section planes: what one that is being typed would cut, and what one that stands does cut. */
import {
  isRefusal,
  perform,
  verbNamed,
  type ItemId,
  type KadrelDocument,
  type SectionFacts,
} from '@kadrel/core';
import type { Committing } from './commit.ts';
import type { SessionCore } from './core.ts';
import type { Statement } from './statement.ts';

/** A reply for what a section plane was built as: the key names all that it cuts. */
interface Known {
  readonly key: string | undefined;
  readonly facts: Promise<SectionFacts>;
}

/** What the kernel tells of section planes. */
export function sectioning({ get, host, worlds }: SessionCore, commits: Committing) {
  const known = new Map<ItemId, Known>();

  const asked = (part: ItemId) =>
    host.ask({
      ask: 'answer',
      document: get().document,
      question: { ask: 'section', part },
    }) as Promise<SectionFacts>;

  return {
    /** The document as a statement about section planes would leave it; undefined where it is about none, or cannot be determined yet. */
    cutAs({ verb, typed, editId }: Pick<Statement, 'verb' | 'typed' | 'editId'>): KadrelDocument | undefined {
      if (verbNamed(verb)?.blanks.shows === undefined) return undefined;
      const before = commits.begins({ editId });
      const done = perform(verbNamed(verb)!, typed, before, worlds.of(before));
      return isRefusal(done) ? undefined : done.document;
    },
    /** The Spec and the views want it alike: it is asked once. Rejects as the kernel's host does. */
    sectionFacts(part: ItemId): Promise<SectionFacts> {
      const { key } = get().built.parts[part] ?? {};
      const before = known.get(part);
      if (before && key !== undefined && before.key === key) return before.facts;
      const facts = asked(part);
      known.set(part, { key, facts });
      // What was refused or cancelled is asked again.
      facts.catch(() => known.get(part)?.facts === facts && known.delete(part));
      return facts;
    },
  };
}
