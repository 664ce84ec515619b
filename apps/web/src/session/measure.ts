/** The distance between what is picked for Set distance so far. */
import {
  isRefusal,
  measured,
  resolveOne,
  verbNamed,
  type Feature,
  type KadrelDocument,
  type Measured,
  type World,
} from '@kadrel/core';
import type { Statement } from './statement.ts';

/** What Set distance would measure now. */
export function measureOf(
  { typed }: Pick<Statement, 'typed'>,
  document: KadrelDocument,
  world: World,
): Measured | null {
  const verb = verbNamed('distance')!;
  const [from, to] = ['from', 'to'].map((id) => resolveOne(verb, id, typed, { document, world }));
  if (from === undefined || to === undefined || isRefusal(from) || isRefusal(to)) return null;
  const found = measured(from as Feature, to as Feature, String(typed.along ?? 'own'));
  return isRefusal(found) ? null : found;
}
