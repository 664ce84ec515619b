/** What the parts of a session share: its state, the kernel, saving, and the two ways in which the picture changes. */
import { type Edit, type KadrelDocument } from '@kadrel/core';
import { KernelHost } from '@kadrel/kernel';
import { keepWorker, spawnWorker } from '@kadrel/kernel/browser';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { followOthers } from './following.ts';
import { keptPlaces } from './inside.ts';
import { resume } from './resume.ts';
import { openSaving, rebased, type Saving } from './saving.ts';
import { firstState, hiddenSelected, shownDocument, type OpenedSession, type SessionState } from './state.ts';
import { Worlds } from './world.ts';

/** What the parts of a session share. */
export interface SessionCore {
  readonly store: StoreApi<SessionState>;
  readonly get: () => SessionState;
  readonly set: (change: Partial<SessionState>) => void;
  readonly host: KernelHost;
  readonly saving: Saving;
  readonly worlds: Worlds;
  /** Builds what is shown. A failure of the kernel itself keeps the last good picture, and says which part. */
  readonly rebuild: () => Promise<void>;
  /** Puts edits that are already applied into `document` into force, and on their way to the server. */
  readonly adopt: (document: KadrelDocument, edits: readonly Edit[], more?: Partial<SessionState>) => void;
}

/** Begins with what was opened and what was left unsaved. */
export function openCore(opened: OpenedSession): SessionCore {
  const resumed = resume(opened);
  const store = createStore<SessionState>(() => firstState(opened, resumed));
  const { getState: get, setState: set } = store;
  const host = new KernelHost({
    spawn: spawnWorker,
    keep: keepWorker,
    now: () => performance.now(),
    onState: (kernel) => set({ kernel }),
    ...(opened.prebuilt ? { prebuilt: opened.prebuilt } : {}),
  });
  const rebuild = rebuilding({ get, set, host });
  const saving = openSaving({
    ...opened,
    resumed,
    onState: (save) => set({ save }),
    onMissed: (missed, ours) => missed.length === 0 || doGoTogether({ get, set, rebuild }, missed, ours),
    later: (work, ms) => setTimeout(work, ms),
    follow: (look) => followOthers(opened.projectId, look),
  });
  const worlds = new Worlds(
    (key) => get().built.factsOf(key),
    (document, question) => host.ask({ ask: 'answer', document, question }),
  );

  function adopt(document: KadrelDocument, edits: readonly Edit[], more: Partial<SessionState> = {}): void {
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
    // A statement that was tried brings its solids along; everything else is built now.
    if (!more.built || hiddenSelected(get()).length > 0) void rebuild();
  }

  return { store, get, set, host, saving, worlds, rebuild, adopt };
}

/** Shows others’ edits before ours; false where they do not go together. */
function doGoTogether(
  { get, set, rebuild }: Pick<SessionCore, 'get' | 'set' | 'rebuild'>,
  missed: readonly Edit[],
  ours: readonly Edit[],
): boolean {
  const shown = rebased(get(), missed, ours);
  if (!shown) return false;
  set(shown);
  void rebuild();
  return true;
}

/** Builds what is shown, once more where the kernel was lost over it. */
function rebuilding({ get, set, host }: Pick<SessionCore, 'get' | 'set' | 'host'>): () => Promise<void> {
  return async function rebuild(): Promise<void> {
    try {
      set({ built: await host.evaluate(shownDocument(get()), { also: hiddenSelected(get()) }) });
    } catch (error) {
      const code = (error as { code?: string }).code;
      if (code === 'crashed' && get().kernel.at !== 'failed') void rebuild();
      else if (code === undefined) throw error;
    }
  };
}
