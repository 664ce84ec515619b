/** From the own frame of a part to the screen: pixels, x to the right, y down. */
import { eyeDistance, mmPerPixel, type Camera } from '../space/camera.ts';
import { column } from '../space/matrix.ts';
import type { Pose } from '../space/pose.ts';
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
  const seen = projectionOf(pose, camera);
  return {
    point(x, y, z) {
      const deep = seen.depth(x, y, z);
      return seen.isBehind(deep) ? null : seen.place(x, y, z, deep);
    },
    boxArea: (b, at) => boxArea(seen, b, at),
    triangle(positions, triangles, t) {
      const corners = [0, 1, 2].map((k): Four => {
        const i = 3 * triangles[3 * t + k]!;
        const [x, y, z] = [positions[i]!, positions[i + 1]!, positions[i + 2]!];
        return [x, y, z, seen.depth(x, y, z)];
      });
      const isAhead = corners.every(([, , , deep]) => !seen.isBehind(deep));
      return (isAhead ? corners : clipped(corners, seen.nearest)).map((corner) =>
        seen.place(corner[0], corner[1], corner[2], corner[3]),
      );
    },
  };
}

/** From the frame of a part to the pixels of a view. */
interface Projection {
  depth(x: number, y: number, z: number): number;
  /** Where x, y, z at a depth are seen. */
  place(x: number, y: number, z: number, deep: number): Point;
  isBehind(deep: number): boolean;
  /** Nothing nearer than this is seen in perspective. */
  readonly nearest: number;
}

function projectionOf(pose: Pose, camera: Camera): Projection {
  const axes = [0, 1, 2].map((i) => column(pose.turn, i));
  const shift = subtract(pose.shift, camera.eye);
  const row = (direction: Vec3) =>
    [...axes.map((axis) => dot(axis, direction)), dot(shift, direction)] as unknown as Four;
  const [rx, ry, rz, r0] = row(camera.right);
  const [ux, uy, uz, u0] = row(camera.up);
  const [tx, ty, tz, t0] = row(camera.toward);
  const isParallel = camera.state.projection === 'parallel';
  const size = mmPerPixel(camera);
  const target = eyeDistance(camera.state);
  const nearest = NEAREST * target;
  const [midX, midY] = [camera.width / 2, camera.pixelHeight / 2];
  return {
    nearest,
    depth: (x, y, z) => -(tx * x + ty * y + tz * z + t0),
    place(x, y, z, deep) {
      const scale = 1 / (isParallel ? size : (size * deep) / target);
      return [midX + (rx * x + ry * y + rz * z + r0) * scale, midY - (ux * x + uy * y + uz * z + u0) * scale];
    },
    isBehind: (deep) => !isParallel && deep < nearest,
  };
}

/** Of the eight corners of a box; null where one of them is behind the eye. */
function boxArea(seen: Projection, b: Float64Array, at: number): Area | null {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let corner = 0; corner < 8; corner++) {
    const x = b[at + (corner & 1 ? 3 : 0)]!;
    const y = b[at + 1 + (corner & 2 ? 3 : 0)]!;
    const z = b[at + 2 + (corner & 4 ? 3 : 0)]!;
    const deep = seen.depth(x, y, z);
    if (seen.isBehind(deep)) return null;
    const [px, py] = seen.place(x, y, z, deep);
    if (px < left) left = px;
    if (px > right) right = px;
    if (py < top) top = py;
    if (py > bottom) bottom = py;
  }
  return { left, top, right, bottom };
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
