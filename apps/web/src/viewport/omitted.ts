/** Members of a pattern that are left out: drawn as ghosts, and met by the pointer, while members are chosen. */
import {
  buildName,
  placedOf,
  type Affine,
  type ItemId,
  type KadrelDocument,
  type SnapInstance,
} from '@kadrel/core';
import type { Built } from '../session/built.ts';

/** A member that is left out, and where it would stand. */
export interface Omitted {
  readonly key: string;
  readonly at: Affine;
  readonly instance: SnapInstance;
}

/** Members that are left out of a pattern. */
export function omittedOf(document: KadrelDocument, pattern: ItemId, built: Built): Omitted[] {
  const there = new Set(placedOf(document, pattern).map(({ tag }) => tag));
  return placedOf(document, pattern, { withOmitted: true }).flatMap((one) => {
    const key = there.has(one.tag) ? undefined : built.parts[buildName(one)]?.key;
    const facts = key === undefined ? undefined : built.factsOf(key);
    if (!facts) return [];
    const { pose, member } = one;
    const instance = { part: pattern, member, pose, shape: facts.snaps };
    return [{ key: facts.key, at: { linear: pose.turn, shift: pose.shift }, instance }];
  });
}
