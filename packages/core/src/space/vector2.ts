/** Points and directions of a plane as pairs of doubles, in mm. Every function returns a new pair. */
export type Vec2 = readonly [x: number, y: number];

export const add2 = (a: Vec2, b: Vec2): Vec2 => [a[0] + b[0], a[1] + b[1]];
export const subtract2 = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]];
export const scale2 = (a: Vec2, by: number): Vec2 => [a[0] * by, a[1] * by];
export const dot2 = (a: Vec2, b: Vec2): number => a[0] * b[0] + a[1] * b[1];
/** The third component of the cross product: positive where `b` lies to the left of `a`. */
export const cross2 = (a: Vec2, b: Vec2): number => a[0] * b[1] - a[1] * b[0];
export const length2 = (a: Vec2): number => Math.sqrt(dot2(a, a));
export const distance2 = (a: Vec2, b: Vec2): number => length2(subtract2(a, b));
/** A quarter turn to the left. */
export const left2 = ([x, y]: Vec2): Vec2 => [-y, x];
export const mix2 = (a: Vec2, b: Vec2, part: number): Vec2 => [
  a[0] + (b[0] - a[0]) * part,
  a[1] + (b[1] - a[1]) * part,
];
/** The direction of `a` with length 1; the zero vector stays zero. */
export function unit2(a: Vec2): Vec2 {
  const size = length2(a);
  return size === 0 ? [0, 0] : [a[0] / size, a[1] / size];
}

/** Carries p to `x·p[0] + y·p[1] + shift`. */
export interface Affine2 {
  readonly x: Vec2;
  readonly y: Vec2;
  readonly shift: Vec2;
}
export const carry2 = ({ x, y, shift }: Affine2, p: Vec2): Vec2 => [
  x[0] * p[0] + y[0] * p[1] + shift[0],
  x[1] * p[0] + y[1] * p[1] + shift[1],
];
/** `outer` after `inner`. */
export const chain2 = (outer: Affine2, inner: Affine2): Affine2 => ({
  x: subtract2(carry2(outer, inner.x), outer.shift),
  y: subtract2(carry2(outer, inner.y), outer.shift),
  shift: carry2(outer, inner.shift),
});
