/** Tries random recipes as its parent asks, in a process that can be ended where the kernel does not come back. */
import { loadLibraries } from '@kadrel/kernel/node';
import { KernelStopped, tryRecipe, type RecipeVerdict } from './recipes.ts';

/** What the parent asks. */
export interface RecipeAsked {
  readonly seed: number;
  /** Keys of contents that are not to be built, and what is said of them. */
  readonly poisoned: readonly (readonly [string, string])[];
}

/** What it is told. */
export type RecipeTold =
  | { readonly is: 'building'; readonly key: string }
  | { readonly is: 'done'; readonly verdicts: readonly RecipeVerdict[] }
  /** The kernel is of no more use. */
  | { readonly is: 'stopped'; readonly key: string | undefined; readonly words: string };

/** A kernel that has grown beyond this is given up, as the page does: it loses some memory with every operation. */
const MAX_BYTES = 1 << 30;

const tell = (told: RecipeTold): unknown => process.send?.(told);

let libraries = await loadLibraries();

function answer({ seed, poisoned }: RecipeAsked): void {
  try {
    const onBuilding = (key: string) => tell({ is: 'building', key });
    tell({ is: 'done', verdicts: tryRecipe(libraries, seed, { poisoned: new Map(poisoned), onBuilding }) });
  } catch (error) {
    tell({
      is: 'stopped',
      key: error instanceof KernelStopped ? error.key : undefined,
      words: String(error),
    });
  }
}

process.on('message', (asked: RecipeAsked) => {
  void (async () => {
    if (libraries.occt.wasmMemory.buffer.byteLength > MAX_BYTES) libraries = await loadLibraries();
    answer(asked);
  })();
});
