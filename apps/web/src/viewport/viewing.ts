/** What people do with a view: fit it, orbit, pan and zoom. */
import {
  boxPoint,
  boxSize,
  castOnScene,
  fitted,
  pointOnRay,
  rayThrough,
  type Box,
  type Vec3,
} from '@kadrel/core';
import { EMPTY_VIEW, type Pane } from './pane.ts';
import { selectionBox } from './gripSet.ts';
import { about, orbited, panned, zoomed, type NamedView } from './standard.ts';

/** A place that is framed has so much of its own size round it, and is taken for at least so large a part of all there is. */
const FRAME_ROUND = 0.5;
const MIN_FRAME = 0.25;

/** All of the picture is filled by the selection, or by everything; the view orbits about it from then on. */
export function fitView({ stage, travel, camera }: Pane, what: 'selection' | 'all'): void {
  const box =
    (what === 'selection' ? selectionBox(stage.session.store.getState()) : undefined) ?? stage.model.box;
  const { view } = travel;
  if (box) return travel.go(fitted(view, box, camera.width / camera.pixelHeight));
  const { bearing, altitude, projection } = view;
  travel.go({ ...EMPTY_VIEW, bearing, altitude, projection });
}

/** A place and what is round it fill the picture. */
export function frameBox({ stage, travel, camera }: Pane, { min, max }: Box): void {
  const all = stage.model.box;
  const minimum = all ? Math.hypot(...boxSize(all)) * MIN_FRAME : 1;
  const size = Math.max(minimum, ...max.map((n, i) => n - min[i]!));
  const grown = {
    min: min.map((n) => n - size * FRAME_ROUND) as unknown as Vec3,
    max: max.map((n) => n + size * FRAME_ROUND) as unknown as Vec3,
  };
  travel.go(fitted(travel.view, grown, camera.width / camera.pixelHeight));
}

/** From another side. */
export const look = (
  { travel }: Pane,
  { bearing, altitude }: Pick<NamedView, 'bearing' | 'altitude'>,
): void => travel.go({ ...travel.view, bearing, altitude });

/** By pixels. */
export const orbit = ({ travel }: Pane, dx: number, dy: number): void =>
  travel.move((state) => orbited(state, dx, dy));

/** By pixels. */
export const pan = ({ travel, camera }: Pane, dx: number, dy: number): void =>
  travel.move(() => panned(camera, dx, dy));

/** Towards what is under a pixel, or away from it. */
export function zoom({ travel, camera }: Pane, [x, y]: readonly [number, number], factor: number): void {
  travel.beginZoom();
  travel.move(() => zoomed(camera, x, y, factor));
}

/** The view turns about the selection, or else about what is under the pointer. */
export function orbitAbout({ stage, travel, camera, scene }: Pane, x: number, y: number): void {
  const box = selectionBox(stage.session.store.getState());
  if (box) return travel.set(about(travel.state, boxPoint(box, [0, 0, 0])));
  const ray = rayThrough(camera, x, y);
  const hit = castOnScene(scene, ray);
  if (hit) travel.set(about(travel.state, pointOnRay(ray, hit.distance)));
}
