/** What the kernel has built of the document on show. */
import type { ItemId } from '@kadrel/core';
import type { Failure, ShapeFacts } from '@kadrel/kernel';

export interface Built {
  readonly parts: Readonly<Record<ItemId, { readonly key: string }>>;
  readonly failures: readonly Failure[];
  readonly factsOf: (key: string) => ShapeFacts | undefined;
}

export function factsOfPart({ built }: { readonly built: Built }, part: ItemId): ShapeFacts | undefined {
  const result = built.parts[part];
  return result && built.factsOf(result.key);
}
