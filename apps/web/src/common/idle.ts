/** Work that can wait until the page has nothing else to do; browsers that cannot tell do it soon. */

/** How long a browser that cannot tell lets it work, ms. */
const SLICE_MS = 8;

/** @param work is told how many milliseconds are left for it @param within after so many ms it is done all the same @returns takes it back */
export function whenIdle(work: (left: () => number) => void, within?: number): () => void {
  if (!('requestIdleCallback' in window)) {
    const timer = setTimeout(() => {
      const end = performance.now() + SLICE_MS;
      work(() => end - performance.now());
    }, within ?? 0);
    return () => clearTimeout(timer);
  }
  const request = requestIdleCallback(
    (deadline) => work(() => deadline.timeRemaining()),
    within === undefined ? undefined : { timeout: within },
  );
  return () => cancelIdleCallback(request);
}
