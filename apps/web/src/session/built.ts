/** What the kernel has built of the document on show. */
import type { ItemId } from '@kadrel/core';
import type { Failure, Measures, PartNotice, ShapeFacts } from '@kadrel/kernel';

export interface Built {
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
