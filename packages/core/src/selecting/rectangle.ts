/** Which parts a rectangle on the screen takes. */
import { project, rayThrough, type Camera } from '../space/camera.ts';
import { carry } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';
import { castOnScene, type SnapInstance } from '../snapping/raycast.ts';
import { CURVE_CIRCLE, CURVE_LINE, CURVE_STRIDE, circlePoint, type SnapShape } from '../snapping/shape.ts';

export type RegionRule = 'touching' | 'enclosed';

export interface Rectangle {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Pieces that a circle is cut into for the test: off by 0.1 % of its radius. */
const CIRCLE_PIECES = 72;

/**
 * Parts whose outline the rectangle touches, or wholly encloses. A part whose edges all lie outside counts as touched
 * when the middle of the rectangle falls on one of its faces.
 */
export function partsInRectangle(
  instances: readonly SnapInstance[],
  camera: Camera,
  rectangle: Rectangle,
  rule: RegionRule,
): string[] {
  return instances
    .filter((instance) => (rule === 'enclosed' ? encloses : touches)(instance, camera, rectangle))
    .map(({ part }) => part);
}

function encloses(instance: SnapInstance, camera: Camera, rectangle: Rectangle): boolean {
  const { positions } = instance.shape;
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y] = project(
      camera,
      carry(instance.pose, [positions[i]!, positions[i + 1]!, positions[i + 2]!]),
    );
    if (!isInside(x, y, rectangle)) return false;
  }
  return positions.length > 0;
}

function touches(instance: SnapInstance, camera: Camera, rectangle: Rectangle): boolean {
  const { left, right, top, bottom } = rectangle;
  for (const outline of outlines(instance.shape)) {
    const seen = outline.map((point) => project(camera, carry(instance.pose, point)));
    for (let i = 1; i < seen.length; i++)
      if (crossesRectangle(seen[i - 1]!, seen[i]!, rectangle)) return true;
  }
  const ray = rayThrough(camera, (left + right) / 2, (top + bottom) / 2);
  return castOnScene([instance], ray) !== undefined;
}

function* outlines({ curveKind, curves, polyline }: SnapShape): Iterable<Vec3[]> {
  for (let c = 0; c < curveKind.length; c++) {
    const data = CURVE_STRIDE * c;
    const at = (list: Float64Array, from: number): Vec3 => [list[from]!, list[from + 1]!, list[from + 2]!];
    if (curveKind[c] === CURVE_LINE) yield [at(curves, data), at(curves, data + 3)];
    else if (curveKind[c] === CURVE_CIRCLE) {
      const [first, last] = [curves[data + 9]!, curves[data + 10]!];
      yield Array.from({ length: CIRCLE_PIECES + 1 }, (_, i) =>
        circlePoint(curves, data, first + ((last - first) * i) / CIRCLE_PIECES),
      );
    } else yield Array.from({ length: curves[data + 1]! }, (_, i) => at(polyline, 3 * (curves[data]! + i)));
  }
}

const isInside = (x: number, y: number, { left, top, right, bottom }: Rectangle) =>
  x >= left && x <= right && y >= top && y <= bottom;

/** Whether a segment meets a rectangle. Source: Liang and Barsky, ACM Transactions on Graphics 3 (1984). */
function crossesRectangle([ax, ay]: Vec3, [bx, by]: Vec3, { left, top, right, bottom }: Rectangle): boolean {
  let [enter, leave] = [0, 1];
  const sides = [
    [ax - bx, ax - left],
    [bx - ax, right - ax],
    [ay - by, ay - top],
    [by - ay, bottom - ay],
  ] as const;
  for (const [slope, room] of sides) {
    if (slope === 0 && room < 0) return false;
    if (slope === 0) continue;
    if (slope < 0) enter = Math.max(enter, room / slope);
    else leave = Math.min(leave, room / slope);
  }
  return enter <= leave;
}
