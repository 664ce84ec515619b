/** The browser's database of solids that were built. */
import { clear, createStore, type UseStore } from 'idb-keyval';

let store: UseStore | undefined;

/** Throws where the browser keeps nothing. */
export const solidStore = (): UseStore => (store ??= createStore('kadrel-solids', 'solids'));

let forgotten = 0;

/** How often all was forgotten in this page: what was begun before is not written after. */
export const timesForgotten = (): number => forgotten;

/** Whoever signs in next in this browser finds nothing of it. */
export async function forgetSolids(): Promise<void> {
  forgotten += 1;
  try {
    await clear(solidStore());
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}
