import type { KadrelDocument } from '@kadrel/core';

/** A document as it stood after so many edits. */
export interface Head {
  readonly revision: number;
  readonly document: KadrelDocument;
  /** When the last statement was made, milliseconds since 1970; 0 where there is none. */
  readonly lastTime: number;
}

/**
 * The documents of the projects that were saved last. They save reading snapshots and edits again; whether one is still the
 * latest is proved by the database, which takes edits on the revision that they were checked on, or not at all.
 */
export class Heads {
  private readonly held = new Map<string, Head>();

  /** @param max how many are held: the projects that people work on now */
  constructor(private readonly max: number) {}

  at(project: string, revision: number): Head | undefined {
    const head = this.held.get(project);
    return head?.revision === revision ? head : undefined;
  }

  keep(project: string, head: Head): void {
    this.held.delete(project);
    this.held.set(project, head);
    for (const oldest of this.held.keys()) {
      if (this.held.size <= this.max) return;
      this.held.delete(oldest);
    }
  }

  forget(project: string): void {
    this.held.delete(project);
  }
}
