/** Statements begun, left, and taken up again. */
import { undoStacks, verbNamed, type Edit, type ViewState } from '@kadrel/core';
import type { Committing } from './commit.ts';
import type { SessionCore } from './core.ts';
import { drawsOn } from './drawing.ts';
import { filledFor, fromSelection, withoutGone } from './filling.ts';
import { goneOn, openOne, startStatement, type Statement, type Typed } from './statement.ts';
import { waitsFor } from './waiting.ts';

/** The last statement in force. */
function lastIn(edits: readonly Edit[]): Edit | undefined {
  const id = undoStacks(edits).undo.at(-1);
  return edits.find((edit) => edit.id === id);
}

/** How statements begin. */
export function starting(core: SessionCore, commits: Committing, activeView: () => ViewState | undefined) {
  const { get, set } = core;

  const begun = (verbId: string, given: Typed): Statement => {
    const verb = verbNamed(verbId)!;
    return startStatement(verb, { ...filledFor(verbId, get(), activeView()), ...given });
  };
  /** What was typed into the statement in hand is there to be taken up again. */
  const setAside = () => openOne(get().statement) ?? get().setAside;

  function start(verbId: string, given: Typed = {}): void {
    if (get().statement?.phase === 'working') return;
    const statement = begun(verbId, given);
    // A face that was chosen is what is drawn on from now on, and every view says so.
    const isDrawnOn = statement.typed.on !== undefined && given.on === undefined && get().places !== null;
    if (isDrawnOn && drawsOn(verbId)) set({ plane: statement.typed.on });
    set({ setAside: setAside(), statement, lookingAt: null });
  }

  const say = (verbId: string, typed: Typed) => commits.say(() => begun(verbId, typed));

  return {
    start,
    say,
    /** A click found nothing to fill: the bar says what the statement waits for. */
    sayWaiting(): void {
      const { statement } = get();
      if (statement && statement.phase !== 'working')
        set({ statement: { ...statement, waits: waitsFor(statement) } });
    },
    /** Leaves the statement; what was committed stays, what was not leaves no trace in the model. */
    leave(): void {
      if (get().statement?.phase === 'working') core.host.cancel();
      else set({ statement: null, setAside: setAside() });
    },
    /** Makes the copy that a statement left behind the second member of a pattern, whose count is typed next. */
    goOn(how: 'every' | 'across'): void {
      const { statement } = get();
      const pattern = statement?.phase === 'done' ? goneOn(statement, how) : null;
      if (pattern) set({ statement: pattern });
    },
    ...resuming(core, { start, say, setAside }),
  };
}

interface Beginning {
  readonly start: (verbId: string, given?: Typed) => void;
  readonly say: (verbId: string, typed: Typed) => Promise<unknown>;
  /** What was typed into the statement in hand, to be taken up again. */
  readonly setAside: () => Statement | null;
}

/** How statements are taken up again, repeated and revised. */
function resuming({ get, set }: SessionCore, { start, say, setAside }: Beginning) {
  return {
    /** Takes up what was typed into the statement that was left last; one that is in hand is set aside for it. */
    takeUp(): void {
      const { setAside: former, statement, document } = get();
      if (!former || statement?.phase === 'working') return;
      const typed = withoutGone(former.verb, former.typed, document);
      set({
        statement: { ...former, typed, refusal: null },
        setAside: openOne(statement),
        lookingAt: null,
      });
    },
    /** The last statement once more, on what is selected now; one that names no parts is opened with its numbers. */
    again(): void {
      const { edits, selection, statement } = get();
      const line = lastIn(edits)?.line;
      const verb = line && verbNamed(line.verb);
      if (!verb || statement?.phase === 'working') return;
      const { as: _, ...values } = line.values;
      const given = { ...values, ...fromSelection(get(), verb.id) };
      if (!verb.blanks.parts) start(verb.id, given);
      else if (selection.length > 0) void say(verb.id, given);
      else start(verb.id, { ...values, parts: [] });
    },
    /** Opens the last statement's blanks again. */
    revise(): void {
      const { edits, statement } = get();
      const edit = lastIn(edits);
      const verb = edit && verbNamed(edit.line.verb);
      if (!edit || !verb || statement?.phase === 'working') return;
      const opened = startStatement(verb, edit.line.values);
      set({
        statement: { ...opened, phase: 'done', editId: edit.id, sent: opened.typed },
        setAside: setAside(),
        lookingAt: null,
      });
    },
  };
}
