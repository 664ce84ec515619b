/** The browser's database of solids that were built. */
import { clear, createStore, type UseStore } from 'idb-keyval';

let store: UseStore | undefined;

/** Throws where the browser keeps nothing. */
export const solidStore = (): UseStore => (store ??= createStore('kadrel-solids', 'solids'));

/** Whoever signs in next in this browser finds nothing of it. */
export async function forgetSolids(): Promise<void> {
  try {
    await clear(solidStore());
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}
