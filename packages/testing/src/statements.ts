/** Documents for tests, made by statements as people say them. Items go by the names that they were given. */
import {
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  type ItemId,
  type KadrelDocument,
  type Performed,
  type Typed,
  type World,
} from '@kadrel/core';
import { worldOf, type Evaluator } from '@kadrel/kernel';

export type Statement = readonly [verb: string, typed: Typed];

type WorldFor = (document: KadrelDocument, newId: () => ItemId) => World;

let ids = 0;

/** One statement on a document, where no kernel is asked. Throws an Error where it is refused. */
export const said = (document: KadrelDocument, verb: string, typed: Typed): Performed =>
  carriedOut(
    document,
    [verb, typed],
    plainWorld(document, () => `p${++ids}`),
  );

/** Where no statement asks the kernel anything. Throws an Error where one is refused. */
export const built = (statements: readonly Statement[]): KadrelDocument => documentOf(statements, plainWorld);

/** Where names of faces and edges are looked up. Throws an Error where a statement is refused. */
export const builtBy = (kernel: Evaluator, statements: readonly Statement[]): KadrelDocument =>
  documentOf(statements, (document, newId) => worldOf(document, kernel, newId));

function documentOf(statements: readonly Statement[], worldFor: WorldFor): KadrelDocument {
  let count = 0;
  return statements.reduce((document, statement) => {
    const world = worldFor(document, () => `p${++count}`);
    return carriedOut(document, statement, world).document;
  }, emptyDocument());
}

function carriedOut(document: KadrelDocument, [verb, typed]: Statement, world: World): Performed {
  const done = perform(verbNamed(verb)!, typed, document, world);
  if (isRefusal(done)) throw new Error(`${verb}, ${done.blank}: ${done.message}`);
  return done;
}

/** The id of the first item of a name. */
export const idOf = (document: KadrelDocument, name: string): string =>
  Object.values(document.items).find((item) => item.name === name)!.id;

/** Measures of the first item of a name. */
export const measured = (kernel: Evaluator, document: KadrelDocument, name: string) =>
  kernel.measure(document, idOf(document, name));
