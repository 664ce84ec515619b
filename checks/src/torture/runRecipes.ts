/** `npm run torture -- recipes [COUNT] [SEED]`: random recipes, by the verb that was tried. */
import { loadLibraries } from '@kadrel/kernel/node';
import { tryRecipe, type RecipeVerdict } from './recipes.ts';
import { clock, isTold, printTable, say } from './table.ts';

/** After so many recipes the kernel is loaded anew: it loses some memory with every operation. */
const RECIPES_A_KERNEL = 100;

export async function runRecipes([count = '1000', start = '1']: readonly string[]): Promise<void> {
  let libraries = await loadLibraries();
  const verdicts: RecipeVerdict[] = [];
  const times = new Map<string, number>();
  const isTimeLeft = clock();
  for (let i = 0; i < Number(count) && isTimeLeft(); i++) {
    if (i > 0 && i % RECIPES_A_KERNEL === 0) libraries = await loadLibraries();
    const begun = performance.now();
    const some = tryRecipe(libraries, Number(start) + i);
    times.set('off', (times.get('off') ?? 0) + performance.now() - begun);
    verdicts.push(...some);
    for (const one of some.filter(isTold))
      say(`${one.outcome}: ${one.class}, seed ${one.seed}: ${one.words}`);
  }
  printTable([...new Set(verdicts.map((one) => one.class))].sort(), verdicts, times);
  say(`seeds from ${start}`);
  if (verdicts.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
}
