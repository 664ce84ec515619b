/** Some of the random recipes; `npm run torture -- recipes` tries a thousand. */
import { loadLibraries, sharedLibraries } from '@kadrel/kernel/node';
import { KernelStopped, tryRecipe, type RecipeVerdict } from './recipes.ts';

/** As the page goes on: over what the kernel has stopped is not tried again, by another kernel. */
async function tried(seed: number): Promise<readonly RecipeVerdict[]> {
  const poisoned = new Map<string, string>();
  for (let libraries = await sharedLibraries(); ; libraries = await loadLibraries())
    try {
      return tryRecipe(libraries, seed, { poisoned, onBuilding: () => undefined });
    } catch (error) {
      if (!(error instanceof KernelStopped) || poisoned.has(error.key)) throw error;
      poisoned.set(error.key, 'The kernel stopped while it built this.');
    }
}

test('random recipes are sound, or name the step that cannot be done', async () => {
  for (const seed of [1, 3, 4, 8, 9, 13, 15, 20, 22, 24, 5006]) {
    const wrong = (await tried(seed)).filter(({ outcome }) => outcome === 'wrong');
    expect({ seed, wrong }).toEqual({ seed, wrong: [] });
  }
});
