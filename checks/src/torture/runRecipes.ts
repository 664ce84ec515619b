/** `npm run torture -- recipes [COUNT] [SEED]`: random recipes, by the verb that was tried. */
import { loadLibraries } from '@kadrel/kernel/node';
import { tryRecipe, type Libraries, type RecipeVerdict } from './recipes.ts';
import { clock, isReported, printTable, say } from './table.ts';

/** A kernel that has grown beyond this is given up, as the page does: it loses some memory with every operation. */
const MAX_BYTES = 1 << 30;

const STOPPED = 'the kernel stopped';

function tried(libraries: Libraries, seed: number): RecipeVerdict[] {
  try {
    return tryRecipe(libraries, seed);
  } catch (error) {
    return [{ class: 'kernel', outcome: 'wrong', seed, words: `${STOPPED}: ${String(error)}` }];
  }
}

export async function runRecipes([count = '1000', start = '1']: readonly string[]): Promise<void> {
  let libraries = await loadLibraries();
  const verdicts: RecipeVerdict[] = [];
  const times = new Map<string, number>();
  const isTimeLeft = clock();
  for (let i = 0; i < Number(count) && isTimeLeft(); i++) {
    if (libraries.occt.wasmMemory.buffer.byteLength > MAX_BYTES) libraries = await loadLibraries();
    const begun = performance.now();
    const seed = Number(start) + i;
    const some = tried(libraries, seed);
    // A kernel that has stopped is of no more use.
    if (some.some(({ words }) => words.startsWith(STOPPED))) libraries = await loadLibraries();
    times.set('off', (times.get('off') ?? 0) + performance.now() - begun);
    verdicts.push(...some);
    for (const one of some.filter(isReported))
      say(`${one.outcome}: ${one.class}, seed ${one.seed}: ${one.words}`);
  }
  printTable([...new Set(verdicts.map((one) => one.class))].sort(), verdicts, times);
  say(`seeds from ${start}`);
  if (verdicts.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
}
