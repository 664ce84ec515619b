/** Keeps what was built of the open project in the browser, for the next time that it is opened. */
import { prebuiltOf } from '@kadrel/kernel';
import { whenIdle } from '../common/idle.ts';
import { keepPrebuilt } from '../session/prebuilt.ts';
import type { Session } from '../session/store.ts';

/** Nothing was built for so long, ms. */
const QUIET_MS = 1000;
/** A page that is never at rest keeps it all the same, after so long, ms. */
const AT_LAST_MS = 3000;

/** Until what is returned is called. */
export function keepSolids(session: Session): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const now = () => ({ built: session.store.getState().built, checks: session.lastChecks() });
  // What need not be built when the project is opened is kept already.
  let kept = now();
  const keep = () => {
    const { built, checks } = now();
    const { projectId, lookingAt } = session.store.getState();
    const { of } = built;
    if ((built === kept.built && checks === kept.checks) || of === null || lookingAt !== null) return;
    kept = { built, checks };
    // What a browser has no room for is built again; no work hangs on it.
    keepPrebuilt(projectId, { ...prebuiltOf({ ...built, of }), checks }).catch(() => undefined);
  };
  const later = () => {
    clearTimeout(timer);
    timer = setTimeout(() => whenIdle(keep, AT_LAST_MS), QUIET_MS);
  };
  later();
  const unsubscribe = session.store.subscribe((state, before) => {
    if (state.built !== before.built || state.fit.report !== before.fit.report) later();
  });
  return () => {
    clearTimeout(timer);
    unsubscribe();
  };
}
