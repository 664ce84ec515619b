/** Shapes by hand, views and settings: what the tests of snaps and regions share. */
import { cameraOf, project, type Camera, type ViewState } from '../space/camera.ts';
import { AT_ORIGIN, type Pose } from '../space/pose.ts';
import { middle, type Vec3 } from '../space/vector.ts';
import { snapScene, type SnapInstance } from './scene.ts';
import {
  CURVE_CIRCLE,
  CURVE_LINE,
  FACE_PLANE,
  POINT_KINDS,
  SNAP_KINDS,
  snapShape,
  type SnapKind,
  type SnapShape,
} from './shape.ts';
import type { SnapSettings } from './snap.ts';

/** Corners of a fence round a box of 40 × 20 on the ground, with a bay at x = 20 that its front edge crosses. */
export const BAY: readonly Vec3[] = [
  [-5, -5, 0],
  [18, -5, 0],
  [20, 5, 0],
  [22, -5, 0],
  [45, -5, 0],
  [45, 25, 0],
  [-5, 25, 0],
];

export const corner = (size: Vec3, i: number): Vec3 => [
  i & 1 ? size[0] : 0,
  i & 2 ? size[1] : 0,
  i & 4 ? size[2] : 0,
];

const SIDES = ['left', 'right', 'front', 'back', 'bottom', 'top'];
/** The names of the faces that meet at a corner, of the axes in `mask`. */
const facesAt = (corner: number, mask: number): string =>
  [2, 1, 0]
    .filter((axis) => mask & (1 << axis))
    .map((axis) => SIDES[2 * axis + (corner & (1 << axis) ? 1 : 0)])
    .join('&');

/** A box by hand, as the kernel would pack it: 8 corners, 12 edges with their middles, 6 faces with their centres, all named. */
export function boxShape(size: Vec3): SnapShape {
  const points: { kind: SnapKind; at: Vec3; name: string }[] = [];
  const edgeNames: string[] = [];
  const curves: number[] = [];
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => corner(size, i));
  corners.forEach((at, i) => points.push({ kind: 'endpoint', at, name: facesAt(i, 7) }));
  for (let i = 0; i < 8; i++)
    for (const bit of [1, 2, 4])
      if (!(i & bit)) {
        const [a, b] = [corners[i]!, corners[i | bit]!];
        const name = facesAt(i, 7 & ~bit);
        points.push({ kind: 'midpoint', at: middle(a, b), name });
        edgeNames.push(name);
        curves.push(...a, ...b, 0, 0, 0, 0, 0, 0);
      }
  // Round each side as it is seen from outside.
  const sides = [
    [0, 4, 6, 2],
    [1, 3, 7, 5],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 2, 3, 1],
    [4, 5, 7, 6],
  ];
  const normals = [
    [-1, 0, 0],
    [1, 0, 0],
    [0, -1, 0],
    [0, 1, 0],
    [0, 0, -1],
    [0, 0, 1],
  ];
  sides.forEach(([a, , c], i) =>
    points.push({ kind: 'face centre', at: middle(corners[a!]!, corners[c!]!), name: SIDES[i]! }),
  );
  const names = [...new Set([...SIDES, ...points.map(({ name }) => name)])];
  return snapShape({
    points: Float64Array.from(points.flatMap(({ at }) => [...at])),
    pointKind: Uint8Array.from(points.map(({ kind }) => (POINT_KINDS as readonly string[]).indexOf(kind))),
    pointName: Uint32Array.from(points.map(({ name }) => names.indexOf(name))),
    curveKind: new Uint8Array(12).fill(CURVE_LINE),
    curves: Float64Array.from(curves),
    curveName: Uint32Array.from(edgeNames.map((name) => names.indexOf(name))),
    polyline: new Float64Array(0),
    faceKind: new Uint8Array(6).fill(FACE_PLANE),
    faces: Float64Array.from(sides.flatMap(([a], i) => [...corners[a!]!, ...normals[i]!, 0])),
    faceName: Uint32Array.from([0, 1, 2, 3, 4, 5]),
    names,
    positions: Float32Array.from(sides.flatMap((side) => side.flatMap((i) => [...corners[i]!]))),
    triangles: Uint32Array.from(sides.flatMap((_, i) => [0, 1, 2, 0, 2, 3].map((k) => 4 * i + k))),
    faceOfTriangle: Uint32Array.from(sides.flatMap((_, i) => [i, i])),
    chordMm: 0,
  });
}

/** A rim alone: a circle of radius 10 on the ground, with its centre. */
export const rim = (): SnapShape =>
  snapShape({
    ...boxShape([0, 0, 0]),
    points: Float64Array.from([0, 0, 0]),
    pointKind: Uint8Array.from([POINT_KINDS.indexOf('centre')]),
    pointName: new Uint32Array(1),
    curveKind: Uint8Array.from([CURVE_CIRCLE]),
    curves: Float64Array.from([0, 0, 0, 10, 0, 0, 0, 10, 0, 0, 360, 0]),
    curveName: new Uint32Array(1),
    positions: new Float32Array(0),
    triangles: new Uint32Array(0),
    faceOfTriangle: new Uint32Array(0),
  });

export const instance = (shape: SnapShape, part = 'a', pose: Pose = AT_ORIGIN): SnapInstance => ({
  part,
  pose,
  shape,
});
export const settings = (
  kinds: readonly SnapKind[] = SNAP_KINDS,
  more: Partial<SnapSettings> = {},
): SnapSettings => ({
  kinds: new Set(kinds),
  seeThrough: false,
  reachPx: 10,
  gridStep: 5,
  plane: { point: [0, 0, 0], normal: [0, 0, 1] },
  ...more,
});
export const looking = (
  bearing: number,
  altitude: number,
  projection: ViewState['projection'] = 'parallel',
  height = 200,
): Camera => cameraOf({ target: [20, 10, 5], bearing, altitude, height, projection }, 800, 600);
export const over = (camera: Camera, point: Vec3, off = 3): [number, number] => {
  const [x, y] = project(camera, point);
  return [x + off, y - off];
};
export const block = () => snapScene([instance(boxShape([40, 20, 10]))]);
