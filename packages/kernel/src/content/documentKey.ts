import type { KadrelDocument } from '@kadrel/core';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** Equal keys mean equal documents, in whatever order their records are written. */
export const documentKey = (document: KadrelDocument): string =>
  bytesToHex(sha256(new TextEncoder().encode(JSON.stringify(document, inOrder))));

const inOrder = (_: string, value: unknown): unknown =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
    : value;
