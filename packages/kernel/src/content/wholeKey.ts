/** Keys of patterns and groups: equal keys mean equal solids in equal places, in the frame of the whole. */
import { buildName, chain, inverse, variantsOf, worldFromPart, type ItemId } from '@kadrel/core';
import type { KadrelDocument, Placed } from '@kadrel/core';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { contentOf } from './content.ts';
import { keyOf } from './key.ts';

/** Of a solid: which one it is, its turn and its shift. */
const STRIDE = 13;

/** @param placed what the whole comes to, in the world */
export function wholeKey(document: KadrelDocument, id: ItemId, placed: readonly Placed[]): string {
  const frameFromWorld = inverse(worldFromPart(document, id));
  const variants = [...variantsOf(placed)];
  const numbers = new Map(variants.map(([name], i) => [name, i]));
  const poses = new Float64Array(placed.length * STRIDE);
  placed.forEach((one, i) => {
    const { turn, shift } = chain(frameFromWorld, one.pose);
    poses.set([numbers.get(buildName(one))!, ...turn, ...shift], i * STRIDE);
  });
  const contents = variants.map(([, one]) => keyOf(contentOf(document, one.leaf, one))).join('\n');
  const hash = sha256.create().update(new Uint8Array(poses.buffer));
  return bytesToHex(hash.update(new TextEncoder().encode(contents)).digest());
}
