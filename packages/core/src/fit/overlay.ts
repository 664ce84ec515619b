/** Where two flat faces that look at each other lie over one another, by their facets. */
import { acrossTo } from '../space/matrix.ts';
import { carry } from '../space/pose.ts';
import { cross, dot, type Vec3 } from '../space/vector.ts';
import type { PlacedShape } from './nearFaces.ts';

type Flat = readonly [number, number];

/** The part of a convex polygon where `side` is not negative. Source: Sutherland and Hodgman, CACM 17 (1974). */
export function clipped(polygon: readonly Flat[], side: (p: Flat) => number): Flat[] {
  return polygon.flatMap((p, i) => {
    const q = polygon[(i + 1) % polygon.length]!;
    const [s, t] = [side(p), side(q)];
    const kept = s >= 0 ? [p] : [];
    if (s >= 0 === t >= 0) return kept;
    const at = s / (s - t);
    return [...kept, [p[0] + at * (q[0] - p[0]), p[1] + at * (q[1] - p[1])] as const];
  });
}

/** What a convex polygon and a triangle (three corners, either way round) have in common. */
export function clippedToTriangle(polygon: readonly Flat[], [a, b, c]: readonly [Flat, Flat, Flat]): Flat[] {
  const turn = Math.sign((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]));
  let region = [...polygon];
  for (const [p, q] of [
    [a, b],
    [b, c],
    [c, a],
  ] as const)
    region = clipped(region, ([x, y]) => turn * ((q[0] - p[0]) * (y - p[1]) - (q[1] - p[1]) * (x - p[0])));
  return region;
}

/** Twice the area by the outline: about the width of a strip. */
export function stripWidth(region: readonly Flat[]): number {
  let [area, outline] = [0, 0];
  region.forEach(([x, y], i) => {
    const [p, q] = region[(i + 1) % region.length]!;
    area += x * q - p * y;
    outline += Math.hypot(p - x, q - y);
  });
  return outline === 0 ? 0 : Math.abs(area) / outline;
}

/** A face of a solid where it stands. */
export interface PlacedFace extends PlacedShape {
  readonly face: number;
}

/**
 * A point of the first face, in the world, that has the second one square over it; undefined where they lie over one another
 * nowhere, or by no more than `least`, mm.
 * @param normal out of the first face, in the world
 */
export function pointOver(a: PlacedFace, b: PlacedFace, normal: Vec3, min: number): Vec3 | undefined {
  const [u, v] = axesAcross(normal);
  const flatOf = (p: Vec3): Flat => [dot(p, u), dot(p, v)];
  const flat = (corners: Corners) => ({ corners, own: corners.map(flatOf) as unknown as FlatTriangle });
  const others = trianglesOf(b).map(flat);
  const boxes = others.map(({ own }) => boxOfFlat(own));
  // The stoutest first: the first that has something over it will do.
  const sorted = trianglesOf(a)
    .map(flat)
    .map((one) => ({ ...one, width: stripWidth(one.own) }));
  for (const { corners, own } of sorted.sort((p, q) => q.width - p.width)) {
    const box = boxOfFlat(own);
    for (const [i, other] of others.entries()) {
      if (!doMeet(box, boxes[i]!)) continue;
      const region = clippedToTriangle(own, other.own);
      if (region.length > 2 && stripWidth(region) > min)
        return onFace(corners[0], normal, [u, v], middleOf(region));
    }
  }
  return undefined;
}

type Corners = readonly [Vec3, Vec3, Vec3];
type FlatTriangle = readonly [Flat, Flat, Flat];

function axesAcross(normal: Vec3): readonly [Vec3, Vec3] {
  const u = acrossTo(normal);
  return [u, cross(normal, u)];
}

/** The point of a plane over a place across it. */
function onFace(on: Vec3, normal: Vec3, [u, v]: readonly [Vec3, Vec3], [x, y]: Flat): Vec3 {
  const height = dot(on, normal);
  return [0, 1, 2].map((k) => u[k]! * x + v[k]! * y + normal[k]! * height) as unknown as Vec3;
}

/** Corners of the facets of a face, in the world. */
function trianglesOf({ shape, pose, face }: PlacedFace): [Vec3, Vec3, Vec3][] {
  const { positions, triangles, faceOfTriangle } = shape;
  const found: [Vec3, Vec3, Vec3][] = [];
  for (let t = 0; t < faceOfTriangle.length; t++) {
    if (faceOfTriangle[t] !== face) continue;
    found.push(
      [0, 1, 2].map((k) => {
        const at = 3 * triangles[3 * t + k]!;
        return carry(pose, [positions[at]!, positions[at + 1]!, positions[at + 2]!]);
      }) as [Vec3, Vec3, Vec3],
    );
  }
  return found;
}

const boxOfFlat = (corners: readonly Flat[]) =>
  [
    Math.min(...corners.map(([x]) => x)),
    Math.min(...corners.map(([, y]) => y)),
    Math.max(...corners.map(([x]) => x)),
    Math.max(...corners.map(([, y]) => y)),
  ] as const;

type FlatBox = ReturnType<typeof boxOfFlat>;
const doMeet = (a: FlatBox, b: FlatBox) => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];

const middleOf = (region: readonly Flat[]): Flat => [
  region.reduce((sum, [x]) => sum + x, 0) / region.length,
  region.reduce((sum, [, y]) => sum + y, 0) / region.length,
];
