/** From the own frame of a part to the screen: pixels, x to the right, y down. */
import { eyeDistance, mmPerPixel, type Camera } from '../space/camera.ts';
import { turnVector, type Pose } from '../space/pose.ts';
import { dot, subtract, type Vec3 } from '../space/vector.ts';
import type { Point } from './outline.ts';

/** Pixels. */
export interface Area {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** A part as the camera sees it, without arrays in the way. */
export interface View {
  /** The pixel of a point; null behind the eye. */
  point(x: number, y: number, z: number): Point | null;
  /** The pixels round a box; null where it reaches behind the eye. */
  boxArea(bounds: Float64Array, at: number): Area | null;
  /** The corners of a facet in the picture; cut off at the eye, and so of none to four. */
  triangle(positions: Float32Array, triangles: Uint32Array, t: number): Point[];
}

/** Nearer to the eye than this part of its distance from the target nothing is drawn. */
const NEAREST = 1e-4;

export function viewOf(pose: Pose, camera: Camera): View {
  const axes = [0, 1, 2].map((i) =>
    turnVector(pose.turn, [i === 0 ? 1 : 0, i === 1 ? 1 : 0, i === 2 ? 1 : 0]),
  ) as [Vec3, Vec3, Vec3];
  const shift = subtract(pose.shift, camera.eye);
  const row = (direction: Vec3) =>
    [...axes.map((axis) => dot(axis, direction)), dot(shift, direction)] as const;
  const [[rx, ry, rz, r0], [ux, uy, uz, u0], [tx, ty, tz, t0]] = [
    row(camera.right),
    row(camera.up),
    row(camera.toward),
  ] as [Four, Four, Four];
  const isParallel = camera.state.projection === 'parallel';
  const size = mmPerPixel(camera);
  const target = eyeDistance(camera.state);
  const [midX, midY] = [camera.width / 2, camera.pixelHeight / 2];
  const depth = (x: number, y: number, z: number) => -(tx * x + ty * y + tz * z + t0);
  const place = (x: number, y: number, z: number, deep: number): Point => {
    const scale = 1 / (isParallel ? size : (size * deep) / target);
    return [midX + (rx * x + ry * y + rz * z + r0) * scale, midY - (ux * x + uy * y + uz * z + u0) * scale];
  };
  const isBehind = (deep: number) => !isParallel && deep < NEAREST * target;
  return {
    point(x, y, z) {
      const deep = depth(x, y, z);
      return isBehind(deep) ? null : place(x, y, z, deep);
    },
    boxArea(b, at) {
      let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
      for (let corner = 0; corner < 8; corner++) {
        const [x, y, z] = [
          b[at + (corner & 1 ? 3 : 0)]!,
          b[at + 1 + (corner & 2 ? 3 : 0)]!,
          b[at + 2 + (corner & 4 ? 3 : 0)]!,
        ];
        const deep = depth(x, y, z);
        if (isBehind(deep)) return null;
        const [px, py] = place(x, y, z, deep);
        if (px < left) left = px;
        if (px > right) right = px;
        if (py < top) top = py;
        if (py > bottom) bottom = py;
      }
      return { left, top, right, bottom };
    },
    triangle(positions, triangles, t) {
      const corners = [0, 1, 2].map((k): Four => {
        const i = 3 * triangles[3 * t + k]!;
        const [x, y, z] = [positions[i]!, positions[i + 1]!, positions[i + 2]!];
        return [x, y, z, depth(x, y, z)];
      });
      if (corners.every(([, , , deep]) => !isBehind(deep)))
        return corners.map(([x, y, z, deep]) => place(x, y, z, deep));
      return clipped(corners, NEAREST * target).map(([x, y, z, deep]) => place(x, y, z, deep));
    },
  };
}

type Four = readonly [number, number, number, number];

/** The part of a facet in front of the eye. Source: Sutherland and Hodgman, Communications of the ACM 17 (1974). */
function clipped(corners: readonly Four[], nearest: number): Four[] {
  return corners.flatMap((a, i): Four[] => {
    const b = corners[(i + 1) % corners.length]!;
    const kept = a[3] >= nearest ? [a] : [];
    if (a[3] >= nearest === b[3] >= nearest) return kept;
    const s = (nearest - a[3]) / (b[3] - a[3]);
    const cut = [0, 1, 2, 3].map((k) => a[k]! + s * (b[k]! - a[k]!)) as unknown as Four;
    return [...kept, cut];
  });
}

/** Whether two rectangles have a point in common. */
export const overlap = (a: Area, b: Area) =>
  a.left <= b.right && a.right >= b.left && a.top <= b.bottom && a.bottom >= b.top;
/** The corners of a rectangle. */
export const cornersOf = ({ left, top, right, bottom }: Area): Point[] => [
  [left, top],
  [right, top],
  [right, bottom],
  [left, bottom],
];
