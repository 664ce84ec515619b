/**
 * How a view looks at the world: where it looks from, and which pixel a point falls on. The page draws with it, the
 * snaps and the selection measure with it, and tests use it without a screen.
 *
 * Bearing 0° looks from the front (−Y), 90° from the right (+X), as on a compass seen from above, counter-clockwise.
 * Altitude 90° looks straight down (plan), 0° level, −90° from underneath. Pixels: x to the right, y down.
 */
import { cosDegrees, radians, sinDegrees } from './angle.ts';
import type { Box } from './box.ts';
import { boxCorners } from './box.ts';
import type { Ray } from './plane.ts';
import { add, dot, length, scale, subtract, unit, type Vec3 } from './vector.ts';

export interface ViewState {
  /** The point that stays put when the view orbits. */
  readonly target: Vec3;
  readonly bearing: number;
  readonly altitude: number;
  /** Height of the picture at the target, mm. */
  readonly height: number;
  readonly projection: 'perspective' | 'parallel';
}

/** Height of the field of view of a perspective view, degrees: that of a 50 mm lens on 35 mm film. */
export const FIELD_OF_VIEW = 27;

/** Altitude of an isometric view. Source: ISO 5456-3, isometric axonometry: atan(1/√2). */
export const ISOMETRIC_ALTITUDE = 35.264389682754654;

export interface Camera {
  readonly state: ViewState;
  readonly width: number;
  readonly pixelHeight: number;
  readonly eye: Vec3;
  /** Axes of the picture in the world, length 1; `toward` points from the target to the eye. */
  readonly right: Vec3;
  readonly up: Vec3;
  readonly toward: Vec3;
}

export function cameraOf(state: ViewState, width: number, pixelHeight: number): Camera {
  const [sb, cb, sa, ca] = [
    sinDegrees(state.bearing),
    cosDegrees(state.bearing),
    sinDegrees(state.altitude),
    cosDegrees(state.altitude),
  ];
  const right: Vec3 = [cb, sb, 0];
  const toward: Vec3 = [sb * ca, -cb * ca, sa];
  const up: Vec3 = [-sb * sa, cb * sa, ca];
  const eye = add(state.target, scale(toward, eyeDistance(state)));
  return { state, width, pixelHeight, eye, right, up, toward };
}

/** From the target to the eye, mm; a parallel view stands as far off as a perspective one. */
export function eyeDistance({ height }: Pick<ViewState, 'height'>): number {
  return height / 2 / Math.tan(radians(FIELD_OF_VIEW / 2));
}

/** Size of one pixel at the target, mm. */
export const mmPerPixel = ({ state, pixelHeight }: Camera): number => state.height / pixelHeight;

/** Size of one pixel at `depth` mm in front of the eye. */
export function mmPerPixelAt(camera: Camera, depth: number): number {
  return camera.state.projection === 'parallel'
    ? mmPerPixel(camera)
    : (mmPerPixel(camera) * depth) / eyeDistance(camera.state);
}

/** Distance in front of the eye along the line of sight; negative behind it. */
export const depthOf = (camera: Camera, point: Vec3): number =>
  dot(subtract(camera.eye, point), camera.toward);

/** Pixel and depth of a world point. */
export function project(camera: Camera, point: Vec3): Vec3 {
  const offset = subtract(point, camera.eye);
  const depth = -dot(offset, camera.toward);
  const size = mmPerPixelAt(camera, depth);
  return [
    camera.width / 2 + dot(offset, camera.right) / size,
    camera.pixelHeight / 2 - dot(offset, camera.up) / size,
    depth,
  ];
}

/** The ray under a pixel. In a parallel view it starts far behind the eye, so that nothing is missed. */
export function rayThrough(camera: Camera, x: number, y: number): Ray {
  const size = mmPerPixel(camera);
  const across = (x - camera.width / 2) * size;
  const upward = (camera.pixelHeight / 2 - y) * size;
  const onTarget = add(camera.state.target, add(scale(camera.right, across), scale(camera.up, upward)));
  if (camera.state.projection === 'parallel') {
    const back = eyeDistance(camera.state) + PARALLEL_BACK_MM;
    return { from: add(onTarget, scale(camera.toward, back)), direction: scale(camera.toward, -1) };
  }
  return { from: camera.eye, direction: unit(subtract(onTarget, camera.eye)) };
}

/** How far behind the eye a parallel view still sees: a kilometre and more, the largest scene that keeps 1e-9 mm. */
export const PARALLEL_BACK_MM = 2e6;

/** The same direction of view, moved and sized so that the box fills most of the picture. */
export function fitted(state: ViewState, box: Box, aspect: number): ViewState {
  const target: Vec3 = [0, 1, 2].map((i) => (box.min[i]! + box.max[i]!) / 2) as unknown as Vec3;
  const { right, up, toward } = cameraOf({ ...state, target }, 1, 1);
  let half = 0;
  for (const corner of boxCorners(box)) {
    const offset = subtract(corner, target);
    const nearer =
      state.projection === 'perspective' ? dot(offset, toward) * Math.tan(radians(FIELD_OF_VIEW / 2)) : 0;
    half = Math.max(half, Math.abs(dot(offset, up)) + nearer, Math.abs(dot(offset, right)) / aspect + nearer);
  }
  const min = Math.max(length(subtract(box.max, box.min)) / 100, 1e-3);
  return { ...state, target, height: Math.max(2 * half * FIT_MARGIN, min) };
}

/** Fitted things leave a margin of a fifth, so that grips and dimensions stay in the picture. */
const FIT_MARGIN = 1.25;
