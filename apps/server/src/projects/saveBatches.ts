import { EntityManager } from '@mikro-orm/postgresql';
import { Injectable } from '@nestjs/common';
import { rowText, storeTogether, type StoredSave } from './storing.ts';

/** Batches on their way at once: one is written out while the database works on the other. */
const MAX_AT_ONCE = 2;
/** Saves and characters of one batch, at the most: no statement takes the database long. */
const MAX_SAVES = 100;
const MAX_CHARACTERS = 2_000_000;

interface Waiting {
  readonly save: StoredSave;
  readonly text: string;
  readonly resolve: (revision: number | undefined) => void;
  readonly reject: (error: unknown) => void;
}

/**
 * Saves on their way to the database. While some are being stored the next ones wait, and then share one round trip and one commit:
 * the more people save at once, the less each save costs.
 */
@Injectable()
export class SaveBatches {
  private readonly waiting: Waiting[] = [];
  private running = 0;

  constructor(private readonly em: EntityManager) {}

  /** Returns the new revision; undefined where the base is stale or the project is not the account's. Throws where an edit is known. */
  store(save: StoredSave): Promise<number | undefined> {
    return new Promise((resolve, reject) => {
      this.waiting.push({ save, text: rowText(save), resolve, reject });
      // What arrives in this turn of the event loop goes along.
      setImmediate(() => void this.run());
    });
  }

  private async run(): Promise<void> {
    if (this.running >= MAX_AT_ONCE || this.waiting.length === 0) return;
    this.running += 1;
    const batch = this.taken();
    try {
      await this.stored(batch);
    } finally {
      this.running -= 1;
      void this.run();
    }
  }

  /** The next batch, of at least one save. A project is in it once: its saves come one after another. */
  private taken(): Waiting[] {
    let characters = 0;
    const end = this.waiting.findIndex(
      ({ text }, i) => i > 0 && (i === MAX_SAVES || (characters += text.length) > MAX_CHARACTERS),
    );
    return this.waiting.splice(0, end < 0 ? this.waiting.length : end);
  }

  private async stored(batch: readonly Waiting[]): Promise<void> {
    try {
      const revisions = await storeTogether(
        this.em,
        batch.map(({ text }) => text),
      );
      for (const { save, resolve } of batch) resolve(revisions.get(save.project));
    } catch (error) {
      if (batch.length === 1) return batch[0]!.reject(error);
      // One of them has an edit that is known, or two servers waited for each other: each says for itself what is wrong.
      for (const one of batch) await this.stored([one]);
    }
  }
}
