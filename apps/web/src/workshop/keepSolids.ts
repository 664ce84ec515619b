/** Keeps what was built of the open project in the browser, for the next time that it is opened. */
import type { KadrelDocument } from '@kadrel/core';
import { prebuiltOf, type PrebuiltSolids } from '@kadrel/kernel';
import { whenIdle } from '../common/idle.ts';
import { keepPrebuilt } from '../session/prebuilt.ts';
import type { Built } from '../session/built.ts';
import type { Session } from '../session/store.ts';

/** Nothing was built for so long, ms. */
const QUIET_MS = 1000;
/** A page that is never at rest keeps it all the same, after so long, ms. */
const AT_LAST_MS = 3000;

/** What need not be built or looked at again. The kernel makes the keys: that takes as long as there are members. */
async function solidsOf(session: Session, built: Built, of: KadrelDocument): Promise<PrebuiltSolids> {
  const last = session.lastChecks();
  const checked = last?.of === of ? last.surveyed : undefined;
  const wholes = Object.keys(built.wholes);
  const isAsked = checked !== undefined || wholes.length > 0;
  const keys = isAsked ? await session.keysOf(of, wholes) : { document: '', wholes: {} };
  return { ...prebuiltOf(built, keys), checks: checked ? { [keys.document]: checked } : {} };
}

/** Until what is returned is called. */
export function keepSolids(session: Session): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isKeeping = false;
  let isOver = false;
  const now = () => ({ built: session.store.getState().built, checks: session.lastChecks() });
  // What need not be built when the project is opened is kept already.
  let kept = now();
  const keep = async () => {
    const { built, checks } = now();
    const { projectId, lookingAt } = session.store.getState();
    if (built === kept.built && checks === kept.checks) return;
    const { of } = built;
    if (of === null || lookingAt !== null || isKeeping || isOver) return;
    kept = { built, checks };
    isKeeping = true;
    try {
      await keepPrebuilt(projectId, await solidsOf(session, built, of));
    } catch {
      // What a browser has no room for, or a kernel that was stopped has no keys for, is built again; no work hangs on it.
    } finally {
      isKeeping = false;
      later();
    }
  };
  const later = () => {
    clearTimeout(timer);
    // The kernel of a project that was left is not to be started again.
    if (isOver) return;
    timer = setTimeout(() => whenIdle(() => void keep(), AT_LAST_MS), QUIET_MS);
  };
  later();
  const unsubscribe = session.store.subscribe((state, before) => {
    if (state.built !== before.built || state.fit.report !== before.fit.report) later();
  });
  return () => {
    isOver = true;
    clearTimeout(timer);
    unsubscribe();
  };
}
