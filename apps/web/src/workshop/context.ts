import { createContext, use, useSyncExternalStore } from 'react';
import type { Session, SessionState } from '../session/store.ts';

/** The open project, for all components. */
export const SessionContext = createContext<Session | null>(null);

/** The open project. */
export function useSession(): Session {
  const session = use(SessionContext);
  if (!session) throw new Error('There is no open project here.');
  return session;
}

/** Part of the session's state; the component renders again when that part changes. */
export function useSessionState<T>(select: (state: SessionState) => T): T {
  const { store } = useSession();
  return useSyncExternalStore(store.subscribe, () => select(store.getState()));
}
