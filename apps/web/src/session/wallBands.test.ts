import { emptyDocument } from '@kadrel/core';
import { BANDS, bandOf, bandWords } from './wallBands.ts';

test('a wall as thick as is wanted is thick enough, and each band has words', () => {
  expect([0.79, 0.8, 1.59, 1.6, 3.2, 500, Infinity].map((size) => bandOf(size, 0.8))).toEqual([
    0, 1, 1, 2, 3, 3, 4,
  ]);
  // Facets are in single precision.
  expect(bandOf(Math.fround(0.8) - 2e-8, 0.8)).toBe(1);
  const words = bandWords(0.8, emptyDocument().scene);
  expect(words).toHaveLength(BANDS.length);
  expect(words[0]).toBe('below 0.8 mm: too thin');
});
