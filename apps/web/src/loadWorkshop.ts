import { whenIdle } from './common/idle.ts';

type Loaded = typeof import('./workshop/Workshop.tsx');
let loading: Promise<Loaded> | undefined;

/**
 * The workshop brings three.js; the first screens do not wait for it. The kernel is started where something has to be built.
 * What the workshop is made of is asked for by itself too: it is set up as it comes, and the page is free in between.
 */
export function loadWorkshop(): Promise<Loaded> {
  loading ??= Promise.all([
    import('./workshop/Workshop.tsx'),
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

/**
 * Loads the workshop once the page has nothing else to do, and starts its kernel when nobody has clicked for a while: the next click is
 * likely to open a project, which most often is seen before there is a kernel, and sooner while none is starting.
 */
export function loadWorkshopAhead(): () => void {
  // What could not be loaded ahead is loaded, or its failure told, when it is wanted.
  const ignored = () => undefined;
  const stopLoading = whenIdle(() => void loadWorkshop().catch(ignored), SOON_MS);
  const timer = setTimeout(() => void startKernel().catch(ignored), LATER_MS);
  return () => {
    stopLoading();
    clearTimeout(timer);
  };
}
const SOON_MS = 2000;
const LATER_MS = 4000;

async function startKernel(): Promise<void> {
  await loadWorkshop();
  const { warmUpWorker } = await import('@kadrel/kernel/browser');
  warmUpWorker();
}
