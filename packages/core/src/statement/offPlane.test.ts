import { emptyDocument } from '../document/items.ts';
import { isRefusal } from './declare.ts';
import { verbNamed } from '../verbs/index.ts';
import { perform } from './perform.ts';
import type { Typed } from './resolving.ts';
import { plainWorld } from './world.ts';

const notesOf = (verb: string, typed: Typed) => {
  const document = emptyDocument();
  const done = perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => 'p1'),
  );
  if (isRefusal(done)) throw new Error(done.message);
  return done.notes;
};

test('a point off the plane is told, with its size and side', () => {
  expect(notesOf('circle', { diameter: 5, at: [1, 2, 12] })).toEqual([
    expect.stringMatching(/^“centre” stands 12 mm off plan: its foot/),
  ]);
  expect(notesOf('line', { from: [0, 0, 0], to: [5, 3, 1], on: 'front' })).toEqual([
    expect.stringMatching(/^“to” stands 3 mm off front:/),
  ]);
  expect(
    notesOf('curve', {
      points: [
        [0, 0, 0],
        [1, 1, -2],
        [3, 0, 1],
      ],
    }),
  ).toEqual([expect.stringContaining('2 mm off')]);
});

test('points in the plane, and what nobody chose, are not told of', () => {
  expect(notesOf('circle', { diameter: 5, at: [1, 2, 0] })).toEqual([]);
  expect(
    notesOf('circle', {
      diameter: 5,
      on: {
        points: [
          [0, 0, 9],
          [1, 0, 9],
          [0, 1, 9],
        ],
      },
    }),
  ).toEqual([]);
  expect(notesOf('box', { size: [1, 1, 1], at: [0, 0, 7] })).toEqual([]);
});
