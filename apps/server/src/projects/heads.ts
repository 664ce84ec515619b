import type { KadrelDocument } from '@kadrel/core';

/** A document as it stood after so many edits. */
export interface Head {
  readonly revision: number;
  readonly document: KadrelDocument;
}

/** How many documents are held: the projects that people work on now. */
const MOST_HELD = 200;

/**
 * The documents of the projects that were saved last. They save reading snapshots and edits again; whether one is still the
 * latest is proved by the database, which takes edits on the revision that they were checked on, or not at all.
 */
export class Heads {
  private readonly held = new Map<string, Head>();

  at(project: string, revision: number): KadrelDocument | undefined {
    const head = this.held.get(project);
    return head?.revision === revision ? head.document : undefined;
  }

  keep(project: string, head: Head): void {
    this.held.delete(project);
    this.held.set(project, head);
    for (const oldest of this.held.keys()) {
      if (this.held.size <= MOST_HELD) return;
      this.held.delete(oldest);
    }
  }
}
