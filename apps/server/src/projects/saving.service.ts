import { UniqueConstraintViolationException } from '@mikro-orm/core';
import { EntityManager } from '@mikro-orm/postgresql';
import { Injectable, Logger, type OnModuleDestroy } from '@nestjs/common';
import { isEditFault, sealEdits, type KadrelDocument } from '@kadrel/core';
import { codeOf } from '../common/errorLog.ts';
import { newEditsSchema } from './bodies.ts';
import { Heads, type Head } from './heads.ts';
import { sourcesOf } from './history.ts';
import { Lines } from './lines.ts';
import { isSnapshotDue, requireThisVersion, withoutDoubles } from './saves.ts';
import { SaveBatches } from './saveBatches.ts';
import { storeSnapshot, type StoredSave } from './storing.ts';
import { TaskPool } from './taskPool.ts';
import { MAX_LIGHT, type Answer, type Asking } from './tasks.ts';

/** How many documents are held. */
const MAX_HEADS = 200;
/** PostgreSQL’s code for a key that is there already. */
const UNIQUE_VIOLATION = '23505';

/**
 * Saving. A small edit of a small document that is at hand is checked here and stored by one statement; all else goes to the task pool,
 * which looks it up and says what is wrong.
 */
@Injectable()
export class SavingService implements OnModuleDestroy {
  private readonly log = new Logger('Kadrel');
  private readonly heads = new Heads(MAX_HEADS);
  private readonly lines = new Lines();
  private readonly snapshots = new Set<Promise<unknown>>();

  constructor(
    private readonly em: EntityManager,
    private readonly pool: TaskPool,
    private readonly batches: SaveBatches,
  ) {}

  /** Snapshots that are still being written. */
  async onModuleDestroy(): Promise<void> {
    await Promise.allSettled(this.snapshots);
  }

  /** @param body as it came: read JSON where it is small, else bytes */
  append(asking: Asking, id: string, body: unknown): Promise<Answer> {
    return this.lines.inLine(
      id,
      async () => (await this.quick(asking, id, body)) ?? this.throughPool(asking, id, body),
    );
  }

  /** Undefined where something is not plain: then `append` looks into it. @param body read JSON */
  appendQuickly(asking: Asking, id: string, body: unknown): Promise<Answer | undefined> {
    return this.lines.inLine(id, () => this.quick(asking, id, body));
  }

  private async quick(asking: Asking, id: string, body: unknown): Promise<Answer | undefined> {
    if (Buffer.isBuffer(body)) return undefined;
    const { base, edits } = withoutDoubles(newEditsSchema.parse(body));
    const before = this.heads.at(id, base);
    if (!before) return undefined;
    requireThisVersion(edits);
    const sources = await sourcesOf(this.em.getConnection(), id, edits);
    const { name: author } = asking;
    const sealed = sealEdits(before.document, edits, {
      author,
      now: Date.now(),
      lastTime: before.lastTime,
      source: (one) => sources.get(one),
    });
    if (isEditFault(sealed)) return undefined;
    const revision = await this.stored({ project: id, account: asking.id, base, edits: sealed.edits });
    if (revision === undefined) return undefined;
    const lastTime = sealed.edits.at(-1)!.line.time;
    this.moveOn(id, { revision, document: sealed.document, lastTime }, base);
    return { status: 201, text: JSON.stringify({ revision }) };
  }

  private async throughPool(asking: Asking, project: string, body: unknown): Promise<Answer> {
    const answer = await this.pool.run({ kind: 'append', asking, project, body });
    if (answer.head) {
      const { revision, lastTime, document } = answer.head;
      this.heads.keep(project, { revision, lastTime, document: JSON.parse(document) as KadrelDocument });
    } else if (answer.status === 201) this.heads.forget(project);
    return answer;
  }

  /** Undefined where the base is stale, an edit is known, or the project is not the account's. */
  private async stored(save: StoredSave): Promise<number | undefined> {
    try {
      return await this.batches.store(save);
    } catch (error) {
      if (error instanceof UniqueConstraintViolationException || codeOf(error) === UNIQUE_VIOLATION)
        return undefined;
      throw error;
    }
  }

  /** The head is kept in memory, and from time to time stored. */
  private moveOn(project: string, head: Head, from: number): void {
    this.heads.keep(project, head);
    if (!isSnapshotDue(from, head.revision)) return;
    const text = JSON.stringify(head.document);
    // What has grown is better looked after in the pool.
    if (text.length > MAX_LIGHT) this.heads.forget(project);
    this.storeLater(project, { revision: head.revision, text });
  }

  /** Not waited for: without it opening takes a little longer, and nothing is lost. */
  private storeLater(project: string, snapshot: { revision: number; text: string }): void {
    const stored = storeSnapshot(this.em.fork(), project, snapshot)
      .catch((error: unknown) => {
        this.log.warn(`A snapshot was not stored: ${error instanceof Error ? error.name : 'unknown'}.`);
      })
      .finally(() => this.snapshots.delete(stored));
    this.snapshots.add(stored);
  }
}
