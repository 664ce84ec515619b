/**
 * A part of `npm run torture -- booleans`: every class of scenes, held against facets, formulas and inclusion and exclusion. What has
 * gone wrong before stands here by its seed.
 */
import { loadLibraries } from '@kadrel/kernel/node';
import Module from 'manifold-3d';
import { trial } from './booleans.ts';
import { CLASSES, NEAR_CLASS } from './cases.ts';

/** Results used again five deep take longest by far. */
const scenesOf = (name: string) => (name === 'results used again' ? 3 : 9);
const FIRST_SEED = 500;

let libraries: Awaited<ReturnType<typeof loadLibraries>>;
let facets: Awaited<ReturnType<typeof Module>>;
beforeAll(async () => {
  libraries = await loadLibraries();
  facets = await Module();
  facets.setup();
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
  expect(refused / verdicts.length).toBeLessThanOrEqual(name === NEAR_CLASS ? 0.34 : 0.12);
});

test.each([
  {
    of: NEAR_CLASS,
    seed: 205,
    because: 'a border beside a pole of a ball, where the kernel integrates 1e-3 off',
  },
  { of: 'two solids', seed: 404, because: 'a ring and a cone' },
  { of: 'three to five solids', seed: 513, because: 'a cut that took nothing out' },
  {
    of: 'ten metres and a tenth of a millimetre',
    seed: 500,
    because: 'a small patch of a large ball, once taken for the whole ball',
  },
  { of: 'concentric', seed: 402, because: 'a ball between two planes' },
  { of: 'results used again', seed: 1048, because: 'splines with joints, integrated across them' },
  {
    of: 'patterns',
    seed: 300151,
    because: 'a ring in common with cones, of which the second way gave each piece twice',
  },
  { of: 'tangent', seed: 3, because: 'cylinders touching along a line, which came out as nothing' },
])('$of, seed $seed: $because', ({ of, seed }) => {
  expect(verdictsOf(of, [seed]).filter(({ outcome }) => outcome !== 'right')).toEqual([]);
});
