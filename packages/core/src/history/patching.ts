/** Edits from elsewhere → the document after them. Each patch is checked before it is applied, so that none costs more than it weighs. */
import { produceWithPatches, type Patch as ImmerPatch } from 'immer';
import type { KadrelDocument } from '../document/schema.ts';
import { touchedFault } from '../document/touched.ts';
import type { Edit } from './edit.ts';
import { copyJson, jsonFault } from './json.ts';

type Patch = Edit['patches'][number];

/** Why an edit is not taken. */
export interface EditFault {
  readonly edit: string;
  readonly message: string;
}

/** Whether it is the fault of an edit, and not a document. */
export const isEditFault = (value: object): value is EditFault => 'edit' in value;

/** The document after all edits, or what is wrong with the first that does not fit. Neither is changed in place. */
export function afterEdits(document: KadrelDocument, edits: readonly Edit[]): KadrelDocument | EditFault {
  let current = document;
  for (const edit of edits) {
    const next = afterEdit(current, edit);
    if (typeof next === 'string') return { edit: edit.id, message: next };
    current = next;
  }
  return current;
}

function afterEdit(document: KadrelDocument, edit: Edit): KadrelDocument | string {
  const bad = jsonFault(edit);
  if (bad !== undefined) return bad;
  const done = patched(document, edit.patches);
  return typeof done === 'string' ? done : done.document;
}

/** The document after checked patches with what takes them back, or what is wrong with them. */
export function patched(
  document: KadrelDocument,
  patches: Edit['patches'],
): { document: KadrelDocument; inverses: ImmerPatch[] } | string {
  let fault: string | undefined;
  const [next, , inverses] = produceWithPatches(document, (draft) => {
    for (const patch of patches) {
      fault = applyPatch(draft, patch);
      if (fault !== undefined) return;
    }
  });
  if (fault !== undefined) return fault;
  return touchedFault(document, next) ?? { document: next, inverses };
}

type Container = Record<string, unknown> | unknown[];

const ROOTS: readonly unknown[] = [
  'scene',
  'variables',
  'items',
  'pins',
  'views',
  'sheets',
  'measures',
  'fits',
  'meant',
  'joints',
  'rackParts',
];
/** Names that reach what every object has, rather than what is in it. */
const FORBIDDEN: readonly unknown[] = ['__proto__', 'constructor', 'prototype'];

/** Changes a draft; returns why not, where it does not fit. */
function applyPatch(draft: Container, { op, path, value }: Patch): string | undefined {
  const place = path.join('.');
  if (!ROOTS.includes(path[0])) return `An edit names ${place}, which is no part of a document.`;
  if (path.some((key) => FORBIDDEN.includes(key)))
    return `An edit names ${place}, which nothing may be called.`;
  let at: unknown = draft;
  for (const key of path.slice(0, -1)) {
    if (!isContainer(at) || !Object.hasOwn(at, key)) return notThere(place);
    at = (at as Record<string | number, unknown>)[key];
  }
  if (!isContainer(at)) return notThere(place);
  const key = path.at(-1)!;
  return Array.isArray(at)
    ? patchList(at, key, { op, value, place })
    : patchRecord(at, String(key), { op, value, place });
}

const isContainer = (value: unknown): value is Container => typeof value === 'object' && value !== null;
const notThere = (place: string) => `An edit names a place that is not there: ${place}.`;

interface Act {
  readonly op: Patch['op'];
  readonly value: unknown;
  readonly place: string;
}

function patchRecord(
  record: Record<string, unknown>,
  key: string,
  { op, value, place }: Act,
): string | undefined {
  if (op === 'remove') {
    delete record[key];
    return undefined;
  }
  if (value === undefined) return `An edit has no value for ${place}.`;
  record[key] = copyJson(value);
  return undefined;
}

/** A list may grow by one at a time, and may be cut: nothing is made but what was sent. */
function patchList(list: unknown[], key: string | number, { op, value, place }: Act): string | undefined {
  if (key === 'length') {
    const isCut =
      op === 'replace' &&
      Number.isInteger(value) &&
      (value as number) >= 0 &&
      (value as number) <= list.length;
    if (!isCut) return `An edit makes ${place} longer than what is in it.`;
    list.length = value as number;
    return undefined;
  }
  const index = typeof key === 'number' ? key : /^\d{1,9}$/.test(key) ? Number(key) : -1;
  const max = op === 'add' ? list.length : list.length - 1;
  if (!(Number.isInteger(index) && index >= 0 && index <= max)) return notThere(place);
  if (op === 'remove') {
    list.splice(index, 1);
    return undefined;
  }
  if (value === undefined) return `An edit has no value for ${place}.`;
  list.splice(index, op === 'add' ? 0 : 1, copyJson(value));
  return undefined;
}
