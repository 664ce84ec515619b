/** Drawn curves under the pointer: they have no faces that a ray could meet. */
import { rayThrough, type Camera } from '../space/camera.ts';
import { searchBvh } from '../space/bvh.ts';
import { dot, subtract } from '../space/vector.ts';
import type { Vec2 } from '../space/vector2.ts';
import { coneTest, pixelsOff } from './candidates.ts';
import { nearestToRay, worldCurve } from './curves.ts';
import { localRay } from './raycast.ts';
import type { SnapInstance, SnapScene } from './scene.ts';

/** A click this near to a curve means it, pixels. */
const REACH_PX = 6;

/** Which instances count, and how far off: curves farther than `max` (mm) are hidden. */
interface Wanted {
  readonly may: (instance: SnapInstance) => boolean;
  readonly max?: number;
}

/** The instance whose curve is nearest to a pixel, within reach. */
export function curveUnder(
  camera: Camera,
  pointer: Vec2,
  scene: SnapScene,
  { may, max = Infinity }: Wanted,
): SnapInstance | undefined {
  const ray = rayThrough(camera, pointer[0], pointer[1]);
  let found: SnapInstance | undefined;
  let min = REACH_PX;
  for (const instance of scene.instances) {
    if (!may(instance)) continue;
    searchBvh(instance.shape.curveTree, coneTest(localRay(instance, ray), camera, REACH_PX), (c) => {
      const curve = worldCurve(instance, c);
      const point = curve.at(nearestToRay(curve, ray));
      const off = pixelsOff(camera, point, pointer);
      // A curve on a face lies in it, and is not hidden by it.
      const isHidden =
        dot(subtract(point, ray.from), ray.direction) > max * (1 + HIDDEN_SLACK) + HIDDEN_SLACK;
      if (off > min || isHidden) return;
      min = off;
      found = instance;
    });
  }
  return found;
}

/** How far behind a face a curve may lie and still be drawn on it, relatively. */
const HIDDEN_SLACK = 1e-3;
