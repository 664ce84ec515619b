/** One open project, and everything that can be done to it. Components read its state and call these; nothing else changes it. */
import type { ItemId, KadrelDocument, Question } from '@kadrel/core';
import type { Exporter, KernelHost } from '@kadrel/kernel';
import { whenIdle } from '../common/idle.ts';
import { BuiltPreviews, type BuiltPreview } from './builtPreview.ts';
import { Committing } from './commit.ts';
import { dimensioning } from './dimensioning.ts';
import { docking } from './docks.ts';
import { openCore, type SessionCore } from './core.ts';
import { fetchEarlier } from './earlier.ts';
import { editing } from './editing.ts';
import { fitting } from './fitting.ts';
import { insideActions } from './inside.ts';
import { looking } from './looking.ts';
import { pointing, pointingAtSteps } from './pointing.ts';
import { nudging } from './nudging.ts';
import { previewing } from './previewing.ts';
import { racking } from './racking.ts';
import { reading } from './reading.ts';
import { sectioning } from './sectioning.ts';
import { selectingActions } from './selecting.ts';
import { starting } from './starting.ts';
import { shownDocument, type OpenedSession } from './state.ts';
import type { Statement } from './statement.ts';

export { shownDocument, type OpenedSession, type SessionState } from './state.ts';
export type Session = ReturnType<typeof openSession>;

/** A statement longer at work than this shows its progress. */
export const PATIENT_MS = 300;

/** Opens a project, and begins to build it. */
export function openSession(opened: OpenedSession) {
  const core = openCore(opened);
  const { store, get, set, host } = core;
  const looks = looking(core);
  const commits = new Committing(core);
  const previews = new BuiltPreviews(core, commits);
  const starts = starting(core, commits, looks.activeView);
  const edits = editing(core, looks.activeView);
  const { stopFitting, ...fits } = fitting(core, { select: looks.select, known: opened.prebuilt?.checks });
  const stopWarming = showFirst(core);
  const stopFetching = fetching(core, opened.projectId);
  return {
    store,
    ...looks,
    ...pointing(core, looks.select),
    ...pointingAtSteps(core),
    ...starts,
    ...edits,
    ...docking(core, edits.update),
    ...dimensioning(core),
    ...reading(core),
    ...previewing(core, commits),
    ...sectioning(core, commits),
    ...selectingActions(get, looks.select),
    ...insideActions({ state: get, set, select: looks.select, say: starts.say }),
    ...keeping(core),
    ...fits,
    ...racking(core, () => fits.closeFit()),
    ...working(core, commits),
    nudge: nudgingBy(core, commits, { say: starts.say, update: edits.update }),
    ...tryingOut(core, previews),
    close(): void {
      stopWarming();
      stopFetching();
      stopFitting();
      core.saving.stop();
      host.close();
    },
  };
}

/** What need not be built is shown at once, and the kernel starts once the page is at rest. Returns how to leave off. */
function showFirst({ get, set, host, rebuild }: SessionCore): () => void {
  const built = host.prebuilt(shownDocument(get()));
  if (!built) {
    void rebuild();
    return () => undefined;
  }
  set({ built, kernel: { at: 'idle' } });
  let stop = () => undefined as void;
  const timer = setTimeout(() => (stop = whenIdle(() => host.warm())), AT_REST_MS);
  return () => {
    clearTimeout(timer);
    stop();
  };
}
/** By then a project that was opened has been drawn. */
const AT_REST_MS = 4000;

/** What is built before it is carried out. */
const tryingOut = ({ host }: SessionCore, previews: BuiltPreviews) => ({
  isIdle: () => host.isIdle && !previews.isBusy,
  lookUpTo: (upTo: BuiltPreview['upTo'] | null) => previews.lookUpTo(upTo),
  /** Builds what the statement in hand would come to with a value under the pointer; null goes back to what is typed. */
  tryOut: (tried: Statement | null) => (tried ? previews.show(tried) : previews.follow()),
});

interface Saying {
  readonly say: ReturnType<typeof starting>['say'];
  readonly update: ReturnType<typeof editing>['update'];
}

const nudgingBy = ({ get }: SessionCore, commits: Committing, { say, update }: Saying) =>
  nudging({
    state: get,
    settled: () => commits.settled(),
    say,
    adjust(typed) {
      update((s) => ({ ...s, typed }));
      return commits.commit();
    },
  });

/** What is carried out, taken back, cancelled and measured. */
const working = ({ get, host }: SessionCore, commits: Committing) => ({
  commit: () => commits.commit(),
  undo: () => commits.takeBack('undo'),
  redo: () => commits.takeBack('redo'),
  cancelWork: () => host.cancel(),
  /** When the statement that is at work is done, or was refused. */
  settled: () => commits.settled(),
  measure: (part: ItemId) => host.ask({ ask: 'measure', document: get().document, part }),
});

/** The ledger before what the project was opened with comes in stretches. */
const fetching = ({ get, set }: SessionCore, projectId: string) =>
  fetchEarlier({ projectId, get, set, later: (work, ms) => setTimeout(work, ms) });

/** What leaves the page: to the server, and into files. */
function keeping({ get, host, saving }: SessionCore) {
  return {
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
    /** How many edits the server has not acknowledged. */
    unsaved: () => saving.unsaved().length,
    /** What the kernel tells of a document. Rejects as its host does. */
    ask: (document: KadrelDocument, question: Question) => host.ask({ ask: 'answer', document, question }),
    /** By what the measures of patterns and groups, and of a document, are kept. Rejects as the kernel's host does. */
    keysOf: (document: KadrelDocument, wholes: readonly ItemId[]) =>
      host.ask({ ask: 'keys', document, wholes }),
    /** A file of parts. */
    written: (writing: Writing) => written(host, get().document, writing),
  };
}

/** A file that is to be written. */
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
