/** Keeps what was built of the open project in the browser, for the next time that it is opened. */
import { prebuiltOf } from '@kadrel/kernel';
import { whenIdle } from '../common/idle.ts';
import { keepPrebuilt } from '../session/prebuilt.ts';
import type { Session } from '../session/store.ts';

/** Nothing was built for so long, ms. */
const QUIET_MS = 1000;

/** Until what is returned is called. */
export function keepSolids(session: Session): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  // What need not be built when the project is opened is kept already.
  let kept = session.store.getState().built;
  const keep = () => {
    const { projectId, built, lookingAt } = session.store.getState();
    const { of } = built;
    if (built === kept || of === null || lookingAt !== null) return;
    kept = built;
    // What a browser has no room for is built again; no work hangs on it.
    keepPrebuilt(projectId, { ...prebuiltOf({ ...built, of }), checks: session.lastChecks() }).catch(
      () => undefined,
    );
  };
  const later = () => {
    clearTimeout(timer);
    timer = setTimeout(() => whenIdle(keep), QUIET_MS);
  };
  later();
  const unsubscribe = session.store.subscribe((now, before) => {
    if (now.built !== before.built) later();
  });
  return () => {
    clearTimeout(timer);
    unsubscribe();
  };
}
