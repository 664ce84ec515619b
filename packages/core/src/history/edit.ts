/**
 * An edit is a list of patches with their inverses, and a line for the ledger. Undo is not a roll-back: it is a new
 * edit that carries the inverses, so that a project only ever grows, every step can be saved by sending what changed,
 * and two people can undo without losing one another's work. What may be undone follows from the list alone.
 */
import { Immer, applyPatches, enablePatches, freeze, type Patch } from 'immer';
import { z } from 'zod';
import { DOCUMENT_VERSION, type KadrelDocument } from '../document/schema.ts';
import { watched } from '../document/watching.ts';

enablePatches();

const key = z.union([z.string().max(120), z.number().int().nonnegative()]);
const patchSchema = z.strictObject({
  op: z.enum(['add', 'replace', 'remove']),
  path: z.array(key).min(1).max(12),
  value: z.unknown().optional(),
});

/** One committed statement, as the ledger shows it. `values` are as typed, so that it can be run again. */
const ledgerLineSchema = z.strictObject({
  verb: z.string().max(40),
  values: z.record(z.string().max(40), z.unknown()),
  title: z.string().max(2000),
  author: z.string().max(120),
  /** Milliseconds since 1970, UTC. */
  time: z.number().int(),
});
export type LedgerLine = z.infer<typeof ledgerLineSchema>;

/** Of one edit. */
export const MAX_PATCHES = 100_000;

/** An edit as it is sent and stored. */
export const editSchema = z.strictObject({
  /** Made by whoever makes the edit; sending the same edit twice stores it once. */
  id: z.string().regex(/^[a-z0-9-]{8,64}$/),
  kind: z.enum(['do', 'undo', 'redo']),
  /** For undo and redo: the `do` edit that it takes back or brings back. */
  of: z.string().max(64).optional(),
  /** Of the document that it was made on. Edits from before this was kept have none: theirs is the version of the document they meet. */
  version: z.number().int().positive().optional(),
  patches: z.array(patchSchema).max(MAX_PATCHES),
  inverses: z.array(patchSchema).max(MAX_PATCHES),
  line: ledgerLineSchema,
});
export type Edit = z.infer<typeof editSchema>;

/** A document after a change, with the patches there and back. */
export interface Change {
  readonly document: KadrelDocument;
  readonly patches: Edit['patches'];
  readonly inverses: Edit['inverses'];
}

/** Left to itself it would look at every item of a document after each change, to see whether it is frozen. */
const { produceWithPatches } = new Immer({ autoFreeze: false });

/** Runs `work` on a draft and returns the new document with the patches there and back. The document is frozen where that one is. */
export function change(document: KadrelDocument, work: (draft: KadrelDocument) => void): Change {
  const [next, patches, inverses] = produceWithPatches(document, (draft) => {
    work(watched(draft));
  });
  for (const { path, value } of patches) {
    freeze(value, true);
    freezeAlong(next, path);
  }
  return { document: next, patches: patches, inverses: inverses };
}

/** Freezes what holds a changed place. What it holds besides is as it was. */
function freezeAlong(document: KadrelDocument, path: readonly (string | number)[]): void {
  let at: unknown = document;
  for (const step of path) {
    if (typeof at !== 'object' || at === null) return;
    Object.freeze(at);
    at = (at as Readonly<Record<string, unknown>>)[step];
  }
  freeze(at, true);
}

/** The document after the edit. Throws an Error when a patch names a place that is not there. */
export function applyEdit(document: KadrelDocument, edit: Pick<Edit, 'patches'>): KadrelDocument {
  return applyPatches(document, edit.patches as Patch[]);
}

/** Ids of the `do` edits that can be taken back and brought back, the next one last. */
export interface UndoStacks {
  readonly undo: readonly string[];
  readonly redo: readonly string[];
}

/** What can be undone and redone, the last one last. */
export function undoStacks(edits: readonly Edit[]): UndoStacks {
  const undo: string[] = [];
  let redo: string[] = [];
  const drop = (list: string[], id: string | undefined) => {
    const at = id === undefined ? -1 : list.lastIndexOf(id);
    if (at >= 0) list.splice(at, 1);
  };
  for (const edit of edits) {
    if (edit.kind === 'do') {
      undo.push(edit.id);
      redo = [];
    } else if (edit.kind === 'undo') {
      drop(undo, edit.of);
      if (edit.of) redo.push(edit.of);
    } else {
      drop(redo, edit.of);
      if (edit.of) undo.push(edit.of);
    }
  }
  return { undo, redo };
}

/** The edit that a statement becomes once it was carried out. */
export const editOf = (
  done: Pick<Edit, 'patches' | 'inverses'> & { readonly title: string },
  { id, ...line }: Omit<Edit['line'], 'title'> & { readonly id: string },
): Edit => ({
  id,
  kind: 'do',
  version: DOCUMENT_VERSION,
  patches: done.patches,
  inverses: done.inverses,
  line: { ...line, title: done.title },
});

/** The edit that takes back the last statement, or brings it back; undefined when there is none. */
export function stepBack(
  edits: readonly Edit[],
  kind: 'undo' | 'redo',
  made: { id: string; time: number; author: string },
): Edit | undefined {
  const of = undoStacks(edits)[kind].at(-1);
  const source = edits.find((edit) => edit.id === of);
  if (!source || of === undefined) return undefined;
  const back = kind === 'undo';
  return {
    id: made.id,
    kind,
    of,
    version: DOCUMENT_VERSION,
    patches: back ? source.inverses : source.patches,
    inverses: back ? source.patches : source.inverses,
    line: { ...source.line, time: made.time, author: made.author },
  };
}

/** The statements in force, oldest first: what the ledger shows. */
export function ledgerOf(edits: readonly Edit[]): Edit[] {
  const live = new Set(undoStacks(edits).undo);
  return edits.filter((edit) => edit.kind === 'do' && live.has(edit.id));
}

/** True when one edit writes where the other writes, so that their order matters. */
export function editsCollide(
  a: readonly Pick<Edit, 'patches'>[],
  b: readonly Pick<Edit, 'patches'>[],
): boolean {
  const paths = (edits: readonly Pick<Edit, 'patches'>[]) =>
    edits.flatMap((edit) => edit.patches.map((patch) => patch.path));
  const others = paths(b);
  return paths(a).some((path) => others.some((other) => isPrefix(path, other) || isPrefix(other, path)));
}

const isPrefix = (short: readonly (string | number)[], long: readonly (string | number)[]) =>
  short.length <= long.length && short.every((part, i) => String(part) === String(long[i]));
