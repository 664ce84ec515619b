/** A stored document and the edits after it → the document of the present version. */
import type { KadrelDocument } from '../document/schema.ts';
import { lifted, readDocument, versionOf } from '../document/migrations.ts';
import { applyEdit, type Edit } from './edit.ts';

/**
 * Every edit meets the document as it was when the edit was made: a document is lifted to the version of the next edit, and the last
 * one to the present version. Throws an Error where what is stored is damaged, or newer than this Kadrel (`NewerVersionError`).
 */
export function replay(stored: unknown, edits: readonly Edit[]): KadrelDocument {
  let document: unknown = lifted(stored, versionOf(stored));
  for (const edit of edits) {
    if (edit.version !== undefined) document = lifted(document, Math.max(edit.version, versionOf(document)));
    document = applyEdit(document as KadrelDocument, edit);
  }
  return readDocument(document);
}
