/** Limits and fits: tolerance grades by the formula of ISO 286-1, and fits as its tables have them, from memory. */
import { deviationsOf, isoFit } from '@kadrel/core';

/** Ranges of nominal sizes, mm, as ISO 286-1 has them. */
const RANGES = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500];
/** Tolerance units in each grade. Source: ISO 286-1, from memory. */
const UNITS: Readonly<Record<number, number>> = { 5: 7, 6: 10, 7: 16, 8: 25, 9: 40, 10: 64, 11: 100 };

test('grades follow i = 0.45 ∛D + 0.001 D, but for how the standard rounds', () => {
  RANGES.slice(1).forEach((end, k) => {
    const mean = Math.sqrt(RANGES[k]! * end);
    const unit = 0.45 * Math.cbrt(mean) + 0.001 * mean;
    for (const [grade, count] of Object.entries(UNITS)) {
      const { lower, upper } = deviationsOf(end, `H${grade}`)!;
      expect(lower).toBe(0);
      // The standard rounds to whole µm, and the larger grades to fives and tens; IT5 is listed below its formula by up to half a unit.
      const formula = count * unit;
      expect(Math.abs(upper * 1000 - formula)).toBeLessThan(Math.max(1, 0.065 * formula));
    }
  });
});

/** Nominal size, class, lower and upper deviation, µm. Source: tables of ISO 286-2, from memory. */
const TABLE: readonly (readonly [number, string, number, number])[] = [
  [25, 'H7', 0, 21],
  [25, 'g6', -20, -7],
  [25, 'h6', -13, 0],
  [25, 'f7', -41, -20],
  [25, 'k6', 2, 15],
  [25, 'm6', 8, 21],
  [25, 'n6', 15, 28],
  [25, 'p6', 22, 35],
  [25, 'r6', 28, 41],
  [25, 's6', 35, 48],
  [25, 'js6', -6.5, 6.5],
  [25, 'K7', -15, 6],
  [25, 'M7', -21, 0],
  [25, 'N7', -28, -7],
  [25, 'P7', -35, -14],
  [25, 'F8', 20, 53],
  [25, 'G7', 7, 28],
  [10, 'H8', 0, 22],
  [10, 'e8', -47, -25],
  [50, 'H9', 0, 62],
  [50, 'd9', -142, -80],
  [6, 'h9', -30, 0],
  [100, 'H7', 0, 35],
  [100, 'f7', -71, -36],
  [3, 'K7', -10, 0],
  [200, 's6', 122, 151],
];

test.each(TABLE)('⌀%d %s lies between %d and %d µm', (nominal, name, lower, upper) => {
  const found = deviationsOf(nominal, name)!;
  expect(found.lower * 1000).toBeCloseTo(lower, 6);
  expect(found.upper * 1000).toBeCloseTo(upper, 6);
});

test('fits: clearance, transition and interference', () => {
  expect(isoFit(25, 'H7/g6')).toMatchObject({
    kind: 'clearance',
    leastClearance: 0.007,
    greatestClearance: 0.041,
  });
  expect(isoFit(25, 'H7/k6')).toMatchObject({
    kind: 'transition',
    leastClearance: -0.015,
    greatestClearance: 0.019,
  });
  expect(isoFit(25, 'H7/p6')).toMatchObject({
    kind: 'interference',
    leastClearance: -0.035,
    greatestClearance: -0.001,
  });
  expect(isoFit(40, 'H11/d9')).toMatchObject({ kind: 'clearance', leastClearance: 0.08 });
  for (const wrong of ['g6/H7', 'H7', 'H4/g6', 'Q7/g6', '']) expect(isoFit(25, wrong)).toBeUndefined();
  expect(isoFit(600, 'H7/g6')).toBeUndefined();
});
