/** The state of one open project, and everything that can be done to it. Components read from here and call these; nothing else changes it. */
import {
  DOCUMENT_VERSION,
  applyEdit,
  blankToBlame,
  isRefusal,
  ledgerOf,
  partNamed,
  PLANES,
  perform,
  quantityReader,
  QuantityError,
  refuse,
  stepBack,
  undoStacks,
  valueOf,
  verbNamed,
  visibleParts,
  type Edit,
  type FaceFacts,
  type ItemId,
  type KadrelDocument,
  type Performed,
  type Pose,
  type Question,
  type QuantityKind,
  type Refusal,
  type SnapKind,
  type Verb,
  type ViewState,
} from '@kadrel/core';
import { KernelHost, type Exporter, type HostState } from '@kadrel/kernel';
import { spawnWorker } from '@kadrel/kernel/browser';
import { createStore } from 'zustand/vanilla';
import type { SaveReport } from './saveQueue.ts';
import { openSaving, rebased } from './saving.ts';
import type { Left, Shelf } from './shelf.ts';
import { resume } from './resume.ts';
import type { Built } from './built.ts';
import { frameOfView, isFramed, keepFrames, readFrames, type Frames } from './frames.ts';
import { FIRST_MANNER, FIRST_SNAPS, type Manner } from './manner.ts';
import { measureOf } from './measure.ts';
import { nudging } from './nudging.ts';
import { drawingPlane } from './drawing.ts';
import { faceInto, type ChosenFace } from './faces.ts';
import { previewOf, type Preview } from './preview.ts';
import { chosenRegions, isSameRegion, type ChosenRegion } from './regions.ts';
import { sketchOf, type Sketch } from './sketch.ts';
import {
  exactMm,
  goneOn,
  isEndOfCopies,
  nextEntry,
  startStatement,
  withChoice,
  withText,
  type Entry,
  type Statement,
  type Typed,
} from './statement.ts';
import { insideActions, keptPlaces } from './inside.ts';
import { selectingActions } from './selecting.ts';
import { Worlds } from './world.ts';

export interface SessionState {
  readonly projectId: string;
  readonly name: string;
  readonly author: string;
  readonly document: KadrelDocument;
  readonly edits: readonly Edit[];
  readonly selection: readonly ItemId[];
  /** Faces of the one selected part. */
  readonly face: ChosenFace | null;
  /** The group that one works in; what is outside is dimmed. */
  readonly openGroup: ItemId | null;
  /** The member of a pattern that was clicked last, while the pattern is selected. */
  readonly member: { readonly part: ItemId; readonly label: string } | null;
  /** Clicks leave members of this pattern out, and put them back. */
  readonly omitting: ItemId | null;
  readonly built: Built;
  readonly kernel: HostState;
  readonly save: SaveReport;
  readonly statement: Statement | null;
  /** Looking at the model as it was after this many statements of the ledger; null for now. */
  readonly lookingAt: number | null;
  readonly snapKinds: ReadonlySet<SnapKind>;
  readonly seeThrough: boolean;
  readonly manner: Manner;
  /** The one kind that the next pick catches. */
  readonly forced: SnapKind | null;
  /** What was selected before. */
  readonly lastSelection: readonly ItemId[];
  /** Frames of Move, Turn and Resize. */
  readonly frames: Frames;
  /** Nothing can be dragged: the pointer only selects and looks. */
  readonly isSelectOnly: boolean;
  /** The plane that is drawn on, as it is typed; nothing but the one who draws changes it. */
  readonly plane: unknown;
  readonly arePinsShown: boolean;
  /** Drags go to points of the grid, or by whole steps from where they began. */
  readonly stepsFrom: 'grid' | 'start';
  /** Size of the grips on screen; 1 is the usual one. */
  readonly gripScale: number;
}

const NOTHING_BUILT: Built = { parts: {}, wholes: {}, failures: [], notices: [], factsOf: () => undefined };
/** A statement longer at work than this shows its progress. */
export const PATIENT_MS = 300;

export interface OpenedSession {
  readonly projectId: string;
  readonly name: string;
  readonly author: string;
  readonly document: KadrelDocument;
  readonly revision: number;
  readonly edits: readonly Edit[];
  readonly shelf: Shelf;
  /** What former visits left unsaved. */
  readonly left: Left | undefined;
}
export type Session = ReturnType<typeof openSession>;

