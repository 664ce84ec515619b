/** Combinations that once came out wrong, by their seeds: `npm run torture -- booleans` found them. */
import { sharedLibraries } from '@kadrel/kernel/node';
import { isEveryTrial } from '@kadrel/testing';
import { trial } from './booleans.ts';
import { loadFacets } from './facets.ts';
import { NEAR_CLASS } from './cases.ts';

/** What once failed, and whether it takes so long that only `npm run torture -- checks` tries it. */
interface Known {
  readonly of: string;
  readonly seed: number;
  readonly because: string;
  readonly isLong?: boolean;
}

let libraries: Awaited<ReturnType<typeof sharedLibraries>>;
let facets: Awaited<ReturnType<typeof loadFacets>>;
beforeAll(async () => {
  libraries = await sharedLibraries();
  facets = await loadFacets();
});

const KNOWN = [
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
  {
    of: 'results used again',
    seed: 1048,
    isLong: true,
    because: 'splines with joints, integrated across them',
  },
  {
    of: 'patterns',
    seed: 300151,
    isLong: true,
    because: 'a ring in common with cones, of which the second way gave each piece twice',
  },
  { of: 'tangent', seed: 3, because: 'cylinders touching along a line, which came out as nothing' },
] satisfies readonly Known[];

test.each(KNOWN.filter(({ isLong }: Known) => isEveryTrial || !isLong))(
  '$of, seed $seed: $because',
  ({ of, seed }) => {
    const verdicts = trial(libraries, facets, { class: of, seed });
    expect(verdicts.length).toBeGreaterThan(0);
    expect(verdicts.filter(({ outcome }) => outcome !== 'right')).toEqual([]);
  },
);
