/** What a pick leaves out, where only some parts may be caught. */
import type { Hand } from './hand.ts';

/** All parts of the scene but some. */
export const othersThan = (hand: Hand, kept: ReadonlySet<string>) =>
  new Set(hand.stage.model.scene.instances.map(({ part }) => part).filter((part) => !kept.has(part)));

/** What was left out last: the pointer asks at every move, and the parts seldom change. */
let leftOutLast: { scene: unknown; owner: string; parts: ReadonlySet<string> } | null = null;

/** All parts but one, found once for each scene. */
export function othersThanOwner(hand: Hand, owner: string): ReadonlySet<string> {
  const { scene } = hand.stage.model;
  if (leftOutLast?.scene !== scene || leftOutLast.owner !== owner)
    leftOutLast = { scene, owner, parts: othersThan(hand, new Set([owner])) };
  return leftOutLast.parts;
}
