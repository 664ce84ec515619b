/** The two sides of a solid that is cut, of which one is kept: what they must be. */
import { faultOf, subtract, type Vec3 } from '@kadrel/core';
import { combineShapes } from '../../booleans/operation.ts';
import { integralsOf } from '../../facts/integrals.ts';
import type { NamedShape } from '../../naming/named.ts';
import { BuildError, roughBox, scope, type Occt, type TopoDS_Shape } from '../../occt/occt.ts';
import { isSound } from '../../occt/sound.ts';

export interface Cutting {
  /** What lies in it is the front. */
  readonly tool: NamedShape;
  readonly keep: 'front' | 'behind';
  /** Both sides together are the whole, to this part of it. */
  readonly sameVolume: number;
  /** What the sentences call what it is cut by: “plane”. */
  readonly by: string;
  /** Where it is cut, mm. */
  readonly at: Vec3;
}

/** The side that is kept. Throws BuildError. */
export function keptSide(occt: Occt, of: NamedShape, cutting: Cutting): NamedShape {
  return scope((keep) => {
    const { sameVolume, by, at } = cutting;
    const [front, behind] = bothSides(occt, of, cutting);
    const [kept, other] = cutting.keep === 'front' ? [front, behind] : [behind, front];
    keep(other.shape);
    const [whole, a, b] = [of, kept, other].map(({ shape }) => integralsOf(occt, shape).volume) as [
      number,
      number,
      number,
    ];
    if (Math.abs(a + b - whole) <= sameVolume * whole && isSound(occt, kept.shape)) return kept;
    keep(kept.shape);
    throw new BuildError(faultOf('halves.do-not-add-up', { by }), [at]);
  });
}

function bothSides(occt: Occt, of: NamedShape, { tool, by, at }: Cutting): [NamedShape, NamedShape] {
  const operands = [
    { ...of, tag: '' },
    { ...tool, tag: '' },
  ];
  try {
    return [combineShapes(occt, 'intersect', operands), combineShapes(occt, 'subtract', operands)];
  } catch (error) {
    if (!(error instanceof BuildError)) throw error;
    throw new BuildError(faultOf('halves.not-through', { by }), [at], error.reason);
  }
}

/** Farther than the solid is from a point, mm. */
export function reachFrom(occt: Occt, shape: TopoDS_Shape, from: Vec3): number {
  const { min, max } = roughBox(occt, shape);
  const farthest = Math.max(...[min, max].map((at) => Math.hypot(...subtract(at, from))));
  return 2 * (1 + farthest) * Math.SQRT2;
}
