/** Documents without the kernel: what they come to where all of it was built before, and what is kept of that. */
import { isWhole, placedOf, type ItemId, type KadrelDocument } from '@kadrel/core';
import { contentOf } from './content/content.ts';
import { documentKey } from './content/documentKey.ts';
import { keyOf } from './content/key.ts';
import { wholeKey } from './content/wholeKey.ts';
import type { Evaluation, PartResult } from './evaluate.ts';
import type { Measures } from './facts/measure.ts';
import type { Shown } from './knownFacts.ts';
import { noticesIn, type PartNotice } from './noticesIn.ts';
import { completeOnes, type Prebuilt, type PrebuiltSolids } from './prebuilt.ts';
import { wantedOf } from './wanted.ts';

/** What a document comes to, of which nothing has to be built; undefined where something has. */
export function evaluationOf(document: KadrelDocument, { solids, wholes }: Prebuilt): Evaluation | undefined {
  const { items, placed, variants } = wantedOf(document);
  const parts: Record<string, PartResult> = {};
  const notices: PartNotice[] = [];
  for (const [name, variant] of variants) {
    const key = keyOf(contentOf(document, variant.leaf, variant));
    const known = solids.get(key);
    if (!known) return undefined;
    parts[name] = { key };
    notices.push(...noticesIn(document, variant.leaf, known));
  }
  const measured: Record<ItemId, Measures> = {};
  for (const id of items.filter((one) => isWhole(document, document.items[one]!))) {
    const measures = wholes.get(wholeKey(document, id, placed.get(id)!));
    if (!measures) return undefined;
    measured[id] = measures;
  }
  return { parts, wholes: measured, failures: [], notices, shapes: [], heapBytes: 0 };
}

/** By what the measures of a document are kept. */
export interface PrebuiltKeys {
  readonly document: string;
  readonly wholes: Readonly<Record<ItemId, string>>;
}

/** @param wholes patterns and groups that were measured */
export function prebuiltKeys(document: KadrelDocument, wholes: readonly ItemId[]): PrebuiltKeys {
  const keys = wholes.map((id) => [id, wholeKey(document, id, placedOf(document, id))]);
  return { document: documentKey(document), wholes: Object.fromEntries(keys) as Record<ItemId, string> };
}

/** Of what was built of a document, all that need not be built again. */
export function prebuiltOf(
  { parts, wholes, factsOf }: Pick<Shown, 'parts' | 'wholes' | 'factsOf'>,
  keys: PrebuiltKeys,
): Pick<PrebuiltSolids, 'facts' | 'wholes'> {
  const solids = new Set(Object.values(parts).map(({ key }) => key));
  return {
    facts: completeOnes([...solids].flatMap((key) => factsOf(key) ?? [])),
    wholes: Object.fromEntries(Object.entries(wholes).map(([id, measures]) => [keys.wholes[id]!, measures])),
  };
}
