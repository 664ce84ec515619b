/** Old documents → the present version, by pure functions from plain JSON to plain JSON. Old ones are never edited. */
import { DOCUMENT_VERSION, documentSchema, type KadrelDocument } from './schema.ts';

type Json = Record<string, unknown>;
/** Index 0 lifts version 1 to 2, and so on. */
const MIGRATIONS: readonly ((old: Json) => Json)[] = [
  withPinsAndViews,
  withPatterns,
  withProfiles,
  withSurfaces,
  withPyramids,
  withShapeSteps,
  withSections,
  withSheets,
  withChecks,
  withDocks,
  withMoreMeasures,
  withClearances,
  withSheetSymbols,
  withTraces,
  withPaths,
  withHeights,
  withSharpnesses,
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

/** 5 → 6: pyramids and offset solids are new; nothing that was there changes. */
function withPyramids(old: Json): Json {
  return { ...old, kadrel: 6 };
}

/** 6 → 7: steps that shape solids, halves, and steps that are off are new; nothing that was there changes. */
function withShapeSteps(old: Json): Json {
  return { ...old, kadrel: 7 };
}

/** Version 8 has section planes. */
function withSections(old: Json): Json {
  return { ...old, kadrel: 8 };
}

/** Version 9 has drawing sheets. */
function withSheets(old: Json): Json {
  return { ...old, kadrel: 9, sheets: {} };
}

/** Version 10 has kept measures, wanted fits, and what is meant as it is. */
function withChecks(old: Json): Json {
  return { ...old, kadrel: 10, measures: {}, fits: {}, meant: {} };
}

/** Version 11 has docks and joints, and parts taken from racks. */
function withDocks(old: Json): Json {
  return { ...old, kadrel: 11, joints: {}, rackParts: {} };
}

/** Version 12 measures along directions and masses, and variables may be set from measures; nothing that was there changes. */
function withMoreMeasures(old: Json): Json {
  return { ...old, kadrel: 12 };
}

/** Version 13 cuts by parts with a clearance; nothing that was there changes. */
function withClearances(old: Json): Json {
  return { ...old, kadrel: 13 };
}

/** Version 14 has level marks and north arrows on sheets, and edges that are sharp in part; nothing that was there changes. */
function withSheetSymbols(old: Json): Json {
  return { ...old, kadrel: 14 };
}

/** Version 15 has profiles that follow what they were cut from; nothing that was there changes. */
function withTraces(old: Json): Json {
  return { ...old, kadrel: 15 };
}

/** Version 16 has measures along a path; nothing that was there changes. */
function withPaths(old: Json): Json {
  return { ...old, kadrel: 16 };
}

/** Version 17 has heights of profiles that are shown; there were none before. */
function withHeights(old: Json): Json {
  return { ...old, kadrel: 17 };
}

/** Version 18 knows sharp edges of soft forms that have a sharpness each; there were none before. */
function withSharpnesses(old: Json): Json {
  return { ...old, kadrel: 18 };
}

/** What was stored is of a version that this Kadrel does not know yet. */
export class NewerVersionError extends Error {
  constructor(version: number) {
    super(`This document is of version ${version}; this Kadrel reads up to ${DOCUMENT_VERSION}.`);
    this.name = 'NewerVersionError';
  }
}

/** A stored document as one of a later version, unchecked. Throws an Error with a sentence for people. */
export function lifted(json: unknown, to: number): Json {
  if (to > DOCUMENT_VERSION) throw new NewerVersionError(to);
  let current = json as Json;
  for (let at = versionOf(json); at < to; at++) current = MIGRATIONS[at - 1]!(current);
  return current;
}

/** Throws an Error with a sentence for people. */
export function versionOf(json: unknown): number {
  if (typeof json !== 'object' || json === null || !('kadrel' in json))
    throw new Error('This is not a Kadrel document.');
  const version = json.kadrel;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw new Error('This Kadrel document does not say its version.');
  if (version > DOCUMENT_VERSION) throw new NewerVersionError(version);
  return version;
}

/** Reads a stored document. Throws an Error with a sentence for people when it cannot be one. */
export function readDocument(json: unknown): KadrelDocument {
  const parsed = documentSchema.safeParse(lifted(json, DOCUMENT_VERSION));
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Error(
    `This Kadrel document is damaged at ${issue!.path.join('.') || 'its root'}: ${issue!.message}`,
  );
}
