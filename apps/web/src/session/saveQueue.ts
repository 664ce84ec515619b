/**
 * Edits on their way to the server. They are sent at once, and kept in the browser until the server has acknowledged them, so that
 * neither a reload nor a lost server loses one. Sending the same edit twice does no harm: the server knows it. What the server will
 * never take is set aside with its reason, and everything that does not rest on it goes on.
 */
import { editsCollide, type Edit } from '@kadrel/core';
import { ApiError } from '../api/call.ts';
import { missedEdits } from '../api/workshop.ts';
import type { Aside, Kept } from './shelf.ts';

/** How saving stands. */
export type SaveState = 'saved' | 'saving' | 'waiting' | 'conflict';

/** How saving stands, as the header tells it. */
export interface SaveReport {
  readonly state: SaveState;
  readonly revision: number;
  readonly reason?: string | undefined;
  /** What the server will not take. */
  readonly aside: readonly Aside[];
  /** False where the browser has no room for a copy of what is unsaved. */
  readonly isKept: boolean;
  /** The server waits for a sign-in. */
  readonly wantsSignIn: boolean;
}

/** What the queue needs of the world. */
export interface QueueOptions {
  readonly keep: (kept: Kept) => Promise<void>;
  readonly forget: () => Promise<void>;
  readonly send: (base: number, edits: readonly Edit[]) => Promise<{ revision: number }>;
  /** Others' edits have arrived and go before ours; the page applies them. False where they do not go together. */
  readonly onMissed: (missed: readonly Edit[], ours: readonly Edit[]) => boolean;
  readonly onState: (report: SaveReport) => void;
  readonly later: (work: () => void, ms: number) => void;
  /** Edits that others have saved since a revision. */
  readonly since?: (revision: number) => Promise<readonly Edit[]>;
  /** The server has taken edits: other pages on the same project can have them now. */
  readonly onSaved?: () => void;
}

/** Waits between tries when the server does not answer: quick at first, then patient. */
const RETRY_MS = [500, 1000, 2000, 5000, 10_000];
const MAX_AT_ONCE = 100;
/** A server that answers and fails so many times on the same edits will go on failing on them. */
const MAX_FAILURES = 6;

/** Sends edits in order, and again until the server has them. */
export class SaveQueue {
  private edits: Edit[] = [];
  private aside: Aside[] = [];
  private sending = false;
  private tries = 0;
  private stopped = false;
  private conflictReason: string | undefined;
  private state: SaveState = 'saved';
  private reason: string | undefined;
  private isKept = true;
  private wantsSignIn = false;
  private looking = false;
  /** Fewer after a refusal that names no edit, until it is found. */
  private atOnce = MAX_AT_ONCE;
  private readonly sentIds = new Set<string>();
  private keeping: Promise<void> = Promise.resolve();

  constructor(
    private readonly options: QueueOptions,
    private revision: number,
  ) {}

  get unsaved(): readonly Edit[] {
    return this.edits;
  }

  get base(): number {
    return this.revision;
  }

  add(...edits: readonly Edit[]): void {
    const known = new Set(this.edits.map(({ id }) => id));
    const fresh = edits.filter(({ id }) => !known.has(id));
    const { resting, free } = parted(
      fresh,
      this.aside.map(({ edit }) => edit),
    );
    this.aside.push(...resting.map((edit) => ({ edit, reason: RESTS })));
    this.edits.push(...free);
    void this.flush();
    void this.keep();
  }

  /** What was set aside on a former visit. */
  takeAside(aside: readonly Aside[]): void {
    this.aside.push(...aside);
    this.report(this.state, this.reason);
  }

  /** Settles when all so far is kept, or there was no room for it. */
  kept(): Promise<void> {
    return this.keeping;
  }

  /** Gives up what is unsaved, after the user has decided. */
  drop(): Promise<void> {
    this.edits = [];
    this.aside = [];
    this.conflictReason = undefined;
    return this.keep();
  }

  /** Gives up what the server will not take. */
  dropAside(): Promise<void> {
    this.aside = [];
    return this.keep();
  }

  /** Stops for the user to decide. */
  conflict(reason: string): void {
    this.conflictReason = reason;
    this.report('conflict', reason);
  }

  /** Stops sending; what is unsaved stays kept. */
  stop(): void {
    this.stopped = true;
  }

  private async flush(): Promise<void> {
    if (this.sending || this.stopped || this.conflictReason !== undefined) return;
    if (this.edits.length === 0) return this.report('saved');
    this.sending = true;
    const batch = this.edits.slice(0, this.atOnce);
    for (const edit of batch) this.sentIds.add(edit.id);
    this.report('saving');
    try {
      const { revision } = await this.options.send(this.revision, batch);
      this.sending = false;
      this.acknowledged(revision, batch);
    } catch (error) {
      this.sending = false;
      this.failed(error, batch);
    }
  }

  /** Brings in what others have saved meanwhile, while nothing of one's own is on its way. */
  async look(): Promise<void> {
    const { since } = this.options;
    const isBusy = () => this.sending || this.stopped || this.edits.length > 0;
    if (!since || this.looking || isBusy() || this.conflictReason !== undefined) return;
    this.looking = true;
    const base = this.revision;
    try {
      const found = await since(base);
      this.wantsSignIn = false;
      // The answer to what is sent now says anyway what it misses.
      if (isBusy() || this.revision !== base) return;
      if (found.length > 0 && this.options.onMissed(found, [])) this.revision = base + found.length;
      this.report('saved');
    } catch (error) {
      this.asks(error);
      // Whoever looks again will find it; only a sign-in is worth telling.
      if (!(error instanceof ApiError)) throw error;
      if (this.wantsSignIn) this.report('waiting', error.message);
    } finally {
      this.looking = false;
    }
  }