export function openSession(opened: OpenedSession) {
  const resumed = resume(opened);
  const start = resumed.document;

  const store = createStore<SessionState>(() => ({
    projectId: opened.projectId,
    name: opened.name,
    author: opened.author,
    document: start,
    edits: [...opened.edits, ...resumed.edits],
    selection: [],
    face: null,
    openGroup: null,
    member: null,
    omitting: null,
    built: NOTHING_BUILT,
    kernel: { at: 'starting' },
    save: { state: 'saved', revision: opened.revision, aside: [], isKept: true },
    statement: null,
    lookingAt: null,
    snapKinds: new Set(FIRST_SNAPS),
    seeThrough: false,
    manner: FIRST_MANNER,
    forced: null,
    lastSelection: [],
    frames: readFrames(localStorage, opened.projectId),
    isSelectOnly: false,
    plane: 'plan',
    arePinsShown: true,
    stepsFrom: 'start',
    gripScale: 1,
  }));
  const { getState: get, setState: set } = store;
  const host = new KernelHost({
    spawn: spawnWorker,
    now: () => performance.now(),
    onState: (kernel) => set({ kernel }),
  });
  const saving = openSaving({
    ...opened,
    resumed,
    onState: (save) => set({ save }),
    onMissed(missed, ours) {
      if (missed.length === 0) return true;
      const shown = rebased(get(), missed, ours);
      if (!shown) return false;
      set(shown);
      void rebuild();
      return true;
    },
    later: (work, ms) => setTimeout(work, ms),
  });

  const worlds = new Worlds(
    (key) => get().built.factsOf(key),
    (document, question) => host.ask({ ask: 'answer', document, question }),
  );
  /** The view that one works in, as the stage tells it. */
  let lookAtView: () => ViewState | undefined = () => undefined;

  let plane: { statement: Statement | null; document: KadrelDocument; pose: Pose | undefined } = {
    statement: null,
    document: start,
    pose: undefined,
  };

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
        return kernelRefusal(error, blankToBlame(verb));
      }
    }
  }

  function newEdit(done: Performed, verb: string, values: Typed): Edit {
    const line = { verb, values: jsonOf(values), title: done.title, author: get().author, time: Date.now() };
    return {
      id: crypto.randomUUID(),
      kind: 'do',
      version: DOCUMENT_VERSION,
      patches: done.patches,
      inverses: done.inverses,
      line,
    };
  }

  /** Puts edits that are already applied into `document` into force, and on their way to the server. */
  function adopt(document: KadrelDocument, edits: readonly Edit[], more: Partial<SessionState> = {}): void {
    // A statement that was tried brings its solids along; everything else is built now.
    const { selection } = { ...get(), ...more };
    set({
      ...more,
      document,
      edits: [...get().edits, ...edits],
      selection: selection.filter((id) => document.items[id]),
      ...keptPlaces(get(), document),
      lookingAt: null,
    });
    saving.add(...edits);
    if (!more.built || hiddenSelected(get()).length > 0) void rebuild();
  }

  /** Builds what is shown. A failure of the kernel itself keeps the last good picture, and says which part. */
  async function rebuild(): Promise<void> {
    const document = shownDocument(get());
    try {
      const built = await host.evaluate(document, hiddenSelected(get()));
      set({ built });
    } catch (error) {
      const code = (error as { code?: string }).code;
      if (code === 'crashed' && get().kernel.at !== 'failed') void rebuild();
      else if (code === undefined) throw error;
    }
  }

  /** Undo of the statement in hand, where it is the last one: what an adjustment starts from. */
  function withdrawn(editId: string): { document: KadrelDocument; edit: Edit } | undefined {
    const { edits, document } = get();
    if (undoStacks(edits).undo.at(-1) !== editId) return undefined;
    const edit = stepBack(edits, 'undo', { id: crypto.randomUUID(), time: Date.now(), author: get().author });
    return edit && { document: applyEdit(document, edit), edit };
  }

  /** The document that a statement begins with: of one that is adjusted, the one before it. */
  /** The statement that was refused last since it would change nothing. */
  let doubted: string | undefined;

  const begins = ({ editId }: Pick<Statement, 'editId'>): KadrelDocument =>
    (editId === null ? undefined : withdrawn(editId)?.document) ?? get().document;

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

  const refuseStatement = (refusal: Refusal, phase: Statement['phase']) => {
    const { statement } = get();
    if (statement) set({ statement: { ...statement, phase, refusal } });
  };

  /** Carries the statement in hand out: first on a copy, which the kernel must be able to build, and then for good. */
  async function commit(): Promise<boolean> {
    const { statement, document } = get();
    if (!statement || statement.phase === 'working') return false;
    if (isEndOfCopies(statement)) {
      set({ statement: null });
      return true;
    }
    const verb = verbNamed(statement.verb)!;
    const back = statement.editId === null ? undefined : withdrawn(statement.editId);
    if (statement.editId !== null && !back) {
      refuseStatement(refuse('too-late', 'This statement is no longer the last one. Start it anew.'), 'done');
      return false;
    }
    const before = back?.document ?? document;
    const openPhase = statement.editId === null ? 'open' : 'done';
    set({ statement: { ...statement, phase: 'working', refusal: null } });
    const done = await performAsking(verb, statement.typed, before);
    if (isRefusal(done)) {
      refuseStatement(done, openPhase);
      return false;
    }
    const built = await trial(done.document, blankToBlame(verb));
    const doubt = isRefusal(built) ? undefined : effectDoubt(built, statement, blankToBlame(verb));
    if (isRefusal(built) || doubt) {
      refuseStatement(isRefusal(built) ? built : doubt!, openPhase);
      return false;
    }
    if (get().document !== document) {
      // Another page's edits came in meanwhile: the statement is carried out on what there is now.
      set({ statement });
      return commit();
    }
    const edit = newEdit(done, verb.id, statement.typed);
    const edits = back ? [back.edit, edit] : [edit];
    const now = get().statement;
    const selection = done.outcome.select ?? get().selection;
    adopt(done.document, edits, {
      built,
      selection,
      statement: now
        ? {
            ...now,
            phase: 'done',
            refusal: null,
            editId: edit.id,
            before,
            focus: null,
            sent: statement.typed,
            typed: statement.typed,
            step: done.outcome.step ?? null,
            notes: done.notes,
          }
        : null,
    });
    return true;
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

  /** Builds the document that a statement would lead to. Returns its solids, or why it cannot be, naming the part. */
  async function trial(candidate: KadrelDocument, blank: string): Promise<Built | Refusal> {
    const failing = new Set(get().built.failures.map((failure) => failure.part));
    try {
      const built = await host.evaluate(candidate);
      const failure = built.failures.find(({ part }) => !failing.has(part));
      if (!failure) return built;
      const { part, reason, remedy, places } = failure;
      return {
        ...refuse('not-built', `${candidate.items[part]?.name}: ${reason} ${remedy}`, blank),
        places,
      };
    } catch (error) {
      return kernelRefusal(error, blank, candidate);
    }
  }

  /** What the kernel's host rejected with, as a refusal; our own mistakes pass through. */
  function kernelRefusal(error: unknown, blank: string, document = get().document): Refusal {
    const { code, part } = error as { code?: string; part?: ItemId };
    const message = error instanceof Error ? error.message : String(error);
    if (code === undefined) throw error;
    void rebuild();
    const name = part === undefined ? '' : ` It was at work on ${document.items[part]?.name}.`;
    return refuse(
      code,
      code === 'cancelled' ? 'Cancelled. Nothing was changed.' : `${message}${name} Nothing was changed.`,
      blank,
    );
  }

  /** The frame that a verb was last used with. */
  function rememberedFrame(verbId: string): Typed {
    if (!isFramed(verbId)) return {};
    const kept = get().frames[verbId];
    const view = kept === 'view' ? lookAtView() : undefined;
    // A frame that was picked goes with the part that it was picked on.
    const on = (kept as { on?: string } | null)?.on;
    if (on !== undefined && !get().document.items[on]) return { in: 'world' };
    return { in: kept === 'view' ? (view ? frameOfView(view) : 'world') : kept };
  }

  /** The plane that was drawn on last, unless it is gone. */
  function rememberedPlane(): unknown {
    const { plane, document } = get();
    const on = typeof plane === 'string' ? plane : (plane as { on?: string } | null)?.on;
    const isThere = on === undefined || on in PLANES || partNamed(document, on) !== undefined;
    return isThere ? plane : 'plan';
  }

  function takeBack(kind: 'undo' | 'redo'): void {
    const { edits, document, author, statement } = get();
    if (statement?.phase === 'working') return;
    const edit = stepBack(edits, kind, { id: crypto.randomUUID(), time: Date.now(), author });
    if (edit) adopt(applyEdit(document, edit), [edit], { statement: null });
  }

  const actions = {
    start(verbId: string, given: Typed = {}): void {
      const { statement } = get();
      if (statement?.phase === 'working') return;
      const verb = verbNamed(verbId)!;
      const ofFace = faceInto(verbId, get());
      // A face that was chosen is what is drawn on from now on, and every view says so.
      if (ofFace.on !== undefined && verbId !== 'plane') set({ plane: ofFace.on });
      set({
        statement: startStatement(verb, {
          ...rememberedFrame(verbId),
          ...(verb.blanks.on?.type === 'plane' ? { on: rememberedPlane() } : {}),
          ...fromSelection(get(), verbId),
          ...ofFace,
          ...given,
        }),
        lookingAt: null,
      });
    },
    /** Starts and commits in one go; the statement stays adjustable in the bar. */
    async say(verbId: string, typed: Typed): Promise<boolean> {
      await settled();
      actions.start(verbId, typed);
      return commit();
    },
    update(change: (statement: Statement) => Statement): void {
      const { statement } = get();
      if (statement && statement.phase !== 'working') set({ statement: change(statement) });
    },
    type: (entry: Entry, text: string) => actions.update((statement) => withText(statement, entry, text)),
    setBlank: (blank: string, value: unknown) =>
      actions.update((s) => {
        const chosen = withChoice({ ...s, typed: { ...s.typed, [blank]: value }, refusal: null }, blank);
        return blank === 'along' ? actions.withMeasure(chosen) : chosen;
      }),
    /** Set distance shows what is there, for typing over it. */
    withMeasure(statement: Statement): Statement {
      if (statement.verb !== 'distance' || statement.held.has('distance')) return statement;
      const found = actions.measureOf(statement);
      return found
        ? { ...statement, typed: { ...statement.typed, distance: exactMm(found.distance) } }
        : statement;
    },
    /** Sets a frame, and remembers it for the verb. `view` is the view that one works in. */
    setFrame(frame: unknown): void {
      const { statement, frames } = get();
      if (!statement || !isFramed(statement.verb)) return;
      const kept = { ...frames, [statement.verb]: frame };
      keepFrames(localStorage, opened.projectId, kept);
      set({ frames: kept });
      actions.update((s) => ({
        ...s,
        typed: { ...s.typed, ...rememberedFrame(s.verb) },
        picking: null,
        refusal: null,
      }));
    },
    /** Where the stage tells which view one works in. */
    watchView(view: () => ViewState | undefined): void {
      lookAtView = view;
    },
    activeView: () => lookAtView(),
    /** What a statement would come to; a refusal may name what the kernel must be asked first. */
    preview(statement: Pick<Statement, 'verb' | 'typed' | 'editId'>): Preview | Refusal {
      const before = begins(statement);
      return previewOf(statement, before, worlds.of(before), get().document);
    },
    /** What a Draw statement would draw; undefined where it draws nothing. */
    sketch(statement: Pick<Statement, 'verb' | 'typed' | 'editId'>): Sketch | Refusal | undefined {
      const before = begins(statement);
      return sketchOf(statement, before, worlds.of(before));
    },
    /** The plane that the statement in hand draws on. */
    drawingPlane(): Pose | undefined {
      const { statement, document } = get();
      // Asked at every move of the pointer: told anew only when the statement or the document is another.
      if (plane.statement !== statement || plane.document !== document)
        plane = { statement, document, pose: drawingPlane(statement, document, worlds.of(document)) };
      return plane.pose;
    },
    /** Sets the plane that is drawn on: of the statement in hand, and of those that follow. */
    setPlane(plane: unknown, blank = 'on'): void {
      if (get().statement?.verb !== 'plane') set({ plane });
      actions.update((s) => ({ ...s, typed: { ...s.typed, [blank]: plane }, refusal: null }));
    },
    /** Chooses a region for a blank, or lets go of it. */
    toggleRegion(blank: string, region: ChosenRegion): void {
      actions.update((s) => {
        const chosen = chosenRegions(s.typed[blank]);
        const without = chosen.filter((one) => !isSameRegion(one, region));
        const next =
          without.length < chosen.length ? without : [...chosen, { at: region.at, curves: region.curves }];
        return { ...s, typed: { ...s.typed, [blank]: next.length > 0 ? next : 'all' }, refusal: null };
      });
    },
    /** Asks the kernel what a refusal wants; resolves when it can be tried again, to whether that is of use. */
    async find(question: Question, statement: Pick<Statement, 'editId'>): Promise<boolean> {
      try {
        await worlds.find(begins(statement), question);
        return true;
      } catch (error) {
        if ((error as { code?: string }).code === undefined) throw error;
        return false;
      }
    },
    world: () => worlds.of(get().document),
    /** The distance of what is picked for Set distance; null while it cannot be told. */
    measureOf(statement: Pick<Statement, 'typed'>) {
      const { document } = get();
      const found = measureOf(statement, document, worlds.of(document));
      return found && { ...found, scene: document.scene };
    },
    /** The last statement once more, on what is selected now; one that names no parts is opened with its numbers. */
    again(): void {
      const { edits, selection, statement } = get();
      const id = undoStacks(edits).undo.at(-1);
      const line = edits.find((edit) => edit.id === id)?.line;
      const verb = line && verbNamed(line.verb);
      if (!verb || statement?.phase === 'working') return;
      const { as: _, ...values } = line.values;
      if (!verb.blanks.parts) actions.start(verb.id, { ...values, ...fromSelection(get(), verb.id) });
      else if (selection.length > 0)
        void actions.say(verb.id, { ...values, ...fromSelection(get(), verb.id) });
      else actions.start(verb.id, { ...values, parts: [] });
    },
    focus: (entry: Entry | null) => actions.update((statement) => ({ ...statement, focus: entry })),
    /** Puts a part into a blank for parts, or takes it out again. */
    choose(blank: string, part: ItemId, how: 'toggle' | 'add' = 'toggle'): void {
      actions.update((statement) => {
        const blanks = verbNamed(statement.verb)!.blanks;
        if (blanks[blank]?.type === 'part') {
          const typed = { ...statement.typed, [blank]: part };
          // One part is enough here: the next click fills the next blank that wants one.
          const next = Object.keys(blanks).find(
            (id) => blanks[id]!.type === 'part' && !blanks[id]!.optional && typed[id] === undefined,
          );
          const focus = next === undefined ? statement.focus : { blank: next, axis: null };
          return { ...statement, typed, focus, refusal: null };
        }
        const present = (statement.typed[blank] as ItemId[] | undefined) ?? [];
        const without = present.filter((id) => id !== part);
        const parts = present.includes(part) && how === 'toggle' ? without : [...without, part];
        return { ...statement, typed: { ...statement.typed, [blank]: parts }, refusal: null };
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
    walk: (step: 1 | -1) =>
      actions.update((statement) => ({ ...statement, focus: nextEntry(statement, step) })),
    commit,
    /** Leaves the statement; what was committed stays, what was not leaves no trace. */
    leave(): void {
      if (get().statement?.phase === 'working') host.cancel();
      else set({ statement: null });
    },
    cancelWork: () => host.cancel(),
    undo: () => takeBack('undo'),
    redo: () => takeBack('redo'),
    select(selection: readonly ItemId[]): void {
      const before = get().selection;
      const isOther = before.length !== selection.length || before.some((id) => !selection.includes(id));
      const { member, omitting } = get();
      const [only] = selection.length === 1 ? selection : [];
      set({
        selection,
        face: null,
        member: member?.part === only ? member : null,
        omitting: omitting === only ? omitting : null,
        ...(isOther && before.length > 0 ? { lastSelection: before } : {}),
      });
      if (hiddenSelected(get()).length > 0) void rebuild();
    },
    /** Selects faces of one part; null leaves the part selected. */
    selectFace(face: ChosenFace | null): void {
      if (face) actions.select([face.part]);
      set({ face });
    },
    /** Sizes of the chosen faces, from the kernel. */
    faceFacts: async ({ part, names }: ChosenFace) =>
      (await host.ask({
        ask: 'answer',
        document: get().document,
        question: { ask: 'face', part, names },
      })) as FaceFacts,
    lookAt(count: number | null): void {
      set({ lookingAt: count, statement: null });
      void rebuild();
    },
    setManner: (change: Partial<Manner>) => set({ manner: { ...get().manner, ...change } }),
    set: (
      change: Partial<
        Pick<
          SessionState,
          | 'snapKinds'
          | 'seeThrough'
          | 'forced'
          | 'name'
          | 'isSelectOnly'
          | 'arePinsShown'
          | 'stepsFrom'
          | 'gripScale'
          | 'member'
          | 'omitting'
        >
      >,
    ) => set(change),
    /** Ends a conflict in favour of what the server has. */
    async takeTheirs(): Promise<void> {
      await saving.forget();
      window.location.reload();
    },
    /** Ends a conflict by saving exactly what is here, with its history, as a project of its own. */
    keepMine: (): Promise<string[]> => saving.keepMine(get().name),
    /** Gives up the statements that the server will not take, and shows what it has. */
    async leaveAside(): Promise<void> {
      await saving.dropAside();
      window.location.reload();
    },
    /** A file of parts. */
    written: (writing: Writing) => written(host, get().document, writing),
    measure: (part: ItemId) => host.ask({ ask: 'measure', document: get().document, part }),
    isIdle: () => host.isIdle,
    /** How many edits the server has not acknowledged. */
    unsaved: () => saving.unsaved().length,
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
      set({
        statement: withSent({ ...startStatement(verb, edit.line.values), phase: 'done', editId: edit.id }),
        lookingAt: null,
      });
    },
    close(): void {
      saving.stop();
      host.close();
    },
  };
  /** Moves the selection by a step; steps that follow one another are one statement. */
  const nudge = nudging({
    state: get,
    settled,
    say: (verb, typed) => actions.say(verb, typed),
    adjust(typed) {
      actions.update((s) => ({ ...s, typed }));
      return commit();
    },
  });
  void rebuild();
  const selecting = selectingActions(get, (parts) => actions.select(parts));
  const inside = insideActions({
    state: get,
    open: (openGroup) => set({ openGroup }),
    select: (parts) => actions.select(parts),
    say: (verb, typed) => actions.say(verb, typed),
  });
  return { store, ...actions, ...selecting, ...inside, nudge };
}

const withSent = (statement: Statement): Statement => ({ ...statement, sent: statement.typed });
const jsonOf = (values: Typed) => JSON.parse(JSON.stringify(values)) as Record<string, unknown>;

/** The document on screen: the present one, or that of an earlier line of the ledger. */
export function shownDocument({
  document,
  edits,
  lookingAt,
}: Pick<SessionState, 'document' | 'edits' | 'lookingAt'>): KadrelDocument {
  if (lookingAt === null) return document;
  return ledgerOf(edits)
    .slice(lookingAt)
    .reverse()
    .reduce<KadrelDocument>((d, edit) => applyEdit(d, { patches: edit.inverses }), document);
}

export interface Writing {
  readonly exporter: Exporter;
  readonly parts: readonly ItemId[];
  /** Of facets: greatest distance from the true surface. */
  readonly chordMm: number;
}

/** What holds no solids is written without the kernel. */
async function written(host: KernelHost, document: KadrelDocument, { exporter, parts, chordMm }: Writing) {
  if (exporter.holds !== 'solids') return exporter.write({ document, parts });
  const exporting = { document, parts, chordMm, time: new Date().toISOString().slice(0, 19) };
  return host.ask({ ask: 'export', format: exporter.format, exporting });
}

/** Selected parts that are not shown by themselves: operands and groups, whose facts the Spec wants. */
function hiddenSelected({ selection, document }: SessionState): ItemId[] {
  const visible = new Set(visibleParts(document).map((part) => part.id));
  return selection.filter((id) => !visible.has(id) && document.items[id]);
}

/** What is selected goes into the blanks for parts: all of it, or for a subtraction the first one into what is cut. */
function fromSelection({ selection, document }: SessionState, verbId: string): Typed {
  if (selection.length === 0) return {};
  const { blanks } = verbNamed(verbId)!;
  const [first, ...others] = selection;
  const isProfile = (id: ItemId) => document.items[id]?.recipe.base.kind === 'profile';
  if (blanks.profiles) {
    const solid = selection.find((id) => !isProfile(id));
    return {
      profiles: selection.filter(isProfile),
      ...(blanks.part && solid !== undefined ? { part: solid } : {}),
    };
  }
  if (blanks.profile) {
    const cutter = (['by', 'to'] as const).find((id) => blanks[id]?.type === 'parts');
    const rest = others.filter(isProfile);
    return {
      ...(isProfile(first!) ? { profile: first } : {}),
      ...(cutter && rest.length > 0 ? { [cutter]: rest } : {}),
    };
  }
  if (blanks.section && blanks.path)
    return { section: first, ...(others.length > 0 ? { path: others[0] } : {}) };
  if (blanks.from?.type === 'part' && blanks.parts)
    return { from: first, ...(others.length > 0 ? { parts: others } : {}) };
  if (blanks.parts) return { parts: [...selection] };
  return blanks.part ? { part: first } : {};
}
