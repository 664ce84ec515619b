/** Edges of what a view shows as points, and how far beside them rays must agree. */
import type { SnapInstance, SnapScene } from '../snapping/scene.ts';
import { CURVE_CIRCLE, CURVE_ELLIPSE, CURVE_LINE, CURVE_STRIDE } from '../snapping/shape.ts';
import { cosDegrees, sinDegrees } from '../space/angle.ts';
import { carry } from '../space/pose.ts';
import { add, scale, subtract, type Vec3 } from '../space/vector.ts';

/** An edge as points, by a parameter from 0 to 1. */
export type Way = (t: number) => Vec3;

/** The place itself, and what is beside it on the picture: in directions that faces seldom run along. */
export const BESIDE: readonly Vec3[] = [
  [0, 0, 0],
  [0.92, 0.39, 0],
  [-0.92, -0.39, 0],
  [-0.39, 0.92, 0],
  [0.39, -0.92, 0],
];

/** Of the size of what is shown: facets are in single precision. */
const PRECISION = 1e-5;

/** Beyond what facets may be off, mm. */
export function asideOf({ instances }: SnapScene): number {
  const reach = instances.reduce(
    (max, { pose, shape }) =>
      Math.max(
        max,
        Math.hypot(...pose.shift) + Math.hypot(...(shape.positions.subarray(0, 3) as unknown as number[])),
      ),
    0,
  );
  const chord = instances.reduce((max, { shape }) => Math.max(max, shape.chordMm), 0);
  return 2 * chord + PRECISION * (1 + reach);
}

/** Straight, round and elliptic edges in the frame of the view. */
export function waysOf({ shape, pose }: SnapInstance): Way[] {
  return [...shape.curveKind].flatMap((kind, c): Way[] => {
    const triple = (from: number): Vec3 => {
      const at = CURVE_STRIDE * c + from;
      return [shape.curves[at]!, shape.curves[at + 1]!, shape.curves[at + 2]!];
    };
    if (kind === CURVE_LINE) {
      const [from, to] = [carry(pose, triple(0)), carry(pose, triple(3))];
      return [(t) => add(from, scale(subtract(to, from), t))];
    }
    if (kind !== CURVE_CIRCLE && kind !== CURVE_ELLIPSE) return [];
    const [centre, x, y] = [triple(0), triple(3), triple(6)];
    const [first, last] = [shape.curves[CURVE_STRIDE * c + 9]!, shape.curves[CURVE_STRIDE * c + 10]!];
    return [
      (t) => {
        const angle = first + (last - first) * t;
        return carry(pose, add(centre, add(scale(x, cosDegrees(angle)), scale(y, sinDegrees(angle)))));
      },
    ];
  });
}
