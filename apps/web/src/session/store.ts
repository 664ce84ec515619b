/** The state of one open project, and everything that can be done to it. Components read from here and call these; nothing else changes it. */
import {
  applyEdit,
  blankToBlame,
  carry,
  change,
  editsCollide,
  emptyDocument,
  isRefusal,
  ledgerOf,
  locatePoint,
  perform,
  quantityReader,
  QuantityError,
  refuse,
  stepBack,
  undoStacks,
  valueOf,
  verbNamed,
  visibleParts,
  worldFromPart,
  type Edit,
  type ItemId,
  type KadrelDocument,
  type Performed,
  type QuantityKind,
  type Refusal,
  type SnapKind,
  type World,
} from '@kadrel/core';
import { KernelHost, type Failure, type HostState, type ShapeFacts } from '@kadrel/kernel';
import { spawnWorker } from '@kadrel/kernel/browser';
import { createStore } from 'zustand/vanilla';
import { api } from '../api/client.ts';
import { SaveQueue, type SaveState } from './saveQueue.ts';
import { nextEntry, startStatement, withText, type Entry, type Statement, type Typed } from './statement.ts';

export type Display = 'edges' | 'shaded' | 'wire';

export interface Built {
  readonly parts: Readonly<Record<ItemId, { readonly key: string }>>;
  readonly failures: readonly Failure[];
  readonly factsOf: (key: string) => ShapeFacts | undefined;
}

export interface SessionState {
  readonly projectId: string;
  readonly name: string;
  readonly author: string;
  readonly document: KadrelDocument;
  readonly edits: readonly Edit[];
  readonly selection: readonly ItemId[];
  readonly built: Built;
  readonly kernel: HostState;
  readonly save: { readonly state: SaveState; readonly revision: number; readonly reason?: string };
  readonly statement: Statement | null;
  /** Looking at the model as it was after this many statements of the ledger; null for now. */
  readonly lookingAt: number | null;
  readonly display: Display;
  readonly snapKinds: ReadonlySet<SnapKind>;
  readonly seeThrough: boolean;
  readonly regionRule: 'touching' | 'enclosed';
}

const NOTHING_BUILT: Built = { parts: {}, failures: [], factsOf: () => undefined };
const FIRST_SNAPS: readonly SnapKind[] = [
  'endpoint',
  'midpoint',
  'centre',
  'quadrant',
  'face centre',
  'on face',
];
/** A statement longer at work than this shows its progress. */
export const PATIENT_MS = 300;

export interface OpenedSession {
  readonly projectId: string;
  readonly name: string;
  readonly author: string;
  readonly document: KadrelDocument;
  readonly revision: number;
  readonly edits: readonly Edit[];
}

export type Session = ReturnType<typeof openSession>;

