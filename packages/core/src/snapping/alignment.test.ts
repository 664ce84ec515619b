import type { Box } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import { alignmentOf } from './alignment.ts';

const box = (x: number, y: number, size: Vec3 = [10, 10, 10]): Box => ({
  min: [x, y, 0],
  max: [x + size[0], y + size[1], size[2]],
});
const dragged = (own: Box, others: readonly Box[], more: { reach?: number; points?: readonly Vec3[] } = {}) =>
  alignmentOf({ box: own, points: [], others, axes: [0, 1], reach: 2, ...more });

test('a side within reach lines up with a side, and the line says with which', () => {
  const { shift, lines } = dragged(box(51.5, 33), [box(0, 0), box(20, 44, [30, 20, 10])]);
  expect(shift).toEqual([-1.5, 1, 0]);
  expect(lines.map(({ axis }) => axis)).toEqual([0, 1]);
  expect(lines[0]!.to[0]).toBe(50);
});
test('nothing is near, nothing moves', () => {
  expect(dragged(box(55, 40), [box(0, 0)]).shift).toEqual([0, 0, 0]);
});
test('the datum and the point that is held line up too', () => {
  expect(dragged(box(100, 100), [box(0, 0)], { points: [[6, 200, 0]] }).shift[0]).toBe(-1);
});
test('an equal gap is found: in a row, and in the middle of two', () => {
  // 0–10 and 30–40 leave 20 free, so that a third begins at 60, or ends at −20.
  expect(dragged(box(61.5, 0), [box(0, 0), box(30, 0)]).shift[0]).toBe(-1.5);
  expect(dragged(box(-31, 0), [box(0, 0), box(30, 0)]).shift[0]).toBe(1);
  // Between 10 and 74 the middle of a part of 10 is 42.
  expect(dragged(box(38, 0), [box(0, 0), box(74, 0)]).shift[0]).toBe(-1);
});
test('gaps to the neighbours are told, equal ones marked', () => {
  const { gaps } = dragged(box(60, 0), [box(0, 0), box(30, 0)]);
  expect(gaps.map(({ distance, isEqual }) => [distance, isEqual])).toEqual([
    [20, true],
    [20, true],
  ]);
  const middle = dragged(box(38, 0), [box(0, 0), box(74, 0)]);
  expect(middle.gaps.map(({ distance, isEqual }) => [distance, isEqual])).toEqual([
    [27, true],
    [27, true],
  ]);
  const alone = dragged(box(20, 40), [box(25, 90), box(25, 200)]);
  expect(alone.gaps.map(({ axis, distance, isEqual }) => [axis, distance, isEqual])).toEqual([
    [1, 40, false],
  ]);
});
