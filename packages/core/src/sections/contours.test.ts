/** Heights beside contours. */
import { built, type Statement } from '@kadrel/testing';
import { contourHeightsIn } from './contours.ts';

const after = (...statements: readonly Statement[]) => built([...statements]);

const circle = (as: string, z: number) =>
  [
    'circle',
    {
      as,
      on: {
        points: [
          [0, 0, z],
          [1, 0, z],
          [0, 1, z],
        ],
      },
      diameter: 10,
    },
  ] as const;
const rings = [circle('low', 20), circle('high', 35.5)] as const;

test('each outline is told where it lies farthest to the right, over the plane that was said', () => {
  const shown = after(...rings, ['contour-heights', { parts: ['low', 'high'] }]);
  expect(contourHeightsIn(shown).map(({ height }) => height)).toEqual([20, 35.5]);
  expect(contourHeightsIn(shown)[0]!.at).toEqual([expect.closeTo(5, 9), expect.closeTo(0, 9), 20]);
  const over = after(
    ...rings,
    ['plane', { as: 'base', offset: 15 }],
    ['contour-heights', { parts: ['high'], on: 'base' }],
  );
  expect(contourHeightsIn(over).map(({ height }) => height)).toEqual([20.5]);
});

test('a group tells for all of it, what is hidden is not told, and they can be hidden again', () => {
  const grouped = [
    ...rings,
    ['group', { parts: ['low', 'high'], as: 'hill' }],
    ['contour-heights', { parts: ['hill'] }],
  ] as const;
  expect(contourHeightsIn(after(...grouped))).toHaveLength(2);
  expect(contourHeightsIn(after(...grouped, ['change', { parts: ['low'], visible: 'no' }]))).toHaveLength(1);
  expect(
    contourHeightsIn(after(...grouped, ['contour-heights', { parts: ['hill'], how: 'hidden' }])),
  ).toEqual([]);
});

test('what holds no drawn lines has no heights', () => {
  expect(() => after(['box', { as: 'b', size: [1, 1, 1] }], ['contour-heights', { parts: ['b'] }])).toThrow(
    /b holds no drawn lines/,
  );
});