export function openSession(opened: OpenedSession) {
  const pageId = crypto.randomUUID();
  const left = SaveQueue.takeOver(localStorage, opened.projectId);
  const known = new Set(opened.edits.map((edit) => edit.id));
  const unsaved = (left?.edits ?? []).filter((edit) => !known.has(edit.id));
  const missed = opened.edits.slice(left?.base ?? opened.revision);
  const fits =
    unsaved.length === 0 ||
    !editsCollide(
      missed.filter((edit) => !left?.edits.some((own) => own.id === edit.id)),
      unsaved,
    );
  const start = fits ? unsaved.reduce<KadrelDocument>(applyEdit, opened.document) : opened.document;

  const store = createStore<SessionState>(() => ({
    projectId: opened.projectId,
    name: opened.name,
    author: opened.author,
    document: start,
    edits: fits ? [...opened.edits, ...unsaved] : opened.edits,
    selection: [],
    built: NOTHING_BUILT,
    kernel: { at: 'starting' },
    save: { state: 'saved', revision: opened.revision },
    statement: null,
    lookingAt: null,
    display: 'edges',
    snapKinds: new Set(FIRST_SNAPS),
    seeThrough: false,
    regionRule: 'touching',
  }));
  const { getState: get, setState: set } = store;
  const host = new KernelHost({
    spawn: spawnWorker,
    now: () => performance.now(),
    onState: (kernel) => set({ kernel }),
  });
  const queue = new SaveQueue(
    {
      projectId: opened.projectId,
      pageId,
      storage: localStorage,
      send: (base, edits) => api.appendEdits(opened.projectId, base, edits),
      onState: (state, revision, reason) =>
        set({ save: { state, revision, ...(reason === undefined ? {} : { reason }) } }),
      onMissed: rebase,
      later: (work, ms) => setTimeout(work, ms),
    },
    opened.revision,
  );
  if (fits && unsaved.length > 0) queue.add(...unsaved);
  if (fits) SaveQueue.forgetOthers(localStorage, opened.projectId, pageId);
  else if (!fits)
    set({
      save: {
        state: 'conflict',
        revision: opened.revision,
        reason: 'Edits of your last visit were not saved, and somebody changed the same numbers since.',
      },
    });

  /** What statements may ask of built geometry. */
  const world: World = {
    newId: () => crypto.randomUUID().replaceAll('-', ''),
    boxOf: (part) => factsOfPart(get(), part)?.measures.box,
    locate(part, point) {
      const facts = factsOfPart(get(), part);
      if (!facts) return refuse('not-built', 'This part is not built yet. Try again in a moment.');
      const found = locatePoint(facts.snaps, point, get().document);
      return isRefusal(found) ? found : carry(worldFromPart(get().document, part), found);
    },
  };

  function newEdit(done: Performed, verb: string, values: Typed): Edit {
    const line = { verb, values: jsonOf(values), title: done.title, author: get().author, time: Date.now() };
    return { id: crypto.randomUUID(), kind: 'do', patches: done.patches, inverses: done.inverses, line };
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
      lookingAt: null,
    });
    queue.add(...edits);
    if (!more.built || hiddenSelected(get()).length > 0) void rebuild();
  }

  function rebase(missedEdits: readonly Edit[], ours: readonly Edit[]): void {
    if (missedEdits.length === 0) return;
    const { document, edits } = get();
    const own = new Set(ours.map((edit) => edit.id));
    const without = [...ours]
      .reverse()
      .reduce<KadrelDocument>((d, edit) => applyEdit(d, { patches: edit.inverses }), document);
    const next = [...missedEdits, ...ours].reduce<KadrelDocument>(applyEdit, without);
    set({
      document: next,
      edits: [...edits.filter((edit) => !own.has(edit.id)), ...missedEdits, ...ours],
      statement: null,
    });
    void rebuild();
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
    const verb = verbNamed(statement.verb)!;
    const back = statement.editId === null ? undefined : withdrawn(statement.editId);
    if (statement.editId !== null && !back) {
      refuseStatement(refuse('too-late', 'This statement is no longer the last one. Start it anew.'), 'done');
      return false;
    }
    const before = back?.document ?? document;
    const openPhase = statement.editId === null ? 'open' : 'done';
    const done = perform(verb, statement.typed, before, world);
    if (isRefusal(done)) {
      refuseStatement(done, openPhase);
      return false;
    }
    set({ statement: { ...statement, phase: 'working', refusal: null } });
    const built = await trial(done.document, blankToBlame(verb));
    if (isRefusal(built)) {
      refuseStatement(built, openPhase);
      return false;
    }
    const edit = newEdit(done, verb.id, statement.typed);
    const edits = back ? [back.edit, edit] : [edit];
    const now = get().statement;
    const selection = done.outcome.select ?? get().selection;
    adopt(done.document, edits, {
      built,
      selection,
      statement: now ? { ...now, phase: 'done', refusal: null, editId: edit.id, focus: null } : null,
    });
    return true;
  }

  /** Builds the document that a statement would lead to. Returns its solids, or why it cannot be, naming the part. */
  async function trial(candidate: KadrelDocument, blank: string): Promise<Built | Refusal> {
    const failing = new Set(get().built.failures.map((failure) => failure.part));
    try {
      const built = await host.evaluate(candidate);
      const failure = built.failures.find(({ part }) => !failing.has(part));
      if (!failure) return built;
      return refuse(
        'not-built',
        `${candidate.items[failure.part]?.name}: ${failure.reason} ${failure.remedy}`,
        blank,
      );
    } catch (error) {
      const { code, part } = error as { code?: string; part?: ItemId };
      const message = error instanceof Error ? error.message : String(error);
      if (code === undefined) throw error;
      void rebuild();
      const name = part === undefined ? '' : ` It was at work on ${candidate.items[part]?.name}.`;
      return refuse(
        code,
        code === 'cancelled' ? 'Cancelled. Nothing was changed.' : `${message}${name} Nothing was changed.`,
        blank,
      );
    }
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
      set({
        statement: startStatement(verb, { ...fromSelection(get(), verbId), ...given }),
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
      actions.update((s) => ({ ...s, typed: { ...s.typed, [blank]: value }, refusal: null })),
    focus: (entry: Entry | null) => actions.update((statement) => ({ ...statement, focus: entry })),
    /** Puts a part into a blank for parts, or takes it out again. */
    choose(blank: string, part: ItemId, how: 'toggle' | 'add' = 'toggle'): void {
      actions.update((statement) => {
        if (verbNamed(statement.verb)?.blanks[blank]?.type === 'part')
          return { ...statement, typed: { ...statement.typed, [blank]: part }, refusal: null };
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
      set({ selection });
      if (hiddenSelected(get()).length > 0) void rebuild();
    },
    lookAt(count: number | null): void {
      set({ lookingAt: count, statement: null });
      void rebuild();
    },
    set: (
      change: Partial<Pick<SessionState, 'display' | 'snapKinds' | 'seeThrough' | 'regionRule' | 'name'>>,
    ) => set(change),
    /** Ends a conflict in favour of what the server has. */
    async takeTheirs(): Promise<void> {
      queue.drop();
      SaveQueue.forgetOthers(localStorage, opened.projectId, pageId);
      window.location.reload();
      await Promise.resolve();
    },
    /** Ends a conflict by saving what is here as a project of its own. */
    async keepMine(): Promise<string> {
      const { document, name } = get();
      const made = await api.createProject(`${name} (mine)`.slice(0, 120), document.scene);
      const { variables, items } = document;
      const { patches, inverses } = change(emptyDocument(document.scene), (draft) =>
        Object.assign(draft, { variables, items }),
      );
      const line = {
        verb: 'rename',
        values: {},
        title: `Kept from ${name}`,
        author: get().author,
        time: Date.now(),
      };
      await api.appendEdits(made.id, 0, [{ id: crypto.randomUUID(), kind: 'do', patches, inverses, line }]);
      queue.drop();
      SaveQueue.forgetOthers(localStorage, opened.projectId, pageId);
      return made.id;
    },
    step: (parts: readonly ItemId[]) =>
      host.ask({ ask: 'step', document: get().document, parts, time: new Date().toISOString().slice(0, 19) }),
    stl: (parts: readonly ItemId[], chordMm: number) =>
      host.ask({ ask: 'stl', document: get().document, parts, chordMm }),
    measure: (part: ItemId) => host.ask({ ask: 'measure', document: get().document, part }),
    isIdle: () => host.isIdle,
    /** How many edits the server has not acknowledged. */
    unsaved: () => queue.unsaved.length,
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
    /** Opens the last statement's blanks again. */
    revise(): void {
      const { edits, statement } = get();
      const id = undoStacks(edits).undo.at(-1);
      const edit = edits.find((candidate) => candidate.id === id);
      const verb = edit && verbNamed(edit.line.verb);
      if (!edit || !verb || statement?.phase === 'working') return;
      set({
        statement: { ...startStatement(verb, edit.line.values), phase: 'done', editId: edit.id },
        lookingAt: null,
      });
    },
    close(): void {
      queue.stop();
      host.close();
    },
  };
  void rebuild();
  return { store, ...actions };
}

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

/** Selected parts that are not shown by themselves: operands, whose facts the Spec wants. */
function hiddenSelected({ selection, document }: SessionState): ItemId[] {
  const visible = new Set(visibleParts(document).map((part) => part.id));
  return selection.filter((id) => !visible.has(id) && document.items[id]);
}

export function factsOfPart({ built }: Pick<SessionState, 'built'>, part: ItemId): ShapeFacts | undefined {
  const result = built.parts[part];
  return result && built.factsOf(result.key);
}

/** What is selected goes into the blanks for parts: all of it, or for a subtraction the first one into what is cut. */
function fromSelection({ selection }: SessionState, verbId: string): Typed {
  if (selection.length === 0) return {};
  const { blanks } = verbNamed(verbId)!;
  const [first, ...others] = selection;
  if (blanks.from?.type === 'part' && blanks.parts)
    return { from: first, ...(others.length > 0 ? { parts: others } : {}) };
  if (blanks.parts) return { parts: [...selection] };
  return blanks.part ? { part: first } : {};
}
