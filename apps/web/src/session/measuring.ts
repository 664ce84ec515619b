/** What a statement about measures has been given so far. */
import { isRefusal, resolveOne, verbNamed, type KadrelDocument, type Target, type World } from '@kadrel/core';
import type { Statement } from './statement.ts';

/** Both things, in order, as far as they are told; nothing where the first is not. */
export function resolvedTargets(
  { verb, typed }: Pick<Statement, 'verb' | 'typed'>,
  document: KadrelDocument,
  world: World,
): Target[] {
  const declared = verbNamed(verb)!;
  const found: Target[] = [];
  for (const id of ['from', 'to']) {
    if (declared.blanks[id]?.type !== 'target') return [];
    const read = resolveOne(declared, id, typed, document, world);
    if (read === undefined || isRefusal(read)) break;
    found.push(read as Target);
  }
  return found;
}
