/** What a statement that changes solids would come to, built by the kernel before it is carried out. */
import { isRefusal, verbNamed, withStepsUpTo, type ItemId, type KadrelDocument } from '@kadrel/core';
import { performAsking } from './asking.ts';
import { newFailure, type Built } from './built.ts';
import type { Committing } from './commit.ts';
import type { SessionCore } from './core.ts';
import { doesDraw } from './sketch.ts';
import { isChanged, type Statement } from './statement.ts';
import { emptyBlank } from './waiting.ts';

/** What a statement would come to, built. */
export interface BuiltPreview {
  readonly document: KadrelDocument;
  readonly built: Built;
  /** It is no statement, but a part up to one of its steps, counted from 0. */
  readonly upTo?: { readonly part: ItemId; readonly step: number };
}

type Wanted = Pick<Statement, 'verb' | 'typed' | 'editId'>;

/** Statements that change the form of solids; where parts would stand, and what lines would be drawn, is shown without the kernel. */
export function hasBuiltPreview(verb: string): boolean {
  const { group, isBuiltFirst } = verbNamed(verb) ?? {};
  return (
    isBuiltFirst === true ||
    group === 'shape' ||
    group === 'cut' ||
    group === 'combine' ||
    (group === 'draw' && !doesDraw(verb))
  );
}

/** After one that took longer than this (ms), the statement shows no more: carrying it out would have to wait for them. */
const LONGEST_MS = 10_000;
/** What nobody waits for any more is ended after this long (ms): to begin a new kernel takes as long. */
const DROP_AFTER_MS = 5000;
/** After one that took longer than this (ms) the kernel is left to others for as long again. */
const QUICK_MS = 100;

/** Builds one preview at a time; of what is asked meanwhile only the last is built. */
export class BuiltPreviews {
  private wanted: Wanted | null = null;
  /** What is being built. */
  private running: Wanted | null = null;
  /** What was built last, and of which document. */
  private last: (Wanted & { readonly document: KadrelDocument }) | null = null;
  /** The statement that was too slow, or was cancelled. */
  private givenUp: string | undefined;
  /** When the next may be begun (ms). */
  private notBefore = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly core: SessionCore,
    private readonly commits: Committing,
  ) {
    core.store.subscribe((now, before) => {
      if (now.statement !== before.statement || now.document !== before.document) this.follow();
      else if (now.kernel !== before.kernel && now.kernel.at === 'idle') this.begin();
    });
  }

  get isBusy(): boolean {
    return this.running !== null;
  }

  /** Shows the statement in hand again, after something else was tried. */
  follow(): void {
    const { statement } = this.core.get();
    // What is being carried out stays in sight until it is done.
    if (statement?.phase === 'working') return;
    const isShown = statement && !statement.refusal && (statement.phase === 'open' || isChanged(statement));
    this.show(isShown ? statement : null);
  }

  /** Shows what a statement would come to, as soon as the kernel is free. */
  show(statement: Wanted | null): void {
    const wanted = statement && this.isWorthwhile(statement) ? statement : null;
    if (wanted && this.isBuiltLast(wanted)) return;
    this.wanted = wanted;
    this.last = null;
    this.dropSoon(wanted);
    if (wanted) this.begin();
    else this.keep(null);
  }

  /** A preview that nobody waits for any more does not keep the kernel for long. */
  private dropSoon(wanted: Wanted | null): void {
    const { running } = this;
    if (!running || running.typed === wanted?.typed) return;
    setTimeout(() => {
      const isMeant = this.core.get().statement?.typed === running.typed;
      if (this.running === running && !isMeant) this.core.host.dropPassing();
    }, DROP_AFTER_MS);
  }

  /** Shows a part as it is after one of its steps, until a statement is begun or the document changes; null for as it is. */
  async lookUpTo(upTo: BuiltPreview['upTo'] | null): Promise<void> {
    const { document } = this.core.get();
    if (!upTo) return this.keep(null);
    const shown = withStepsUpTo(document, upTo.part, upTo.step);
    try {
      const built = await this.core.host.evaluate(shown, { isPassing: true });
      const { document: now, statement } = this.core.get();
      if (now === document && statement?.phase !== 'working') this.keep({ document: shown, built, upTo });
    } catch (error) {
      // Cancelled, or something newer is built: then that is shown.
      if ((error as { code?: string }).code === undefined) throw error;
    }
  }

  private isWorthwhile(wanted: Wanted): boolean {
    return (
      hasBuiltPreview(wanted.verb) &&
      emptyBlank(wanted) === null &&
      this.core.get().lookingAt === null &&
      subjectOf(wanted) !== this.givenUp
    );
  }

  /** A field that gets the focus makes another statement of the same words. */
  private isBuiltLast({ verb, typed }: Wanted): boolean {
    const { last } = this;
    return last?.verb === verb && last.typed === typed && last.document === this.core.get().document;
  }

  private begin(): void {
    clearTimeout(this.timer);
    const pause = this.notBefore - performance.now();
    if (pause > 0) this.timer = setTimeout(() => this.begin(), pause);
    else void this.work();
  }

  private async work(): Promise<void> {
    const wanted = this.wanted;
    if (!wanted || this.running || !this.core.host.isIdle) return;
    this.wanted = null;
    // It may have been given up while it waited.
    if (!this.isWorthwhile(wanted)) return;
    this.running = wanted;
    this.last = { ...wanted, document: this.core.get().document };
    const start = performance.now();
    try {
      const found = await this.built(wanted);
      if (this.isStillMeant(wanted)) this.keep(found);
    } finally {
      this.running = null;
      this.rest(wanted, performance.now() - start);
    }
  }

  /** What took long is not built again at every move of the pointer. */
  private rest(wanted: Wanted, tookMs: number): void {
    if (tookMs > LONGEST_MS) this.givenUp = subjectOf(wanted);
    this.notBefore = tookMs > QUICK_MS ? performance.now() + Math.min(tookMs, LONGEST_MS) : 0;
    this.begin();
  }

  /** While the pointer goes on, what it passed is shown until the next is built. */
  private isStillMeant(wanted: Wanted): boolean {
    const { statement } = this.core.get();
    const next = this.wanted ?? this.last;
    return (
      statement !== null &&
      (statement.phase !== 'done' || isChanged(statement)) &&
      next !== null &&
      subjectOf(next) === subjectOf(wanted)
    );
  }

  private keep(builtPreview: BuiltPreview | null): void {
    if (this.core.get().builtPreview !== builtPreview) this.core.set({ builtPreview });
  }

  private async built(wanted: Wanted): Promise<BuiltPreview | null> {
    const before = this.commits.begins(wanted);
    try {
      const done = await performAsking(this.core.worlds, wanted, before);
      if (isRefusal(done)) return null;
      const { document } = done;
      const built = await this.core.host.evaluate(document, { isPassing: true });
      const { document: now, built: standing } = this.core.get();
      const trying = { now, known: standing.failures, before, after: document };
      return newFailure(built.failures, trying) ? null : { document, built };
    } catch (error) {
      const { code } = error as { code?: string };
      if (code === undefined) throw error;
      if (code !== 'superseded') this.givenUp = subjectOf(wanted);
      return null;
    }
  }
}

/** A statement whose numbers change is still about the same parts. */
const subjectOf = ({ verb, typed, editId }: Wanted): string =>
  JSON.stringify([verb, editId, typed.part, typed.parts, typed.from]);
