import type { Cut } from '@kadrel/core';
import { CutUniforms } from './cutShader.ts';

const half = (offset: number) => ({ normal: [0, 0, 1] as const, offset, across: [1, 0, 0] as const });
const cut = (...halves: Cut['halves']): Cut => ({
  section: 's',
  halves,
  whole: new Set(),
  isHatched: true,
  spacing: 3,
});

/** Whether a cut takes a point away, reckoned as the shader does. */
function takes(uniforms: CutUniforms, cutNumber: number, [x, y, z]: readonly [number, number, number]) {
  return [0, 1].every((k) => {
    const plane = uniforms.cutPlanes.value[2 * cutNumber + k]!;
    return plane.x * x + plane.y * y + plane.z * z - plane.w > 0;
  });
}

test('a cut with one half space takes all before it, one with two what lies before both', () => {
  const uniforms = new CutUniforms();
  const beside = { normal: [1, 0, 0] as const, offset: 5, across: [0, 1, 0] as const };
  uniforms.set([cut(half(10)), cut(half(10), beside)]);
  expect(uniforms.cutCount.value).toBe(2);
  expect([takes(uniforms, 0, [0, 0, 11]), takes(uniforms, 0, [0, 0, 10])]).toEqual([true, false]);
  expect([takes(uniforms, 1, [6, 0, 11]), takes(uniforms, 1, [4, 0, 11])]).toEqual([true, false]);
  // What had two half spaces before has one now.
  uniforms.set([cut(half(1)), cut(half(2))]);
  expect(takes(uniforms, 1, [-100, 0, 3])).toBe(true);
  expect(uniforms.cutHatch.value[1]!.toArray()).toEqual([1, 3]);
});
