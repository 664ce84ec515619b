/** Some of the random recipes; `npm run torture -- recipes` tries a thousand. */
import { sharedLibraries } from '@kadrel/kernel/node';
import { tryRecipe } from './recipes.ts';

test('random recipes are sound, or name the step that cannot be done', async () => {
  const libraries = await sharedLibraries();
  for (const seed of [1, 3, 4, 6, 8, 9, 24, 5006]) {
    const wrong = tryRecipe(libraries, seed).filter(({ outcome }) => outcome === 'wrong');
    expect({ seed, wrong }).toEqual({ seed, wrong: [] });
  }
});
