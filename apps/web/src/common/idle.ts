/** Work that can wait until the page has nothing else to do; browsers that cannot tell do it soon. */

/** How long it may work without a pause, ms: a browser at rest would give three times as much, and a key may come meanwhile. */
const SLICE_MS = 16;

/** @param work is told how many milliseconds are left for it @param within after so many ms it is done all the same @returns takes it back */
export function whenIdle(work: (left: () => number) => void, within?: number): () => void {
  const slice = (given: () => number) => {
    const end = performance.now() + SLICE_MS;
    work(() => Math.min(given(), end - performance.now()));
  };
  if (!('requestIdleCallback' in window)) {
    const timer = setTimeout(() => slice(() => SLICE_MS), within ?? 0);
    return () => clearTimeout(timer);
  }
  const request = requestIdleCallback(
    (deadline) => slice(() => deadline.timeRemaining()),
    within === undefined ? undefined : { timeout: within },
  );
  return () => cancelIdleCallback(request);
}
