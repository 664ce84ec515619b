/** Keeps the picture on the project's card up to date: some seconds after the last change, and quietly. */
import { api } from '../api/client.ts';
import type { Session } from '../session/store.ts';
import type { Viewport } from '../viewport/viewport.ts';

const QUIET_MS = 3000;

export function keepPicture(session: Session, viewport: Viewport): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let pictured = -1;
  const take = async () => {
    const { save, projectId, statement, lookingAt, built, document } = session.store.getState();
    const isBuilt = Object.keys(document.items).length === 0 || Object.keys(built.parts).length > 0;
    if (
      save.state !== 'saved' ||
      save.revision === pictured ||
      statement?.phase === 'open' ||
      lookingAt !== null ||
      !isBuilt
    )
      return;
    const blob = await viewport.thumbnail();
    if (!blob) return;
    pictured = save.revision;
    // The picture is an ornament: when it cannot be stored, the next change tries again.
    await api.setPicture(projectId, blob).catch(() => (pictured = -1));
  };
  const later = () => {
    clearTimeout(timer);
    timer = setTimeout(() => void take(), QUIET_MS);
  };
  later();
  const unsubscribe = session.store.subscribe((now, before) => {
    if (now.save !== before.save || now.built !== before.built) later();
  });
  return () => {
    clearTimeout(timer);
    unsubscribe();
  };
}
