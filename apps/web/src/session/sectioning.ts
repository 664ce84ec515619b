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

/** What the kernel tells of section planes. */
export const sectioning = ({ get, host, worlds }: SessionCore, commits: Committing) => ({
  /** The document as a statement about section planes would leave it; undefined where it is about none, or cannot be determined yet. */
  cutAs({ verb, typed, editId }: Pick<Statement, 'verb' | 'typed' | 'editId'>): KadrelDocument | undefined {
    if (verbNamed(verb)?.blanks.shows === undefined) return undefined;
    const before = commits.begins({ editId });
    const done = perform(verbNamed(verb)!, typed, before, worlds.of(before));
    return isRefusal(done) ? undefined : done.document;
  },
  async sectionFacts(part: ItemId): Promise<SectionFacts> {
    const question = { ask: 'section', part } as const;
    return (await host.ask({ ask: 'answer', document: get().document, question })) as SectionFacts;
  },
});
