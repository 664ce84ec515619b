/**
 * Edits on their way to the server. They are kept in the browser's own storage until the server has acknowledged them,
 * so that neither a reload nor a lost server loses one. Sending the same edit twice does no harm: the server knows it.
 */
import { editSchema, editsCollide, type Edit } from '@kadrel/core';
import { z } from 'zod';
import { ApiError, missedEdits } from '../api/client.ts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'conflict';

export interface QueueOptions {
  readonly projectId: string;
  /** Tells this page from others on the same project. */
  readonly pageId: string;
  readonly storage: Pick<Storage, 'setItem' | 'removeItem'>;
  readonly send: (base: number, edits: readonly Edit[]) => Promise<{ revision: number }>;
  /** Others' edits have arrived and go before ours; the page applies them. */
  readonly onMissed: (missed: readonly Edit[], ours: readonly Edit[]) => void;
  readonly onState: (state: SaveState, revision: number, reason?: string) => void;
  readonly later: (work: () => void, ms: number) => void;
}

const storedSchema = z.object({ base: z.number().int().nonnegative(), edits: z.array(editSchema) });
function readStored(text: string | null): z.infer<typeof storedSchema> | undefined {
  if (!text) return undefined;
  try {
    return storedSchema.safeParse(JSON.parse(text)).data;
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** Waits between tries when the server does not answer: quick at first, then patient. */
const RETRY_MS = [500, 1000, 2000, 5000, 10_000];
const MOST_AT_ONCE = 100;

export class SaveQueue {
  private edits: Edit[] = [];
  private sending = false;
  private tries = 0;
  private stopped = false;
  private inConflict = false;

  constructor(
    private readonly options: QueueOptions,
    private revision: number,
  ) {}

  /** Every page has a place of its own, so that two pages on one project do not overwrite one another's edits. */
  private static prefix(projectId: string): string {
    return `kadrel.unsaved.${projectId}.`;
  }

  /**
   * What former visits left unsaved, and takes it over: it is this page's to save from now on. Undefined when there is
   * nothing; what is damaged is passed over, and stays where it is.
   */
  static takeOver(
    storage: Pick<Storage, 'getItem' | 'removeItem' | 'key' | 'length'>,
    projectId: string,
  ): { base: number; edits: Edit[] } | undefined {
    const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i)!).filter((key) =>
      key.startsWith(SaveQueue.prefix(projectId)),
    );
    const found = keys.flatMap((key) => readStored(storage.getItem(key)) ?? []);
    if (found.length === 0) return undefined;
    return { base: Math.min(...found.map(({ base }) => base)), edits: found.flatMap(({ edits }) => edits) };
  }

  /** Forgets what other pages kept, once their edits are in this page's place. */
  static forgetOthers(
    storage: Pick<Storage, 'removeItem' | 'key' | 'length'>,
    projectId: string,
    pageId: string,
  ): void {
    const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i)!);
    for (const key of keys)
      if (key.startsWith(SaveQueue.prefix(projectId)) && !key.endsWith(pageId)) storage.removeItem(key);
  }

  get unsaved(): readonly Edit[] {
    return this.edits;
  }

  add(...edits: readonly Edit[]): void {
    this.edits.push(...edits);
    this.keep();
    void this.flush();
  }

  /** Gives up what is unsaved, after a conflict that the user has decided. */
  drop(): void {
    this.edits = [];
    this.inConflict = false;
    this.keep();
  }

  /** Stops sending; what is unsaved stays in the storage. */
  stop(): void {
    this.stopped = true;
  }

  async flush(): Promise<void> {
    if (this.sending || this.stopped || this.inConflict) return;
    if (this.edits.length === 0) {
      this.options.onState('saved', this.revision);
      return;
    }
    this.sending = true;
    const batch = this.edits.slice(0, MOST_AT_ONCE);
    this.options.onState('saving', this.revision);
    try {
      const { revision } = await this.options.send(this.revision, batch);
      this.revision = revision;
      this.edits = this.edits.slice(batch.length);
      this.tries = 0;
      this.keep();
      this.sending = false;
      void this.flush();
    } catch (error) {
      this.sending = false;
      this.failed(error);
    }
  }

  private failed(error: unknown): void {
    const missed = missedEdits(error);
    if (missed) {
      const known = new Set(missed.edits.map((edit) => edit.id));
      // Ours that the server has already, because only its answer was lost.
      this.edits = this.edits.filter((edit) => !known.has(edit.id));
      const theirs = missed.edits.filter((edit) => !this.wasOurs(edit));
      if (editsCollide(theirs, this.edits)) return this.conflict('Somebody changed the same numbers as you.');
      this.revision = missed.revision;
      this.keep();
      this.options.onMissed(theirs, this.edits);
      void this.flush();
      return;
    }
    if (error instanceof ApiError && !error.isPassing) return this.conflict(error.message);
    const wait = RETRY_MS[Math.min(this.tries, RETRY_MS.length - 1)]!;
    this.tries += 1;
    this.options.onState('waiting', this.revision, error instanceof Error ? error.message : String(error));
    this.options.later(() => void this.flush(), wait);
  }

  private readonly sentIds = new Set<string>();
  private wasOurs(edit: Edit): boolean {
    return this.sentIds.has(edit.id);
  }

  private conflict(reason: string): void {
    this.inConflict = true;
    this.options.onState('conflict', this.revision, reason);
  }

  private keep(): void {
    for (const edit of this.edits) this.sentIds.add(edit.id);
    const key = SaveQueue.prefix(this.options.projectId) + this.options.pageId;
    if (this.edits.length === 0) this.options.storage.removeItem(key);
    else this.options.storage.setItem(key, JSON.stringify({ base: this.revision, edits: this.edits }));
  }
}
