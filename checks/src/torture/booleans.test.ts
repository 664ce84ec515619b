/** A part of `npm run torture -- booleans`: every class of scenes, held against facets, formulas and inclusion and exclusion. */
import { sharedLibraries } from '@kadrel/kernel/node';
import { trial } from './booleans.ts';
import { loadFacets } from './facets.ts';
import { trials } from '@kadrel/testing';
import { CLASSES, NEAR_CLASS } from './cases.ts';

/** Results used again five deep, many solids, and bodies between free curves, take longest by far. */
const SLOW = new Set(['results used again', 'bodies from profiles', 'three to five solids']);
const scenesOf = (name: string) => trials(SLOW.has(name) ? 2 : 10);
const FIRST_SEED = 500;

let libraries: Awaited<ReturnType<typeof sharedLibraries>>;
let facets: Awaited<ReturnType<typeof loadFacets>>;
beforeAll(async () => {
  libraries = await sharedLibraries();
  facets = await loadFacets();
});

const verdictsOf = (name: string, seeds: readonly number[]) =>
  seeds.flatMap((seed) => trial(libraries, facets, { class: name, seed }));

test.each(Object.keys(CLASSES))('%s: nothing is silently wrong', (name) => {
  const verdicts = verdictsOf(
    name,
    Array.from({ length: scenesOf(name) }, (_, i) => FIRST_SEED + i),
  );
  expect(verdicts.length).toBeGreaterThan(0);
  expect(verdicts.filter(({ outcome }) => outcome === 'wrong')).toEqual([]);
  const refused = verdicts.filter(({ outcome }) => outcome === 'refused').length;
  // A handful of scenes cannot show one in a hundred; it shows that refusing is no way out.
  const share = name === NEAR_CLASS ? 0.34 : 0.12;
  expect(refused).toBeLessThanOrEqual(Math.max(1, share * verdicts.length));
});
