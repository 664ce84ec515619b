/** Trees of boxes, and several made one. */
import { numbers } from '@kadrel/testing';
import { buildBvh, mergedBvhs, searchBvh, searchPairs, type Bvh } from './bvh.ts';

const random = numbers(31);
const boxesOf = (count: number): Float64Array =>
  Float64Array.from(
    Array.from({ length: count }, () => {
      const at = [random(), random(), random()].map((n) => 100 * n);
      return [...at, ...at.map((n) => n + 8 * random())];
    }).flat(),
  );

/** Things whose boxes hold a point. */
function at(tree: Bvh, boxes: Float64Array, point: readonly number[]): number[] {
  const holds = (numbersOf: Float64Array, from: number) =>
    [0, 1, 2].every((k) => numbersOf[from + k]! <= point[k]! && point[k]! <= numbersOf[from + 3 + k]!);
  const found: number[] = [];
  searchBvh(tree, holds, (thing) => {
    if (holds(boxes, 6 * thing)) found.push(thing);
  });
  return found.sort((a, b) => a - b);
}

test.each([[[]], [[5]], [[0, 3, 0]], [[1, 1, 1]], [[40, 1, 200, 0, 13, 9]], [Array<number>(60).fill(7)]])(
  'several made one find what one over all finds: %j',
  (counts) => {
    const groups = counts.map(boxesOf);
    const all = Float64Array.from(groups.flatMap((boxes) => [...boxes]));
    const merged = mergedBvhs(groups.map(buildBvh));
    const whole = buildBvh(all);
    expect([...merged.order].sort((a, b) => a - b)).toEqual(
      Array.from({ length: all.length / 6 }, (_, i) => i),
    );
    let hits = 0;
    for (let i = 0; i < 300; i++) {
      const point = [random(), random(), random()].map((n) => 108 * n);
      const found = at(merged, all, point);
      hits += found.length;
      expect(found).toEqual(at(whole, all, point));
    }
    if (all.length > 600) expect(hits).toBeGreaterThan(0);
  },
);

test.each([0, 1, 7, 9, 300])(
  'all pairs among %p boxes that meet are found, each once, until one is enough',
  (count) => {
    const boxes = boxesOf(count);
    const meets = (a: number, b: number) =>
      [0, 1, 2].every(
        (k) => boxes[6 * a + k]! <= boxes[6 * b + 3 + k]! && boxes[6 * b + k]! <= boxes[6 * a + 3 + k]!,
      );
    const wanted: string[] = [];
    for (let a = 0; a < count; a++)
      for (let b = a + 1; b < count; b++) if (meets(a, b)) wanted.push(`${a} ${b}`);
    const found: string[] = [];
    const tree = buildBvh(boxes);
    searchPairs(tree, boxes, (a, b) => {
      found.push(`${Math.min(a, b)} ${Math.max(a, b)}`);
      return false;
    });
    expect(found.sort()).toEqual(wanted.sort());
    let calls = 0;
    searchPairs(tree, boxes, () => ++calls === 3);
    expect(calls).toBe(Math.min(3, wanted.length));
  },
);
