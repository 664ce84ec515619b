/** Carrying a statement out on a document, with what the kernel must be asked first. */
import {
  isRefusal,
  perform,
  refuse,
  verbNamed,
  type KadrelDocument,
  type Performed,
  type Refusal,
} from '@kadrel/core';
import type { Statement } from './statement.ts';
import type { Worlds } from './world.ts';

/** One statement asks a few things for each part that it is about; parts are at most some thousands. */
const MAX_QUESTIONS = 50_000;

/** Rejects as the kernel's host does. */
export async function performAsking(
  worlds: Worlds,
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  before: KadrelDocument,
): Promise<Performed | Refusal> {
  for (let asked = 0; asked < MAX_QUESTIONS; asked++) {
    const done = perform(verbNamed(verb)!, typed, before, worlds.of(before));
    if (!isRefusal(done) || !done.wants) return done;
    await worlds.find(before, done.wants);
  }
  return refuse('kernel.failed', { what: `This needs more than ${MAX_QUESTIONS} answers.` });
}
