import { largestThatFits } from './largest.ts';

/** What was tried, and what was found. */
function tried(value: number, fits: (size: number) => boolean) {
  const sizes: number[] = [];
  const found = largestThatFits(value, (size) => {
    sizes.push(size);
    return fits(size);
  });
  return { found, count: sizes.length };
}

test.each([7.9, 3, 0.3, 0.02])(
  'what fits up to %p is found to a thousandth of what was asked for',
  (most) => {
    const { found, count } = tried(8, (size) => size <= most);
    expect(found!).toBeLessThanOrEqual(most);
    expect(found!).toBeGreaterThan(most - 8 / 1000);
    expect(count).toBeLessThanOrEqual(12);
  },
);

test('where nothing fits, that is known after two tries', () =>
  expect(tried(8, () => false)).toEqual({ found: undefined, count: 2 }));

test('where a try takes longer than one waits, what is known will do', () => {
  let now = 0;
  const clock = jest.spyOn(performance, 'now').mockImplementation(() => now);
  const { found, count } = tried(8, (size) => {
    now += 3000;
    return size <= 5;
  });
  expect({ found, count }).toEqual({ found: 4.125, count: 2 });
  clock.mockRestore();
});
