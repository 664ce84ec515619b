/** Carrying statements out, adjusting them, and taking them back. What is refused leaves the model as it was. */
import {
  applyEdit,
  blankToBlame,
  editOf,
  isRefusal,
  perform,
  refuse,
  stepBack,
  undoStacks,
  verbNamed,
  type Edit,
  type ItemId,
  type KadrelDocument,
  type Performed,
  type Refusal,
  type Verb,
} from '@kadrel/core';
import type { Built } from './built.ts';
import type { SessionCore } from './core.ts';
import { withoutGone } from './filling.ts';
import { isEndOfCopies, isTouched, type Statement, type Typed } from './statement.ts';

/** A statement that is tried: what it leads to, and the edits that lead there. */
interface Tried {
  readonly done: Performed;
  readonly built: Built;
}

export type Committing = ReturnType<typeof committing>;

export function committing(core: SessionCore) {
  const { get, set, store, host, worlds } = core;
  /** The statement that was refused last since it would change nothing. */
  let doubted: string | undefined;
  /** What was selected before and after each statement of this visit. */
  const selections = new Map<string, { before: readonly ItemId[]; after: readonly ItemId[] }>();

  /** Undo of the statement in hand, where it is the last one: what an adjustment starts from. */
  function withdrawn(editId: string): { document: KadrelDocument; edit: Edit } | undefined {
    const { edits, document, author } = get();
    if (undoStacks(edits).undo.at(-1) !== editId) return undefined;
    const edit = stepBack(edits, 'undo', { id: crypto.randomUUID(), time: Date.now(), author });
    return edit && { document: applyEdit(document, edit), edit };
  }

  /** The document that a statement begins with: of one that is adjusted, the one before it. */
  const begins = ({ editId }: Pick<Statement, 'editId'>): KadrelDocument =>
    (editId === null ? undefined : withdrawn(editId)?.document) ?? get().document;

  /** Performs on `before`; what the kernel must be asked first is asked. */
  async function performAsking(
    verb: Verb,
    typed: Typed,
    before: KadrelDocument,
  ): Promise<Performed | Refusal> {
    for (;;) {
      const done = perform(verb, typed, before, worlds.of(before));
      if (!isRefusal(done) || !done.wants) return done;
      try {
        await worlds.find(before, done.wants);
      } catch (error) {
        return kernelRefusal(error, blankToBlame(verb), get().document);
      }
    }
  }

  /** Builds the document that a statement would lead to. Returns its solids, or why it cannot be, naming the part. */
  async function trial(candidate: KadrelDocument, blank: string): Promise<Built | Refusal> {
    const failing = new Set(get().built.failures.map((failure) => failure.part));
    try {
      const built = await host.evaluate(candidate);
      const failure = built.failures.find(({ part }) => !failing.has(part));
      if (!failure) return built;
      const { part, reason, remedy, places } = failure;
      const message = `${candidate.items[part]?.name}: ${reason} ${remedy}`;
      return { ...refuse('not-built', message, blank), places };
    } catch (error) {
      return kernelRefusal(error, blank, candidate);
    }
  }

  /** What the kernel's host rejected with, as a refusal; our own mistakes pass through. */
  function kernelRefusal(error: unknown, blank: string, document: KadrelDocument): Refusal {
    const { code, part } = error as { code?: string; part?: ItemId };
    const message = error instanceof Error ? error.message : String(error);
    if (code === undefined) throw error;
    void core.rebuild();
    const name = part === undefined ? '' : ` It was at work on ${document.items[part]?.name}.`;
    const words = code === 'cancelled' ? 'Cancelled.' : `${message}${name}`;
    return refuse(code, `${words} Nothing was changed.`, blank);
  }

  /** A statement that would change nothing is carried out only if it is said again, just as it was. */
  function effectDoubt(built: Built, { verb, typed }: Statement, blank: string): Refusal | undefined {
    const known = new Set(get().built.notices.map(({ part, words }) => `${part} ${words}`));
    const idle = built.notices.find(
      ({ part, what, words }) => what === 'without effect' && !known.has(`${part} ${words}`),
    );
    const said = JSON.stringify([verb, typed]);
    if (!idle || said === doubted) return undefined;
    doubted = said;
    return refuse('no-effect', `${idle.words} Enter again does it all the same.`, blank);
  }

  /** Carries it out on a copy, which the kernel must be able to build. */
  async function tried(statement: Statement, before: KadrelDocument): Promise<Tried | Refusal> {
    const verb = verbNamed(statement.verb)!;
    const done = await performAsking(verb, statement.typed, before);
    if (isRefusal(done)) return done;
    const built = await trial(done.document, blankToBlame(verb));
    if (isRefusal(built)) return built;
    return effectDoubt(built, statement, blankToBlame(verb)) ?? { done, built };
  }

  const refuseStatement = (refusal: Refusal, phase: Statement['phase']) => {
    const { statement } = get();
    if (statement) set({ statement: { ...statement, phase, refusal } });
  };

  /** Carries the statement in hand out: first on a copy, and then for good. Resolves to whether it was. */
  async function commit(): Promise<boolean> {
    const { statement, document } = get();
    if (!statement || statement.phase === 'working') return false;
    if (isEndOfCopies(statement)) {
      set({ statement: null });
      return true;
    }
    const back = statement.editId === null ? undefined : withdrawn(statement.editId);
    if (statement.editId !== null && !back) {
      refuseStatement(refuse('too-late', 'This statement is no longer the last one. Start it anew.'), 'done');
      return false;
    }
    const before = back?.document ?? document;
    set({ statement: { ...statement, phase: 'working', refusal: null, waits: null } });
    const found = await tried(statement, before);
    if (isRefusal(found)) {
      refuseStatement(found, statement.editId === null ? 'open' : 'done');
      return false;
    }
    if (get().document !== document) {
      // Another page's edits came in meanwhile: the statement is carried out on what there is now.
      set({ statement });
      return commit();
    }
    keep(statement, found, { before, back: back?.edit });
    return true;
  }

  /** Puts a statement that was tried into force. */
  function keep(
    statement: Statement,
    { done, built }: Tried,
    { before, back }: { before: KadrelDocument; back: Edit | undefined },
  ): void {
    const { verb, typed } = statement;
    const edit = editOf(done, {
      id: crypto.randomUUID(),
      verb,
      values: jsonOf(typed),
      author: get().author,
      time: Date.now(),
    });
    const selection = done.outcome.select ?? get().selection;
    selections.set(edit.id, { before: get().selection, after: selection });
    const now = get().statement;
    core.adopt(done.document, back ? [back, edit] : [edit], {
      built,
      selection,
      setAside: null,
      statement: now && { ...now, ...asDone(statement, done), editId: edit.id, before },
    });
  }

  /** Waits until no statement is at work, so that what is said quickly after another is not lost. */
  function settled(): Promise<void> {
    const isSettled = () => get().statement?.phase !== 'working';
    if (isSettled()) return Promise.resolve();
    return new Promise((resolve) => {
      const unsubscribe = store.subscribe(() => {
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
  async function say(statement: () => Statement): Promise<boolean> {
    await settled();
    const open = openOne(get().statement);
    set({ statement: statement(), lookingAt: null });
    const isDone = await commit();
    if (!open) return isDone;
    const { statement: said, document, setAside } = get();
    const { refusal = null } = said ?? {};
    set({
      statement: {
        ...open,
        typed: withoutGone(open.verb, open.typed, document),
        refusal: isDone ? null : refusal && { ...refusal, blank: undefined },
      },
      setAside: setAside === open ? null : setAside,
      announced: said?.phase === 'done' ? titleOf(get().edits) : get().announced,
    });
    return isDone;
  }

  /** Takes the last statement back, or brings it back. One that is open stays so. */
  function takeBack(kind: 'undo' | 'redo'): void {
    const { edits, document, author, statement } = get();
    if (statement?.phase === 'working') return;
    const edit = stepBack(edits, kind, { id: crypto.randomUUID(), time: Date.now(), author });
    if (!edit) return;
    const next = applyEdit(document, edit);
    const open = openOne(statement);
    const was = edit.of === undefined ? undefined : selections.get(edit.of);
    core.adopt(next, [edit], {
      statement: open && { ...open, typed: withoutGone(open.verb, open.typed, next) },
      ...(was ? { selection: kind === 'undo' ? was.before : was.after } : {}),
      announced: `${kind === 'undo' ? 'Taken back' : 'Brought back'}: ${edit.line.title}`,
    });
  }

  return { begins, commit, settled, sayStatement: say, kernelRefusal, takeBack };
}

const jsonOf = (values: Typed) => JSON.parse(JSON.stringify(values)) as Record<string, unknown>;
const titleOf = (edits: readonly Edit[]) => edits.at(-1)?.line.title ?? '';

/** An open statement that is worth keeping. */
const openOne = (statement: Statement | null) =>
  statement?.phase === 'open' && isTouched(statement) ? statement : null;

const asDone = ({ typed }: Statement, { outcome, notes }: Performed) => ({
  phase: 'done' as const,
  refusal: null,
  focus: null,
  sent: typed,
  typed,
  step: outcome.step ?? null,
  notes,
});
