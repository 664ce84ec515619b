/** Edges that are sharp in part. Sharp and soft places for good are held against formulas in checks/src/softening.test.ts. */
import { add, scale } from '@kadrel/core';
import { numbers, trials } from '@kadrel/testing';
import { CUBE } from './cages.fixture.ts';
import { edgeKey, refined } from './refined.ts';

const EDGES = [1, 2, 4].flatMap((way) =>
  [0, 1, 2, 3, 4, 5, 6, 7].filter((i) => (i & way) === 0).map((i) => edgeKey(i, i | way)),
);

const pointsWith = (sharp: ReadonlyMap<string, number>) => refined({ ...CUBE, sharp }).points;

// A corner of a cage depends on how sharp its edges are as on how many there are above each level of sharpness: it is the mean over all
// levels. The rule is our own (no source); for edges that are all alike it is that of DeRose, Kass and Truong (1998).
test('edges of different sharpness come to the mean of cages whose edges are sharp from a level on', () => {
  const random = numbers(16);
  for (let i = 0; i < trials(200); i++) {
    const sharp = new Map(
      EDGES.filter(() => random() < 0.6).map((key) => [key, Math.ceil(10 * random()) / 10]),
    );
    const levels = [0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];
    const means = levels
      .map((level) =>
        pointsWith(new Map([...sharp].filter(([, one]) => one > level - 0.05).map(([key]) => [key, 1]))),
      )
      .reduce((sum, points) => sum.map((at, k) => add(at, points[k]!)))
      .map((at) => scale(at, 1 / levels.length));
    pointsWith(sharp).forEach((at, k) =>
      expect(at).toEqual(means[k]!.map((n) => expect.closeTo(n, 12) as number)),
    );
  }
});

test('only edges that are sharp for good stay so', () => {
  const [first, second] = EDGES;
  const { sharp } = refined({
    ...CUBE,
    sharp: new Map([
      [first!, 1],
      [second!, 0.9],
    ]),
  });
  expect([...sharp.values()]).toEqual([1, 1]);
  expect(
    [...sharp.keys()].every((key) => first!.split(' ').some((end) => key.split(' ').includes(end))),
  ).toBe(true);
});
