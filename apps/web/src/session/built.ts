/** What the kernel has built of the document on show. */
import { builtRecipe, hadStep, type ItemId, type KadrelDocument } from '@kadrel/core';
import type { Failure, Measures, PartNotice, ShapeFacts } from '@kadrel/kernel';

/** What the kernel has built. */
export interface Built {
  /** The document that it was built of; null before anything was. */
  readonly of: KadrelDocument | null;
  /** By the name of what is built: a part's id, or that of one of its variants. */
  readonly parts: Readonly<Record<string, { readonly key: string }>>;
  /** Patterns and groups. */
  readonly wholes: Readonly<Record<ItemId, Measures>>;
  readonly failures: readonly Failure[];
  /** What is worth knowing of parts that were built. */
  readonly notices: readonly PartNotice[];
  readonly factsOf: (key: string) => ShapeFacts | undefined;
}

interface WithBuilt {
  readonly built: Built;
}

/** Facts of a part that is one solid. */
export function factsOfPart({ built }: WithBuilt, part: ItemId): ShapeFacts | undefined {
  const result = built.parts[part];
  return result && built.factsOf(result.key);
}

/** Measures of a part, or of all that a pattern or a group consists of, in its own frame. */
export const measuresOf = ({ built }: WithBuilt, part: ItemId): Measures | undefined =>
  built.wholes[part] ?? factsOfPart({ built }, part)?.measures;

interface Trying {
  /** The document on show, and what of it could not be built. */
  readonly now: KadrelDocument;
  readonly known: readonly Failure[];
  /** What the statement begins with, and what it leads to. */
  readonly before: KadrelDocument;
  readonly after: KadrelDocument;
}

/** A failure that a statement would cause: what could not be built before, and what failed in a step as it was, is none. */
export function newFailure(failures: readonly Failure[], trying: Trying): Failure | undefined {
  const { now, known, before, after } = trying;
  const failing = new Set(known.map((one) => ownerNameOf(now, one)));
  return failures.find((one) => !failing.has(ownerNameOf(after, one)) && !hadStep(before, after, one));
}

/** A step by what it says, wherever it stands among the others. */
function ownerNameOf(document: KadrelDocument, { part, step }: Failure): string {
  const item = document.items[part];
  const lostStep = item && step !== null ? builtRecipe(document, item).steps[step] : null;
  return `${part} ${JSON.stringify(lostStep)}`;
}
