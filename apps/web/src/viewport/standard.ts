/** The standard views and the moves of the camera, as pure functions of the view's state. */
import {
  ISOMETRIC_ALTITUDE,
  add,
  cameraOf,
  eyeDistance,
  mmPerPixel,
  pointOnRay,
  rayThrough,
  rayToPlane,
  scale,
  subtract,
  type Camera,
  type Vec3,
  type ViewState,
} from '@kadrel/core';

/** A view by its name, degrees as on the view dial. */
export interface NamedView {
  readonly name: string;
  readonly bearing: number;
  readonly altitude: number;
}

/** Where a project is looked at from first. */
export const HOME: NamedView = { name: 'Home', bearing: 30, altitude: 30 };
/** In the order in which people see them. */
export const STANDARD_VIEWS: readonly NamedView[] = [
  HOME,
  { name: 'Plan', bearing: 0, altitude: 90 },
  { name: 'Front', bearing: 0, altitude: 0 },
  { name: 'Right', bearing: 90, altitude: 0 },
  { name: 'Back', bearing: 180, altitude: 0 },
  { name: 'Left', bearing: 270, altitude: 0 },
  { name: 'Under', bearing: 0, altitude: -90 },
  { name: 'Isometric', bearing: 45, altitude: ISOMETRIC_ALTITUDE },
];

/** The name of the view that looks this way, or undefined. */
export const viewName = ({
  bearing,
  altitude,
}: Pick<ViewState, 'bearing' | 'altitude'>): string | undefined =>
  STANDARD_VIEWS.find(
    (view) =>
      Math.abs(view.altitude - altitude) < 1e-9 &&
      (Math.abs(altitude) === 90 || Math.abs(view.bearing - bearing) < 1e-9),
  )?.name;

/** Degrees for a drag of one pixel: half a turn across a window of 720 pixels. */
const DEGREES_PER_PIXEL = 0.25;
const MIN_HEIGHT_MM = 1e-3;
const MAX_HEIGHT_MM = 1e7;

const bearingWithin = (bearing: number) => ((bearing % 360) + 360) % 360;

/** Turns the view about its target by a drag in pixels. */
export function orbited(state: ViewState, dx: number, dy: number): ViewState {
  const altitude = Math.max(-90, Math.min(90, state.altitude + dy * DEGREES_PER_PIXEL));
  return { ...state, bearing: bearingWithin(state.bearing - dx * DEGREES_PER_PIXEL), altitude };
}

/** Shifts the view so that what is at the target follows the pointer. */
export function panned(camera: Camera, dx: number, dy: number): ViewState {
  const size = mmPerPixel(camera);
  const shift = add(scale(camera.right, -dx * size), scale(camera.up, dy * size));
  return { ...camera.state, target: add(camera.state.target, shift) };
}

/** Makes things larger or smaller; what is under the pointer, at the depth of the target, stays under it. */
export function zoomed(camera: Camera, x: number, y: number, factor: number): ViewState {
  const { state } = camera;
  const height = Math.max(MIN_HEIGHT_MM, Math.min(MAX_HEIGHT_MM, state.height * factor));
  const ray = rayThrough(camera, x, y);
  const far = rayToPlane(ray, { point: state.target, normal: camera.toward });
  const under = far === undefined ? state.target : pointOnRay(ray, far);
  const kept = scale(subtract(state.target, under), height / state.height);
  return { ...state, height, target: add(under, kept) };
}

/** The view orbits about `target` from now on, without a jump in the picture at its middle. */
export function about(state: ViewState, target: Vec3): ViewState {
  const camera = cameraOf(state, 1, 1);
  const offset = subtract(target, state.target);
  const depth = camera.toward[0] * offset[0] + camera.toward[1] * offset[1] + camera.toward[2] * offset[2];
  const distance = eyeDistance(state) - depth;
  if (!(distance > 0)) return state;
  // Only the depth of the target changes, so that the picture stays as it is.
  const moved = add(state.target, scale(camera.toward, depth));
  const height =
    state.projection === 'perspective' ? (state.height * distance) / eyeDistance(state) : state.height;
  return { ...state, target: moved, height };
}

/** Part of the way from one view to another, the shorter way round. `progress01` from 0 to 1. */
export function between(from: ViewState, to: ViewState, progress01: number): ViewState {
  if (progress01 >= 1) return to;
  const eased = 1 - (1 - progress01) ** 3;
  const mix = (a: number, b: number) => a + (b - a) * eased;
  let turn = bearingWithin(to.bearing - from.bearing);
  if (turn > 180) turn -= 360;
  return {
    ...to,
    bearing: bearingWithin(from.bearing + turn * eased),
    altitude: mix(from.altitude, to.altitude),
    height: Math.exp(mix(Math.log(from.height), Math.log(to.height))),
    target: [0, 1, 2].map((i) => mix(from.target[i]!, to.target[i]!)) as unknown as Vec3,
  };
}
