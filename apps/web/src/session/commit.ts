/** Carrying statements out, adjusting them, and taking them back. What is refused leaves the model as it was. */
import {
  applyEdit,
  blankToBlame,
  editOf,
  isRefusal,
  refuse,
  stepBack,
  undoStacks,
  verbNamed,
  type Edit,
  type ItemId,
  type KadrelDocument,
  type Performed,
  type Refusal,
} from '@kadrel/core';
import { performAsking } from './asking.ts';
import { newFailure, type Built } from './built.ts';
import type { SessionCore } from './core.ts';
import { withoutGone } from './filling.ts';
import { isEndOfCopies, openOne, type Statement, type Typed } from './statement.ts';

/** A statement that is tried: what it leads to, and the edits that lead there. */
interface Tried {
  readonly done: Performed;
  readonly built: Built;
}

/** Carries the statement in hand out; one for each session. */
export class Committing {
  /** The statement that was refused last since it would change nothing. */
  private doubted: string | undefined;
  /** What was selected before and after each statement of this visit. */
  private readonly selections = new Map<string, { before: readonly ItemId[]; after: readonly ItemId[] }>();

  /** The document before the statement in hand: the same each time, since the kernel's replies are about the one that was asked about. */
  private back: { edits: readonly Edit[]; from: KadrelDocument; to: KadrelDocument } | undefined;

  constructor(private readonly core: SessionCore) {}

  /** Undo of the statement in hand, where it is the last one: what an adjustment starts from. */
  private withdrawn(editId: string): { document: KadrelDocument; edit: Edit } | undefined {
    const { edits, document, author } = this.core.get();
    if (undoStacks(edits).undo.at(-1) !== editId) return undefined;
    const edit = stepBack(edits, 'undo', { id: crypto.randomUUID(), time: Date.now(), author });
    if (!edit) return undefined;
    if (this.back?.edits !== edits || this.back.from !== document)
      this.back = { edits, from: document, to: applyEdit(document, edit) };
    return { document: this.back.to, edit };
  }

  /** The document that a statement begins with: of one that is adjusted, the one before it. */
  begins({ editId }: Pick<Statement, 'editId'>): KadrelDocument {
    return (editId === null ? undefined : this.withdrawn(editId)?.document) ?? this.core.get().document;
  }

  /** Builds the document that a statement would lead to. Returns its solids, or why it cannot be, naming the part. */
  private async trial(
    candidate: KadrelDocument,
    { blank, before }: { readonly blank: string; readonly before: KadrelDocument },
  ): Promise<Built | Refusal> {
    const { document: now, built: standing } = this.core.get();
    try {
      const built = await this.core.host.evaluate(candidate);
      const trying = { now, known: standing.failures, before, after: candidate };
      const failure = newFailure(built.failures, trying);
      if (!failure) return built;
      const { part, reason, remedy, places } = failure;
      const name = candidate.items[part]?.name ?? '';
      return { ...refuse('not-built.whose', { name, reason, remedy }, blank), places };
    } catch (error) {
      return this.kernelRefusal(error, blank, candidate);
    }
  }

  /** What the kernel's host rejected with, as a refusal; our own mistakes pass through. */
  private kernelRefusal(error: unknown, blank: string, document: KadrelDocument): Refusal {
    const { code, part } = error as { code?: string; part?: ItemId };
    const what = error instanceof Error ? error.message : String(error);
    if (code === undefined) throw error;
    void this.core.rebuild();
    if (code === 'cancelled') return refuse('kernel.cancelled', {}, blank);
    const name = part === undefined ? undefined : document.items[part]?.name;
    return name === undefined
      ? refuse('kernel.failed', { what }, blank)
      : refuse('kernel.failed-at', { what, name }, blank);
  }

  /** A statement that would change nothing is carried out only if it is said again, just as it was. */
  private effectDoubt(built: Built, { verb, typed }: Statement, blank: string): Refusal | undefined {
    const known = new Set(this.core.get().built.notices.map(({ part, words }) => `${part} ${words}`));
    const idle = built.notices.find(
      ({ part, what, words }) => what === 'without effect' && !known.has(`${part} ${words}`),
    );
    const said = JSON.stringify([verb, typed]);
    if (!idle || said === this.doubted) return undefined;
    this.doubted = said;
    return refuse('no-effect', { words: idle.words }, blank);
  }

  /** Carries it out on a copy, which the kernel must be able to build. */
  private async tried(statement: Statement, before: KadrelDocument): Promise<Tried | Refusal> {
    const blank = blankToBlame(verbNamed(statement.verb)!);
    const done = await performAsking(this.core.worlds, statement, before).catch((error: unknown) =>
      this.kernelRefusal(error, blank, this.core.get().document),
    );
    if (isRefusal(done)) return done;
    const built = await this.trial(done.document, { blank, before });
    if (isRefusal(built)) return built;
    const lost = this.stepsLost(built, done.document);
    const noted = lost.length === 0 ? done : { ...done, notes: [...done.notes, ...lost] };
    return this.effectDoubt(built, statement, blank) ?? { done: noted, built };
  }

