/** Where a page keeps what the server does not have yet: the browser's database, under a place for each page. */
import { editSchema, type Edit } from '@kadrel/core';
import { createStore, del, entries, promisifyRequest, set, type UseStore } from 'idb-keyval';
import { z } from 'zod';

/** An edit that the server will not take, and why. */
export interface Aside {
  readonly edit: Edit;
  readonly reason: string;
}

/** What a page has kept of its unsaved edits. */
export interface Kept {
  /** The revision that the edits go on from. */
  readonly base: number;
  readonly edits: readonly Edit[];
  readonly aside: readonly Aside[];
}

/** What former visits left, put together, and the places that it lay in. */
export interface Left extends Kept {
  readonly places: readonly string[];
  /** As it lay in each place: edits of one place go on from its own base. */
  readonly parts: readonly Kept[];
}

/** Where unsaved edits are kept. */
export interface Shelf {
  /** Undefined where nothing was left. What is damaged is passed over, and stays where it is. */
  left(projectId: string): Promise<Left | undefined>;
  /** Rejects where there is no room. */
  keep(place: string, kept: Kept): Promise<void>;
  forget(place: string): Promise<void>;
  /** Gives up places of other pages, as far as they hold nothing but these edits: such a page may still be open, and go on. */
  forgetTaken(places: readonly string[], taken: readonly Edit[]): Promise<void>;
}

const keptSchema = z.object({
  base: z.number().int().nonnegative(),
  edits: z.array(editSchema),
  aside: z.array(z.object({ edit: editSchema, reason: z.string() })).default([]),
});

/** Under which key. */
export const placeOf = (projectId: string, pageId: string): string => `kadrel.unsaved.${projectId}.${pageId}`;
const prefixOf = (projectId: string) => placeOf(projectId, '');

/** Every page has a place of its own; an edit that two pages kept counts once. */
export function putTogether(found: readonly (readonly [place: string, kept: Kept])[]): Left | undefined {
  if (found.length === 0) return undefined;
  const edits = new Map(found.flatMap(([, kept]) => kept.edits).map((edit) => [edit.id, edit]));
  const aside = new Map(found.flatMap(([, kept]) => kept.aside).map((one) => [one.edit.id, one]));
  return {
    base: Math.min(...found.map(([, { base }]) => base)),
    edits: [...edits.values()].filter(({ id }) => !aside.has(id)),
    aside: [...aside.values()],
    places: found.map(([place]) => place),
    parts: found.map(([, kept]) => kept),
  };
}

/** In the browser’s database. */
export function browserShelf(): Shelf {
  let store: UseStore | undefined;
  const opened = () => (store ??= createStore('kadrel', 'unsaved'));
  return {
    async left(projectId) {
      const isOf = (place: unknown): place is string =>
        typeof place === 'string' && place.startsWith(prefixOf(projectId));
      const kept = (await entries<IDBValidKey, unknown>(opened())).filter(([place]) => isOf(place));
      const old = Object.keys(localStorage)
        .filter(isOf)
        .map((place) => [place, parsed(localStorage.getItem(place))] as const);
      return putTogether(
        [...(kept as [string, unknown][]), ...old].flatMap(([place, value]) => {
          const read = keptSchema.safeParse(value);
          return read.success ? [[place, read.data] as const] : [];
        }),
      );
    },
    keep: (place, kept) => set(place, kept, opened()),
    forget: (place) => del(place, opened()),
    async forgetTaken(places, taken) {
      for (const place of places) {
        if (holdsOnly(parsed(localStorage.getItem(place)), taken)) localStorage.removeItem(place);
        // Looked at and deleted in one transaction.
        await opened()('readwrite', (stored) => {
          const asked = stored.get(place) as IDBRequest<unknown>;
          asked.onsuccess = () => {
            if (holdsOnly(asked.result, taken)) stored.delete(place);
          };
          return promisifyRequest(stored.transaction);
        });
      }
    },
  };
}

/** Whether what lies in a place is known to hold nothing else than these edits. */
export function holdsOnly(value: unknown, edits: readonly Edit[]): boolean {
  const read = keptSchema.safeParse(value);
  if (!read.success) return false;
  const ids = new Set(edits.map(({ id }) => id));
  return [...read.data.edits, ...read.data.aside.map(({ edit }) => edit)].every(({ id }) => ids.has(id));
}

/** Pages before kept their edits as texts. */
function parsed(text: string | null): unknown {
  try {
    return text === null ? undefined : JSON.parse(text);
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}
