/** Some of the random recipes; `npm run torture -- recipes` tries a thousand. */
import { sharedLibraries } from '@kadrel/kernel/node';
import { tryRecipe } from './recipes.ts';

test('random recipes are sound, or name the step that cannot be done', async () => {
  const libraries = await sharedLibraries();
  for (const seed of [1, 4, 8, 9, 15, 20, 22, 24]) {
    const wrong = tryRecipe(libraries, seed).filter(({ outcome }) => outcome === 'wrong');
    expect({ seed, wrong }).toEqual({ seed, wrong: [] });
  }
});
