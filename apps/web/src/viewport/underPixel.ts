/** What lies under a pixel of a view, and what is in its picture. */
import {
  boxPoint,
  cameraOf,
  castOnScene,
  curveUnder,
  project,
  rayThrough,
  type Box,
  type Camera,
  type ItemId,
  type SnapInstance,
  type Vec3,
} from '@kadrel/core';
import { boxOf } from './gripSet.ts';
import type { Pane } from './pane.ts';

/** What is met by its lines alone. */
const DRAWN: ReadonlySet<string> = new Set(['profile', 'section']);

/** The solid or the drawn thing that is in front. */
export function instanceAt({ camera, scene, stage }: Pane, x: number, y: number): SnapInstance | null {
  const hit = castOnScene(scene, rayThrough(camera, x, y));
  // A drawn curve has no face to meet: it is caught within reach of the pointer, before what lies behind it.
  const { document } = stage.session.store.getState();
  const isDrawn = ({ part }: SnapInstance) => DRAWN.has(document.items[part]?.recipe.base.kind ?? '');
  return (
    curveUnder(camera, [x, y], scene, { may: isDrawn, ...(hit ? { max: hit.distance } : {}) }) ??
    hit?.instance ??
    null
  );
}

/** The name of the face of a part that is in front. */
export function faceAt(
  { camera, scene }: Pane,
  [x, y]: readonly [number, number],
  part: ItemId,
): string | undefined {
  const hit = castOnScene(scene, rayThrough(camera, x, y));
  if (!hit || hit.instance.part !== part || hit.instance.leaf !== undefined) return undefined;
  const { names, faceName } = hit.instance.shape;
  return names[faceName[hit.face]!];
}

/** Whether a corner or the middle of a box is in the picture, or is where the view goes. */
export function isInSight({ camera, travel }: Pane, box: Box): boolean {
  const resting = cameraOf(travel.view, camera.width, camera.pixelHeight);
  const sides = [-1, 0, 1] as const;
  return sides.some((x) =>
    sides.some((y) => sides.some((z) => isInPicture(resting, boxPoint(box, [x, y, z])))),
  );
}

/** Whether a point is within the rims of the picture, and before the eye. */
export function isInPicture(camera: Camera, point: Vec3): boolean {
  const [x, y, depth] = project(camera, point);
  const isBefore = camera.state.projection === 'parallel' || depth > 0;
  return isBefore && x >= 0 && x <= camera.width && y >= 0 && y <= camera.pixelHeight;
}

/** Where a point is in the window, px. */
export function screenOf({ host, camera }: Pane, point: Vec3): readonly [number, number] {
  const { left, top } = host.getBoundingClientRect();
  const [x, y] = project(camera, point);
  return [left + x, top + y];
}

/** Boxes of the parts that have their middle in a view. */
export function boxesInView({ camera, stage }: Pane, may: (part: ItemId) => boolean): Box[] {
  const state = stage.session.store.getState();
  const parts = [...new Set(stage.model.scene.instances.map(({ part }) => part))];
  return parts.flatMap((part) => {
    const box = may(part) ? boxOf(state, part) : undefined;
    return box && isInPicture(camera, boxPoint(box, [0, 0, 0])) ? [box] : [];
  });
}
