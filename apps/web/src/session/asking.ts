/** Carrying a statement out on a document, with what the kernel must be asked first. */
import {
  isRefusal,
  perform,
  verbNamed,
  type KadrelDocument,
  type Performed,
  type Refusal,
} from '@kadrel/core';
import type { Statement } from './statement.ts';
import type { Worlds } from './world.ts';

/** Rejects as the kernel's host does. */
export async function performAsking(
  worlds: Worlds,
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  before: KadrelDocument,
): Promise<Performed | Refusal> {
  for (;;) {
    const done = perform(verbNamed(verb)!, typed, before, worlds.of(before));
    if (!isRefusal(done) || !done.wants) return done;
    await worlds.find(before, done.wants);
  }
}
