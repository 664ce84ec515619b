/** Starting a verb from a key, the bench or the search: what needs no more words is carried out at once. */
import type { Verb } from '@kadrel/core';
import type { Session } from '../session/store.ts';
import { exactMm } from '../session/statement.ts';

/** Verbs that ask for nothing but parts. */
const AT_ONCE = new Set(['delete', 'hide', 'group', 'ungroup', 'dissolve', 'unlink', 'lock']);

export function startVerb(session: Session, verb: Verb): void {
  const { selection, document } = session.store.getState();
  if (AT_ONCE.has(verb.id) && selection.length > 0) void session.say(verb.id, { parts: [...selection] });
  else if (verb.id === 'duplicate' && selection.length > 0) {
    // A copy in the very same place would lie there unseen: it stands one grid step away to begin with.
    const step = exactMm(document.scene.grid);
    session.start('duplicate', { by: [step, step, '0'] });
  } else session.start(verb.id);
}
