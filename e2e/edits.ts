/** Edits in bulk, as a page would make them, for tests that begin with a full project. */
import { randomUUID } from 'node:crypto';
import {
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  type Edit,
  type KadrelDocument,
  type Typed,
} from '@kadrel/core';

export function editsOf(statements: readonly (readonly [verb: string, typed: Typed])[]): Edit[] {
  let document: KadrelDocument = emptyDocument();
  let ids = 0;
  return statements.map(([verb, typed], i) => {
    const world = plainWorld(document, () => `b${ids++}`);
    const done = perform(verbNamed(verb)!, typed, document, world);
    if (isRefusal(done)) throw new Error(done.message);
    document = done.document;
    const line = { verb, values: { ...typed }, title: done.title, author: 'Ada', time: i };
    return { id: randomUUID(), kind: 'do', patches: done.patches, inverses: done.inverses, line };
  });
}

export const manyBoxes = (count: number): Edit[] =>
  editsOf(Array.from({ length: count }, (_, i) => ['box', { as: `box ${i}`, size: [1, 2, 3] }] as const));

/** Upright rods along two lines, each a little thicker than the last, and each deep in its neighbours. */
export const crossingRods = (count: number): Edit[] =>
  editsOf(
    Array.from({ length: count }, (_, i) => {
      const at = i % 2 === 0 ? [0, 4 * i, 0] : [4 * i, 0, 0];
      return ['cylinder', { as: `rod ${i}`, diameter: 60 + i, height: 50 + i, at }] as const;
    }),
  );
