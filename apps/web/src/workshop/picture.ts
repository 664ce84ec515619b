/** Keeps the picture on the project's card up to date: a moment after the last change and when the workshop is left. */
import { api } from '../api/client.ts';
import type { Session } from '../session/store.ts';
import type { Stage } from '../viewport/stage.ts';

const QUIET_MS = 1500;

export function keepPicture(session: Session, stage: Stage): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let pictured = 0;
  const take = async () => {
    const { projectId, statement, lookingAt, built, edits } = session.store.getState();
    // A project that was only looked at keeps its picture; an empty one has none.
    const isNew = edits.length !== pictured && Object.keys(built.parts).length > 0;
    if (!isNew || statement?.phase === 'open' || lookingAt !== null) return;
    pictured = edits.length;
    const blob = await stage.thumbnail();
    // The picture is an ornament: when it cannot be stored, the next change tries again.
    if (blob) await api.setPicture(projectId, blob).catch(() => (pictured = -1));
  };
  const later = () => {
    clearTimeout(timer);
    timer = setTimeout(() => void take(), QUIET_MS);
  };
  later();
  const unsubscribe = session.store.subscribe((now, before) => {
    if (now.edits !== before.edits || now.built !== before.built) later();
  });
  return () => {
    clearTimeout(timer);
    unsubscribe();
    // The picture is drawn at once, before the view goes; storing it goes on behind.
    void take();
  };
}
