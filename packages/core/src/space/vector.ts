/** Points and directions as triples of doubles, in mm. Every function returns a new triple. */
export type Vec3 = readonly [x: number, y: number, z: number];

export const ORIGIN: Vec3 = [0, 0, 0];
export const AXES = ['x', 'y', 'z'] as const;
export type Axis = (typeof AXES)[number];
export const AXIS_DIRECTION: Readonly<Record<Axis, Vec3>> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const subtract = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vec3, by: number): Vec3 => [a[0] * by, a[1] * by, a[2] * by];
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
/** Not by `hypot`, which is ten times slower: no length here comes near to overflowing. */
export const length = (a: Vec3): number => Math.sqrt(dot(a, a));
export const distance = (a: Vec3, b: Vec3): number => length(subtract(a, b));
export const middle = (a: Vec3, b: Vec3): Vec3 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2];
/** `a` plus `by` times the direction `d`. */
export const along = (a: Vec3, d: Vec3, by: number): Vec3 => [
  a[0] + d[0] * by,
  a[1] + d[1] * by,
  a[2] + d[2] * by,
];

/** The direction of `a` with length 1; the zero vector stays zero. */
export function unit(a: Vec3): Vec3 {
  const size = length(a);
  return size === 0 ? ORIGIN : scale(a, 1 / size);
}
