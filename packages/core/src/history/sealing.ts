/**
 * Edits from a page → edits as a project keeps them. What a page could say wrongly, by mistake or on purpose, is set or checked: who
 * made an edit and when, what takes it back, and what an undo or a redo is about.
 */
import { DOCUMENT_VERSION, type KadrelDocument } from '../document/schema.ts';
import { MAX_PATCHES, type Edit } from './edit.ts';
import { jsonFault } from './json.ts';
import { patched, type EditFault } from './patching.ts';

/** What is known of a project's history. */
export interface History {
  readonly author: string;
  /** Milliseconds since 1970: no edit was made later. */
  readonly now: number;
  /** Of the last statement before these edits: none was made earlier. */
  readonly lastTime: number;
  /** A `do` edit that an undo or a redo is about; undefined where the project has none of this id. */
  source(id: string): Source | undefined;
}

/** A statement that an undo or a redo may be about. */
export interface Source {
  readonly edit: Edit;
  /** False while it is taken back. */
  readonly isInForce: boolean;
}

/** Edits as a project keeps them, and the document after them. */
export interface Sealed {
  readonly document: KadrelDocument;
  readonly edits: readonly Edit[];
}

/** The edits as they are kept, with the document after them; or what is wrong with the first that is not taken. */
export function sealEdits(
  document: KadrelDocument,
  edits: readonly Edit[],
  history: History,
): Sealed | EditFault {
  const own = new Map<string, Source>();
  const source = (id: string) => own.get(id) ?? history.source(id);
  const kept: Edit[] = [];
  let current = document;
  for (const edit of edits) {
    const lastTime = kept.at(-1)?.line.time ?? history.lastTime;
    const done = sealEdit(current, edit, { ...history, lastTime, source });
    if (typeof done === 'string') return { edit: edit.id, message: done };
    current = done.document;
    kept.push(done.edit);
    const about = done.edit.of === undefined ? done.edit : source(done.edit.of)!.edit;
    own.set(about.id, { edit: about, isInForce: edit.kind !== 'undo' });
  }
  return { document: current, edits: kept };
}

function sealEdit(
  before: KadrelDocument,
  edit: Edit,
  history: History,
): { document: KadrelDocument; edit: Edit } | string {
  const bad = jsonFault(edit);
  if (bad !== undefined) return bad;
  const source = edit.kind === 'do' ? undefined : sourceOf(edit, history);
  if (typeof source === 'string') return source;
  const patches = source ? patchesOf(edit.kind, source) : edit.patches;
  const done = patched(before, patches);
  if (typeof done === 'string') return done;
  if (done.inverses.length > MAX_PATCHES) return `An edit changes more than ${MAX_PATCHES} values.`;
  const { author, now, lastTime } = history;
  const time = Math.max(lastTime, Math.min(edit.line.time, now));
  const { of: _, ...rest } = edit;
  const sealed: Edit = {
    ...rest,
    version: DOCUMENT_VERSION,
    patches,
    inverses: done.inverses,
    line: { ...(source ?? edit).line, author, time },
  };
  return { document: done.document, edit: source ? { ...sealed, of: source.id } : sealed };
}

/** An undo does what takes its statement back in the project, and a redo what the statement did, whatever the page says. */
const patchesOf = (kind: Edit['kind'], source: Edit) => (kind === 'undo' ? source.inverses : source.patches);

/** The statement that an undo or a redo is about. */
function sourceOf(edit: Edit, history: History): Edit | string {
  const isUndo = edit.kind === 'undo';
  const source = edit.of === undefined ? undefined : history.source(edit.of);
  if (!source) return `This ${edit.kind} is about a statement that the project does not have.`;
  if (source.isInForce !== isUndo)
    return `“${source.edit.line.title}” is ${isUndo ? 'taken back' : 'in force'} already.`;
  return source.edit;
}