  /** Steps that could be done before, in words. The part is shown without them until they can be done again. */
  private stepsLost({ failures }: Built, document: KadrelDocument): string[] {
    const known = new Set(this.core.get().built.failures.map(({ part, step }) => `${part} ${step}`));
    return failures
      .filter(({ part, step }) => step !== null && !known.has(`${part} ${step}`))
      .map(
        ({ part, step, reason, remedy }) =>
          `${document.items[part]?.name}: step ${step! + 1} can no longer be done. ${reason} ${remedy}`,
      );
  }

  private refuse(refusal: Refusal, phase: Statement['phase']): void {
    const { statement } = this.core.get();
    if (statement) this.core.set({ statement: { ...statement, phase, refusal } });
  }

  /** Carries the statement in hand out: first on a copy, and then for good. Resolves to whether it was. */
  async commit(): Promise<boolean> {
    const { statement, document } = this.core.get();
    if (!statement || statement.phase === 'working') return false;
    if (isEndOfCopies(statement)) {
      this.core.set({ statement: null });
      return true;
    }
    const back = statement.editId === null ? undefined : this.withdrawn(statement.editId);
    if (statement.editId !== null && !back) {
      this.refuse(refuse('too-late', {}), 'done');
      return false;
    }
    const before = back?.document ?? document;
    this.core.set({ statement: { ...statement, phase: 'working', refusal: null, waits: null } });
    const found = await this.tried(statement, before);
    if (isRefusal(found)) {
      this.refuse(found, statement.editId === null ? 'open' : 'done');
      return false;
    }
    if (this.core.get().document !== document) {
      // Another page's edits came in meanwhile: the statement is carried out on what there is now.
      this.core.set({ statement });
      return this.commit();
    }
    this.keep(statement, found, { before, back: back?.edit });
    return true;
  }

  /** Puts a statement that was tried into force. */
  private keep(
    statement: Statement,
    { done, built }: Tried,
    { before, back }: { before: KadrelDocument; back: Edit | undefined },
  ): void {
    const { verb, typed } = statement;
    const edit = editOf(done, {
      id: crypto.randomUUID(),
      verb,
      values: jsonOf(typed),
      author: this.core.get().author,
      time: Date.now(),
    });
    const selection = done.outcome.select ?? this.core.get().selection;
    this.selections.set(edit.id, { before: this.core.get().selection, after: selection });
    const { statement: now, setAside } = this.core.get();
    this.core.adopt(done.document, back ? [back, edit] : [edit], {
      built,
      selection,
      ...(done.outcome.sheet === undefined ? {} : { openSheet: done.outcome.sheet, sheetEntry: null }),
      // What was left of the same verb is superseded; of another it is still there to be taken up.
      setAside: setAside?.verb === verb ? null : setAside,
      statement: now && { ...now, ...asDone(statement, done), editId: edit.id, before },
    });
  }

  /** Waits until no statement is at work, so that what is said quickly after another is not lost. */
  settled(): Promise<void> {
    const isSettled = () => this.core.get().statement?.phase !== 'working';
    if (isSettled()) return Promise.resolve();
    return new Promise((resolve) => {
      const unsubscribe = this.core.store.subscribe(() => {
        if (!isSettled()) return;
        unsubscribe();
        resolve();
      });
    });
  }

  /**
   * Carries a statement out in one go; it stays adjustable in the bar. One that is open there, with something typed into
   * it, is put back as it was: what is said from a panel is said between.
   */
  async say(statement: () => Statement): Promise<boolean> {
    await this.settled();
    const open = openOne(this.core.get().statement);
    this.core.set({ statement: statement(), lookingAt: null });
    const isDone = await this.commit();
    if (!open) return isDone;
    const { statement: said, document, setAside } = this.core.get();
    const { refusal = null } = said ?? {};
    this.core.set({
      statement: {
        ...open,
        typed: withoutGone(open.verb, open.typed, document),
        refusal: isDone ? null : refusal && { ...refusal, blank: undefined },
      },
      setAside: setAside === open ? null : setAside,
      announced: said?.phase === 'done' ? titleOf(this.core.get().edits) : this.core.get().announced,
    });
    return isDone;
  }

  /** Takes the last statement back, or brings it back. One that is open stays so. */
  takeBack(kind: 'undo' | 'redo'): void {
    const { edits, document, author, statement } = this.core.get();
    if (statement?.phase === 'working') return;
    const edit = stepBack(edits, kind, { id: crypto.randomUUID(), time: Date.now(), author });
    if (!edit) return;
    const next = applyEdit(document, edit);
    const open = openOne(statement);
    const was = edit.of === undefined ? undefined : this.selections.get(edit.of);
    this.core.adopt(next, [edit], {
      statement: open && { ...open, typed: withoutGone(open.verb, open.typed, next) },
      ...(was ? { selection: kind === 'undo' ? was.before : was.after } : {}),
      announced: `${kind === 'undo' ? 'Taken back' : 'Brought back'}: ${edit.line.title}`,
    });
  }
}

const jsonOf = (values: Typed) => JSON.parse(JSON.stringify(values)) as Record<string, unknown>;
const titleOf = (edits: readonly Edit[]) => edits.at(-1)?.line.title ?? '';

const asDone = ({ typed }: Statement, { outcome, notes }: Performed) => ({
  phase: 'done' as const,
  refusal: null,
  focus: null,
  sent: typed,
  typed,
  step: outcome.step ?? null,
  notes,
});
