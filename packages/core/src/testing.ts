/** What tests of the core share. */
import type { KadrelDocument } from './document/schema.ts';
import { isRefusal } from './statement/declare.ts';
import { verbNamed } from './verbs/index.ts';
import { perform, type Performed } from './statement/perform.ts';
import type { Typed } from './statement/resolving.ts';
import { plainWorld } from './statement/world.ts';

let ids = 0;

/** A statement carried out where no kernel is asked. Throws an Error where it is refused. */
export function said(document: KadrelDocument, verb: string, typed: Typed): Performed {
  const world = plainWorld(document, () => `p${++ids}`);
  const done = perform(verbNamed(verb)!, typed, document, world);
  if (isRefusal(done)) throw new Error(done.message);
  return done;
}
