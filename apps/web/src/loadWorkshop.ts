import { whenIdle } from './common/idle.ts';

type Loaded = typeof import('./workshop/Workshop.tsx');
let loading: Promise<Loaded> | undefined;

/**
 * The workshop brings three.js and the kernel; the first screens do not wait for them. The kernel starts while the rest is on its way.
 * What the workshop is made of is asked for by itself too: it is set up as it comes, and the page is free in between.
 */
export function loadWorkshop(): Promise<Loaded> {
  loading ??= Promise.all([
    import('./workshop/Workshop.tsx'),
    import('@kadrel/kernel/browser').then(({ warmUpWorker }) => warmUpWorker()),
    import('./session/store.ts'),
    import('./viewport/stage.ts'),
  ]).then(
    ([workshop]) => workshop,
    (error: unknown) => {
      // The next try may reach the server again.
      loading = undefined;
      throw error;
    },
  );
  return loading;
}

/** Loads the workshop once the page has nothing else to do: the next click is likely to open a project. */
export function loadWorkshopAhead(): () => void {
  // What could not be loaded ahead is loaded, or its failure told, when it is wanted.
  const load = () => void loadWorkshop().catch(() => undefined);
  return whenIdle(load, SOON_MS);
}
const SOON_MS = 2000;
