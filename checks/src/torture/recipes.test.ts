/** Some of the random recipes; `npm run torture -- recipes` tries a thousand. */
import { loadLibraries } from '@kadrel/kernel/node';
import { tryRecipe } from './recipes.ts';

test('random recipes are sound, or name the step that cannot be done', async () => {
  const libraries = await loadLibraries();
  for (const seed of [1, 2, 4, 9, 17, 24]) {
    const wrong = tryRecipe(libraries, seed).filter(({ outcome }) => outcome === 'wrong');
    expect({ seed, wrong }).toEqual({ seed, wrong: [] });
  }
});
