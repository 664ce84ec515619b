/** How much room the window gives the workshop. */
import { useSyncExternalStore } from 'react';

/**
 * `wide` has room for everything; in `narrow` what stands on the bench goes into its menus; in `small`, which is also a
 * window seen at twice the size, the panels at the sides fold away.
 */
export type Room = 'wide' | 'narrow' | 'small';

const WIDE = '(min-width: 1260px) and (min-height: 520px)';
const NARROW = '(min-width: 860px) and (min-height: 520px)';

function subscribe(onChange: () => void): () => void {
  const queries = [WIDE, NARROW].map((query) => window.matchMedia(query));
  queries.forEach((query) => query.addEventListener('change', onChange));
  return () => queries.forEach((query) => query.removeEventListener('change', onChange));
}

const roomNow = (): Room =>
  window.matchMedia(WIDE).matches ? 'wide' : window.matchMedia(NARROW).matches ? 'narrow' : 'small';

/** How much room there is now. */
export const useRoom = (): Room => useSyncExternalStore(subscribe, roomNow);
