/** Starting a verb from a key, the bench or the search: what needs no more words is carried out at once. */
import type { Verb } from '@kadrel/core';
import type { Session } from '../session/store.ts';
import { exactMm } from '../session/statement.ts';

/** Verbs that ask for nothing but parts. */
const AT_ONCE = new Set(['delete', 'hide', 'group', 'ungroup', 'dissolve', 'unlink', 'lock']);

/** Verbs that begin in a way of their own where something is selected; false leaves them to the usual one. */
const BEGINNINGS: Readonly<Record<string, (session: Session) => boolean>> = {
  /** Of a pattern the member that was clicked goes; the others stay. */
  delete(session) {
    const { selection, member } = session.store.getState();
    if (!member || selection.length !== 1 || selection[0] !== member.part) return false;
    void session.say('omit', { part: member.part, members: member.label });
    session.set({ member: null });
    return true;
  },
  /** A copy in the very same place would lie there unseen: it stands one grid step away to begin with. */
  duplicate(session) {
    const step = exactMm(session.store.getState().document.scene.grid);
    session.start('duplicate', { by: [step, '0', '0'] });
    return true;
  },
};

/** What is asked for while a statement is at work begins when that is done. */
export function startVerb(session: Session, verb: Verb): void {
  if (session.store.getState().statement?.phase === 'working')
    void session.settled().then(() => begin(session, verb));
  else begin(session, verb);
}

function begin(session: Session, { id }: Verb): void {
  const { selection } = session.store.getState();
  if (selection.length > 0 && BEGINNINGS[id]?.(session)) return;
  if (AT_ONCE.has(id) && selection.length > 0) void session.say(id, { parts: [...selection] });
  else session.start(id);
}
