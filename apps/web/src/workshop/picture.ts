/** Keeps the picture on the project's card up to date: when nobody has worked for a while, and when the workshop is left. */
import { api } from '../api/client.ts';
import { whenIdle } from '../common/idle.ts';
import type { Session } from '../session/store.ts';
import { cardPicture } from '../viewport/cardPicture.ts';
import type { Stage } from '../viewport/stage.ts';

/** Nothing has been done for so long, ms. */
const QUIET_MS = 4000;
const WORK = ['pointermove', 'pointerdown', 'wheel', 'keydown'] as const;

/** Keeps the picture on the project’s card up to date. */
export function keepPicture(session: Session, stage: Stage): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let pictured = 0;
  const editCount = () => {
    const { earlier, edits } = session.store.getState();
    return earlier + edits.length;
  };
  const isDue = () => {
    const { statement, lookingAt, built } = session.store.getState();
    // A project that was only looked at keeps its picture; an empty one has none.
    const isNew = editCount() !== pictured && Object.keys(built.parts).length > 0;
    return isNew && statement?.phase !== 'open' && lookingAt === null;
  };
  const take = async () => {
    if (!isDue()) return;
    const { projectId } = session.store.getState();
    pictured = editCount();
    // The picture is an ornament: when it cannot be made or stored, the next change tries again.
    await cardPicture(stage)
      .then((blob) => (blob ? api.setPicture(projectId, blob) : undefined))
      .catch(() => (pictured = -1));
  };
  const later = () => {
    clearTimeout(timer);
    timer = setTimeout(() => isDue() && whenIdle(() => void take()), QUIET_MS);
  };
  later();
  const unsubscribe = session.store.subscribe((now, before) => {
    if (now.edits !== before.edits || now.built !== before.built) later();
  });
  for (const kind of WORK) window.addEventListener(kind, later, { passive: true });
  return () => {
    clearTimeout(timer);
    unsubscribe();
    for (const kind of WORK) window.removeEventListener(kind, later);
    // The picture is drawn at once, before the view goes; storing it goes on behind.
    void take();
  };
}
