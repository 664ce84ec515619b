/** Whether the surfaces of two solids cross each other, and which pieces of their edges lie within the other. */
import { boxOf, boxesMeet, carryBox, grownBy, type Box } from '../space/box.ts';
import { searchBvh } from '../space/bvh.ts';
import { carry, chain, inverse, AT_ORIGIN } from '../space/pose.ts';
import { add, cross, dot, length, scale, subtract, unit, type Vec3 } from '../space/vector.ts';
import { isWithinSolid } from '../snapping/raycast.ts';
import { boxOfShape, type SnapInstance } from '../snapping/scene.ts';
import { facetCorners, type Corners } from '../snapping/facetCorners.ts';
import type { Curve } from '../curves/curve.ts';
import { asideOf, piecesWhere, roundingOf, waysOf } from './edgeWays.ts';

/** Round a solid, without the rim in which it would only touch another: solids whose boxes do not meet do not cross. */
export function boxOfCrossing(instance: SnapInstance): Box {
  return grownBy(carryBox(instance.pose, boxOfShape(instance.shape)), -roundingOf([instance]));
}

/** Whether facets of one go through facets of the other, by more than facets may be off; solids that touch do not cross. */
export function doCross(a: SnapInstance, b: SnapInstance): boolean {
  const aside = asideOf([a, b]);
  return passesThrough(a, b, aside) || passesThrough(b, a, aside);
}

/** Whether an edge of a facet of the one goes through a facet of the other. @param aside beyond which it is through, mm */
function passesThrough(a: SnapInstance, b: SnapInstance, aside: number): boolean {
  const toB = chain(inverse(b.pose), a.pose);
  const nearB = carryBox(inverse(toB), boxOfShape(b.shape));
  let isFound = false;
  searchBvh(
    a.shape.triangleTree,
    (bounds, at) => !isFound && isBoxBy(bounds, at, nearB),
    (t) => {
      if (isFound) return;
      const corners = facetCorners(a.shape, t).map((corner) => carry(toB, corner)) as unknown as Corners;
      isFound = doesPierce(corners, b, aside);
    },
  );
  return isFound;
}

/** @param corners in the frame of the solid */
function doesPierce(corners: Corners, { shape }: SnapInstance, aside: number): boolean {
  const box = boxOf(corners);
  const solid = { pose: AT_ORIGIN, shape, part: '' };
  let isFound = false;
  searchBvh(
    shape.triangleTree,
    (bounds, at) => !isFound && isBoxBy(bounds, at, box),
    (t) => {
      const facet = facetCorners(shape, t);
      isFound ||= [0, 1, 2].some((i) => {
        const segment = [corners[i]!, corners[(i + 1) % 3]!] as const;
        const through = placeThrough(facet, segment, aside);
        return through !== undefined && goesOnWithin(solid, through, aside);
      });
    },
  );
  return isFound;
}

interface Through {
  readonly at: Vec3;
  /** Of length 1. */
  readonly way: Vec3;
}

/** Where a segment goes through a facet, and on by more than `aside` on both sides. */
function placeThrough([a, b, c]: Corners, [p, q]: readonly [Vec3, Vec3], aside: number): Through | undefined {
  const whole = cross(subtract(b, a), subtract(c, a));
  const size = length(whole);
  if (size === 0) return undefined;
  const normal = scale(whole, 1 / size);
  const [before, behind] = [dot(normal, subtract(p, a)), dot(normal, subtract(q, a))];
  if (Math.min(before, behind) > -aside || Math.max(before, behind) < aside) return undefined;
  const at = add(p, scale(subtract(q, p), before / (before - behind)));
  const sides = [
    [a, b],
    [b, c],
    [c, a],
  ] as const;
  const isInside = sides.every(
    ([from, to]) => dot(cross(subtract(to, from), subtract(at, from)), normal) >= 0,
  );
  return isInside ? { at, way: unit(subtract(q, p)) } : undefined;
}

/** How far from a face it is looked whether what goes through it is within, in what facets may be off. */
const LOOKS = [4, 16, 64];

/** A segment that runs along a face goes through what stands at its rim, and into nothing. */
const goesOnWithin = (solid: SnapInstance, { at, way }: Through, aside: number): boolean =>
  LOOKS.some((times) =>
    [-1, 1].some((side) => isWithin(solid, add(at, scale(way, side * times * aside)), aside)),
  );

const isBoxBy = (bounds: Float64Array, at: number, { min, max }: Box): boolean =>
  [0, 1, 2].every((axis) => bounds[at + axis]! <= max[axis]! && bounds[at + 3 + axis]! >= min[axis]!);

/** On all sides of a point, in directions that faces seldom run along. */
const ROUND: readonly Vec3[] = [-1, 1].flatMap((x) =>
  [-1, 1].flatMap((y) => [-1, 1].map((z): Vec3 => [0.41 * x, 0.57 * y, 0.71 * z])),
);

/** Pieces of the edges of solids that lie within one of the others, as they are seen along Z. */
export function buriedPieces(instances: readonly SnapInstance[]): Curve[] {
  const aside = asideOf(instances);
  const boxes = instances.map(({ pose, shape }) => carryBox(pose, boxOfShape(shape)));
  return instances.flatMap((one, i) => {
    const others = instances.filter((_, k) => k !== i && boxesMeet(boxes[i]!, boxes[k]!));
    const isBuried = (point: Vec3) => others.some((other) => isWithin(other, point, aside));
    const isBarelyBuried = (point: Vec3) => others.some((other) => isWithinSolid(other, point));
    return waysOf(one).flatMap((way) =>
      piecesWhere(
        way,
        (t) => isBuried(way(t)),
        (t) => isBarelyBuried(way(t)),
      ),
    );
  });
}

/** For certain: what is round the point is within too. */
const isWithin = (instance: SnapInstance, point: Vec3, aside: number): boolean =>
  ROUND.every((way) => isWithinSolid(instance, add(point, scale(way, aside))));
