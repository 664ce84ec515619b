/** Old documents → the present version, by pure functions from plain JSON to plain JSON. Old ones are never edited. */
import { DOCUMENT_VERSION, documentSchema, type KadrelDocument } from './schema.ts';

type Json = Record<string, unknown>;
/** Index 0 lifts version 1 to 2, and so on. */
const MIGRATIONS: readonly ((old: Json) => Json)[] = [
  withPinsAndViews,
  withPatterns,
  withProfiles,
  withSurfaces,
];

/** 1 → 2: pins, kept views, and the nudge step. */
function withPinsAndViews(old: Json): Json {
  return { ...old, kadrel: 2, scene: { ...(old.scene as Json), nudge: 1 }, pins: {}, views: {} };
}

/** 2 → 3: patterns, groups and links are new; nothing that was there changes. */
function withPatterns(old: Json): Json {
  return { ...old, kadrel: 3 };
}

/** 3 → 4: profiles, planes and what is made from them are new; nothing that was there changes. */
function withProfiles(old: Json): Json {
  return { ...old, kadrel: 4 };
}

/** 4 → 5: surfaces, steps of profiles, and more ways to loft, sweep and emboss; nothing that was there changes. */
function withSurfaces(old: Json): Json {
  return { ...old, kadrel: 5 };
}

/** Reads a stored document. Throws an Error with a sentence for people when it cannot be one. */
export function readDocument(json: unknown): KadrelDocument {
  if (typeof json !== 'object' || json === null || !('kadrel' in json))
    throw new Error('This is not a Kadrel document.');
  let current = json as Json;
  const version = current.kadrel;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw new Error('This Kadrel document does not say its version.');
  if (version > DOCUMENT_VERSION)
    throw new Error(`This document is of version ${version}; this Kadrel reads up to ${DOCUMENT_VERSION}.`);
  for (let at = version; at < DOCUMENT_VERSION; at++) current = MIGRATIONS[at - 1]!(current);
  const parsed = documentSchema.safeParse(current);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Error(
    `This Kadrel document is damaged at ${issue!.path.join('.') || 'its root'}: ${issue!.message}`,
  );
}
