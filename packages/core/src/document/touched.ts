/** Whether a document is one after a change: only what was changed is read by its schema, and what hangs together is checked in all. */
import { z } from 'zod';
import {
  joinFaults,
  partSchema,
  pinSchema,
  sceneSchema,
  variablesSchema,
  viewsSchema,
  type KadrelDocument,
} from './schema.ts';
import { jointSchema } from './dock.ts';
import { rackPartSchema } from './rack.ts';
import { fitSchema, meantSchema, measureSchema } from './fit.ts';
import { sheetSchema } from './sheet.ts';

/** More parts than this are more than any view can show. */
export const MAX_ITEMS = 20_000;

/** A sentence that says where the changed document would be damaged; undefined where it is sound. @param before sound */
export function touchedFault(before: KadrelDocument, after: KadrelDocument): string | undefined {
  const isSame = (key: keyof KadrelDocument) => before[key] === after[key];
  return (
    (isSame('scene') ? undefined : faultOf(['scene'], sceneSchema, after.scene)) ??
    (isSame('variables') ? undefined : faultOf(['variables'], variablesSchema, after.variables)) ??
    (isSame('views') ? undefined : faultOf(['views'], viewsSchema, after.views)) ??
    entriesFault('items', partSchema, { before: before.items, after: after.items }) ??
    entriesFault('pins', pinSchema, { before: before.pins, after: after.pins }) ??
    entriesFault('sheets', sheetSchema, { before: before.sheets, after: after.sheets }) ??
    entriesFault('measures', measureSchema, { before: before.measures, after: after.measures }) ??
    entriesFault('fits', fitSchema, { before: before.fits, after: after.fits }) ??
    entriesFault('meant', meantSchema, { before: before.meant, after: after.meant }) ??
    entriesFault('joints', jointSchema, { before: before.joints, after: after.joints }) ??
    entriesFault('rackParts', rackPartSchema, { before: before.rackParts, after: after.rackParts }) ??
    (HANGING.every(isSame) ? undefined : hangFault(after))
  );
}

/** What refers to itself or to one another by ids. */
const HANGING = ['items', 'pins', 'sheets', 'measures', 'fits', 'meant', 'joints'] as const;

function hangFault(document: KadrelDocument): string | undefined {
  const [fault] = joinFaults(document);
  return fault && damaged(fault.path, fault.message);
}

const damaged = (path: readonly PropertyKey[], message: string) =>
  `The document would be damaged at ${path.map(String).join('.')}: ${message}`;

function faultOf(path: readonly PropertyKey[], schema: z.ZodType, value: unknown): string | undefined {
  const parsed = schema.safeParse(value);
  if (parsed.success) return undefined;
  const [issue] = parsed.error.issues;
  return damaged([...path, ...issue!.path], issue!.message);
}

/** Only entries that are others than before. */
function entriesFault(
  root: string,
  schema: z.ZodType,
  { before, after }: { readonly before: Readonly<Record<string, unknown>>; readonly after: unknown },
): string | undefined {
  if (before === after) return undefined;
  if (typeof after !== 'object' || after === null || Array.isArray(after))
    return damaged([root], 'It is no list of entries by id.');
  const entries = Object.entries(after);
  if (entries.length > MAX_ITEMS) return damaged([root], `There are more than ${MAX_ITEMS} entries.`);
  for (const [id, entry] of entries) {
    if (before[id] === entry) continue;
    const fault = faultOf([root, id], schema, entry);
    if (fault !== undefined) return fault;
  }
  return undefined;
}