  private asks(error: unknown): void {
    this.wantsSignIn = error instanceof ApiError && error.status === 401;
  }

  private acknowledged(revision: number, batch: readonly Edit[]): void {
    this.wantsSignIn = false;
    this.options.onSaved?.();
    this.revision = revision;
    this.edits = this.edits.slice(batch.length);
    this.tries = 0;
    this.atOnce = MAX_AT_ONCE;
    void this.keep();
    void this.flush();
  }

  private failed(error: unknown, batch: readonly Edit[]): void {
    const missed = missedEdits(error);
    if (missed) return this.behind(missed);
    const refused = error instanceof ApiError ? refusalOf(error, this.tries) : undefined;
    if (refused === 'all') return this.conflict((error as ApiError).message);
    if (refused === 'some') return this.setAside(batch, error as ApiError);
    this.asks(error);
    const wait = RETRY_MS[Math.min(this.tries, RETRY_MS.length - 1)]!;
    this.tries += 1;
    this.report('waiting', error instanceof Error ? error.message : String(error));
    this.options.later(() => void this.flush(), wait);
  }

  /** Others saved meanwhile. */
  private behind(missed: { revision: number; edits: readonly Edit[] }): void {
    const known = new Set(missed.edits.map((edit) => edit.id));
    const own = new Set(this.edits.map((edit) => edit.id));
    // The server may have some of ours already: its answer was lost, or another page took them over.
    const ours = this.edits.filter((edit) => !known.has(edit.id));
    const theirs = missed.edits.filter(({ id }) => !this.sentIds.has(id) && !own.has(id));
    // What is kept as a project then goes on from the revision that all of ours were made on.
    if (editsCollide(theirs, ours) || !this.options.onMissed(theirs, ours))
      return this.conflict('Somebody changed the same numbers as you.');
    this.edits = ours;
    this.revision = missed.revision;
    void this.keep();
    void this.flush();
  }

  /** The edit that the server names, or the only one; else fewer are sent, until it is found. */
  private setAside(batch: readonly Edit[], error: ApiError): void {
    this.tries = 0;
    const named = namedEdit(error);
    const found = batch.find(({ id }) => id === named) ?? (batch.length === 1 ? batch[0] : undefined);
    if (!found) {
      this.atOnce = Math.max(1, Math.floor(batch.length / 2));
      void this.flush();
      return;
    }
    const later = this.edits.slice(this.edits.indexOf(found) + 1);
    const { resting } = parted(later, [found]);
    const gone = new Set([found, ...resting]);
    this.edits = this.edits.filter((edit) => !gone.has(edit));
    this.aside.push({ edit: found, reason: error.message });
    this.aside.push(...resting.map((edit) => ({ edit, reason: RESTS })));
    this.atOnce = MAX_AT_ONCE;
    void this.keep();
    void this.flush();
  }

  private report(state: SaveState, reason?: string): void {
    this.state = state;
    this.reason = reason;
    const { revision, isKept, wantsSignIn } = this;
    this.options.onState({ state, revision, reason, aside: [...this.aside], isKept, wantsSignIn });
  }

  /** One after another, so that the last state is the one that stays. Of a page that is closed the last copy stays as it is. */
  private keep(): Promise<void> {
    this.keeping = this.keeping.then(async () => {
      if (this.stopped) return;
      const { revision: base, edits, aside } = this;
      const hasSome = edits.length > 0 || aside.length > 0;
      try {
        await (hasSome
          ? this.options.keep({ base, edits: [...edits], aside: [...aside] })
          : this.options.forget());
        this.isKept = true;
      } catch (error) {
        // No room, or no storage at all: what is unsaved is only here, and the header says so.
        if (!(error instanceof Error)) throw error;
        this.isKept = !hasSome;
      }
      this.report(this.state, this.reason);
    });
    return this.keeping;
  }
}

const RESTS = 'It rests on a statement that was not saved.';

/** Edits that rest on others: they write where those wrote, or take them back. What rests on them rests there too. */
function parted(edits: readonly Edit[], on: readonly Edit[]): { resting: Edit[]; free: Edit[] } {
  const [base, resting, free] = [[...on], [] as Edit[], [] as Edit[]];
  for (const edit of edits) {
    const rests = base.some(({ id }) => id === edit.of) || editsCollide(base, [edit]);
    (rests ? resting : free).push(edit);
    if (rests) base.push(edit);
  }
  return { resting, free };
}

/** Whether a request would never go through: because of some edit in it, or whatever it holds. */
function refusalOf(error: ApiError, tries: number): 'some' | 'all' | undefined {
  if (error.status === 500 && tries >= MAX_FAILURES) return 'some';
  if (error.isPassing) return undefined;
  return [400, 413, 422].includes(error.status) ? 'some' : 'all';
}

function namedEdit({ body }: ApiError): string | undefined {
  return typeof body === 'object' && body !== null && 'edit' in body && typeof body.edit === 'string'
    ? body.edit
    : undefined;
}
