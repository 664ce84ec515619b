/** The statement in hand: started, filled in, left, and taken up again. */
import {
  QuantityError,
  quantityReader,
  undoStacks,
  valueOf,
  verbNamed,
  type ItemId,
  type QuantityKind,
  type ViewState,
} from '@kadrel/core';
import type { Committing } from './commit.ts';
import type { SessionCore } from './core.ts';
import { filledFor, fromSelection, rememberedFrame, withoutGone } from './filling.ts';
import { gathersPoints } from './drawing.ts';
import { isFramed, keepFrames } from './frames.ts';
import { measureOf } from './measure.ts';
import { chosenRegions, isSameRegion, type ChosenRegion } from './regions.ts';
import {
  exactMm,
  firstOpen,
  goneOn,
  isTouched,
  nextEntry,
  startStatement,
  waitsFor,
  withChoice,
  withPart,
  withText,
  type Entry,
  type Statement,
  type Typed,
} from './statement.ts';

/** The blank that clicks add points to. */
function gatheringEntry(statement: Statement): Entry | null {
  const { blanks } = verbNamed(statement.verb)!;
  const found = Object.keys(blanks).find((id) => gathersPoints(statement, id));
  return found === undefined ? null : { blank: found, axis: null };
}

export function editing(
  core: SessionCore,
  { sayStatement }: Committing,
  activeView: () => ViewState | undefined,
) {
  const { get, set } = core;

  const begun = (verbId: string, given: Typed): Statement => {
    const verb = verbNamed(verbId)!;
    return startStatement(verb, { ...filledFor(verbId, get(), activeView()), ...given });
  };
  /** What was typed into the statement in hand is there to be taken up again. */
  const setAside = () => {
    const { statement, setAside: former } = get();
    return statement?.phase === 'open' && isTouched(statement) ? statement : former;
  };
  const update = (change: (statement: Statement) => Statement): void => {
    const { statement } = get();
    if (statement && statement.phase !== 'working') set({ statement: { ...change(statement), waits: null } });
  };
  const setTyped = (typed: Typed) =>
    update((s) => ({ ...s, typed: { ...s.typed, ...typed }, refusal: null }));
  /** Set distance shows what is there, for typing over it. */
  const withMeasure = (statement: Statement): Statement => {
    if (statement.verb !== 'distance' || statement.held.has('distance')) return statement;
    const { document } = get();
    const found = measureOf(statement, document, core.worlds.of(document));
    return found
      ? { ...statement, typed: { ...statement.typed, distance: exactMm(found.distance) } }
      : statement;
  };

  function start(verbId: string, given: Typed = {}): void {
    if (get().statement?.phase === 'working') return;
    const statement = begun(verbId, given);
    // A face that was chosen is what is drawn on from now on, and every view says so.
    const isDrawnOn = statement.typed.on !== undefined && given.on === undefined && get().face !== null;
    if (isDrawnOn && verbId !== 'plane') set({ plane: statement.typed.on });
    set({ setAside: setAside(), statement, lookingAt: null });
  }

  const say = (verbId: string, typed: Typed) => sayStatement(() => begun(verbId, typed));

  return {
    start,
    say,
    update,
    withMeasure,
    type: (entry: Entry, text: string) => update((statement) => withText(statement, entry, text)),
    setBlank: (blank: string, value: unknown) =>
      update((s) => {
        const held = new Set([...s.held, blank]);
        const typed = { ...s.typed, [blank]: value };
        const chosen = withChoice({ ...s, typed, held, refusal: null }, blank);
        return blank === 'along' ? withMeasure(chosen) : chosen;
      }),
    /** Sets a frame, and remembers it for the verb. `view` is the view that one works in. */
    setFrame(frame: unknown): void {
      const { statement, frames, projectId } = get();
      if (!statement || !isFramed(statement.verb)) return;
      const kept = { ...frames, [statement.verb]: frame };
      keepFrames(localStorage, projectId, kept);
      set({ frames: kept });
      const typed = rememberedFrame(statement.verb, get(), activeView());
      update((s) => ({ ...s, typed: { ...s.typed, ...typed }, picking: null, refusal: null }));
    },
    /** Sets the plane that is drawn on: of the statement in hand, and of those that follow. */
    setPlane(plane: unknown, blank = 'on'): void {
      if (get().statement?.verb !== 'plane') set({ plane });
      setTyped({ [blank]: plane });
      // What is drawn on it comes next.
      update((s) => (s.verb === 'plane' ? s : { ...s, focus: gatheringEntry(s) ?? firstOpen(s) }));
    },
    /** Chooses a region for a blank, or lets go of it. */
    toggleRegion(blank: string, region: ChosenRegion): void {
      const chosen = chosenRegions(get().statement?.typed[blank]);
      const without = chosen.filter((one) => !isSameRegion(one, region));
      const next =
        without.length < chosen.length ? without : [...chosen, { at: region.at, curves: region.curves }];
      setTyped({ [blank]: next.length > 0 ? next : 'all' });
    },
    focus: (entry: Entry | null) =>
      update((statement) => ({ ...statement, focus: entry, isFocusGiven: false })),
    /** Puts a part into a blank for parts, or takes it out again. */
    choose: (blank: string, part: ItemId, how: 'toggle' | 'add' = 'toggle') =>
      update((statement) => withPart(statement, { blank, part, how })),
    walk: (step: 1 | -1) =>
      update((statement) => ({ ...statement, focus: nextEntry(statement, step), isFocusGiven: false })),
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
    /** Takes up what was typed into the statement that was left last; one that is in hand is set aside for it. */
    takeUp(): void {
      const { setAside: former, statement, document } = get();
      if (!former || statement?.phase === 'working') return;
      const typed = withoutGone(former.verb, former.typed, document);
      const next = statement && statement.phase === 'open' && isTouched(statement) ? statement : null;
      set({ statement: { ...former, typed, refusal: null }, setAside: next, lookingAt: null });
    },
    /** The last statement once more, on what is selected now; one that names no parts is opened with its numbers. */
    again(): void {
      const { edits, selection, statement } = get();
      const id = undoStacks(edits).undo.at(-1);
      const line = edits.find((edit) => edit.id === id)?.line;
      const verb = line && verbNamed(line.verb);
      if (!verb || statement?.phase === 'working') return;
      const { as: _, ...values } = line.values;
      const given = { ...values, ...fromSelection(get(), verb.id) };
      if (!verb.blanks.parts) start(verb.id, given);
      else if (selection.length > 0) void say(verb.id, given);
      else start(verb.id, { ...values, parts: [] });
    },
    /** Makes the copy that a statement left behind the second member of a pattern, whose count is typed next. */
    goOn(how: 'every' | 'across'): void {
      const { statement } = get();
      const pattern = statement?.phase === 'done' ? goneOn(statement, how) : null;
      if (pattern) set({ statement: pattern });
    },
    /** Opens the last statement's blanks again. */
    revise(): void {
      const { edits, statement } = get();
      const id = undoStacks(edits).undo.at(-1);
      const edit = edits.find((candidate) => candidate.id === id);
      const verb = edit && verbNamed(edit.line.verb);
      if (!edit || !verb || statement?.phase === 'working') return;
      const opened = startStatement(verb, edit.line.values);
      set({
        statement: { ...opened, phase: 'done', editId: edit.id, sent: opened.typed },
        setAside: setAside(),
        lookingAt: null,
      });
    },
    /** A text of the number language as a length in mm; undefined while it says none. */
    readLength(text: string): number | undefined {
      try {
        return valueOf(quantityReader(get().document)(text, 'length'));
      } catch (error) {
        if (error instanceof QuantityError) return undefined;
        throw error;
      }
    },
    /** Why a text is no quantity of this kind, or undefined. `now` is the present value, in mm or degrees. */
    quantityFault(text: string, kind: QuantityKind, now?: number): string | undefined {
      try {
        quantityReader(get().document)(text, kind, now);
        return undefined;
      } catch (error) {
        if (error instanceof QuantityError) return error.message;
        throw error;
      }
    },
  };
}
