/** The nearest points of two triangles in space, each nine numbers in a row. */
import type { Vec3 } from '../space/vector.ts';

/** Reused from call to call: this runs for every pair of facets that come near. */
export interface Nearest {
  /** Square of the distance, mm². */
  square: number;
  /** Three numbers each, mm. */
  readonly onA: Float64Array;
  readonly onB: Float64Array;
}

export const nearestHolder = (): Nearest => ({
  square: Infinity,
  onA: new Float64Array(3),
  onB: new Float64Array(3),
});

/** Where triangles cross, the distance is 0 at a point of the crossing. */
export function nearestOfTriangles(a: Float64Array, b: Float64Array, found: Nearest): void {
  found.square = Infinity;
  for (let i = 0; i < 3; i++)
    for (let j = 0; j < 3; j++) {
      segments(a, 3 * i, 3 * ((i + 1) % 3));
      nearestOfSegments(b, 3 * j, 3 * ((j + 1) % 3));
      keepNearest(found);
      if (found.square === 0) return;
    }
  for (let i = 0; i < 3; i++) {
    if (footOnTriangle(a, 3 * i, b)) keepFoot(found, 'onA', a, 3 * i);
    if (footOnTriangle(b, 3 * i, a)) keepFoot(found, 'onB', b, 3 * i);
  }
  for (let i = 0; i < 3 && found.square > 0; i++) {
    crossing(a, i, b, found);
    crossing(b, i, a, found);
  }
}

/** The first segment of a pair, and the nearest points of both; plain numbers outside, so that nothing is allocated. */
const first = new Float64Array(6);
const near = new Float64Array(6);
let nearSquare = Infinity;

function segments(t: Float64Array, from: number, to: number): void {
  for (let k = 0; k < 3; k++) {
    first[k] = t[from + k]!;
    first[3 + k] = t[to + k]! - t[from + k]!;
  }
}

const clamped = (n: number) => (n < 0 ? 0 : n > 1 ? 1 : n);

/** Source: C. Ericson, Real-Time Collision Detection (2005), 5.1.9, from memory. */
function nearestOfSegments(t: Float64Array, from: number, to: number): void {
  const [ux, uy, uz] = [first[3]!, first[4]!, first[5]!];
  const [vx, vy, vz] = [t[to]! - t[from]!, t[to + 1]! - t[from + 1]!, t[to + 2]! - t[from + 2]!];
  const [rx, ry, rz] = [first[0]! - t[from]!, first[1]! - t[from + 1]!, first[2]! - t[from + 2]!];
  const uu = ux * ux + uy * uy + uz * uz;
  const vv = vx * vx + vy * vy + vz * vz;
  const uv = ux * vx + uy * vy + uz * vz;
  const ur = ux * rx + uy * ry + uz * rz;
  const vr = vx * rx + vy * ry + vz * rz;
  const size = uu * vv - uv * uv;
  let s = size > 1e-14 * uu * vv ? clamped((uv * vr - ur * vv) / size) : 0;
  let q = vv > 0 ? (uv * s + vr) / vv : 0;
  if (q < 0 || q > 1) {
    q = clamped(q);
    s = uu > 0 ? clamped((uv * q - ur) / uu) : 0;
  }
  near[0] = first[0]! + s * ux;
  near[1] = first[1]! + s * uy;
  near[2] = first[2]! + s * uz;
  near[3] = t[from]! + q * vx;
  near[4] = t[from + 1]! + q * vy;
  near[5] = t[from + 2]! + q * vz;
  nearSquare = (near[0] - near[3]) ** 2 + (near[1] - near[4]) ** 2 + (near[2] - near[5]) ** 2;
}

function keepNearest(found: Nearest): void {
  if (nearSquare >= found.square) return;
  found.square = nearSquare;
  for (let k = 0; k < 3; k++) {
    found.onA[k] = near[k]!;
    found.onB[k] = near[3 + k]!;
  }
}

const foot = new Float64Array(3);
let footSquare = Infinity;

/** Whether the foot of a corner on the plane of a triangle lies within it. */
function footOnTriangle(p: Float64Array, at: number, t: Float64Array): boolean {
  const [ux, uy, uz] = [t[3]! - t[0]!, t[4]! - t[1]!, t[5]! - t[2]!];
  const [vx, vy, vz] = [t[6]! - t[0]!, t[7]! - t[1]!, t[8]! - t[2]!];
  const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const nn = nx * nx + ny * ny + nz * nz;
  if (nn === 0) return false;
  const [wx, wy, wz] = [p[at]! - t[0]!, p[at + 1]! - t[1]!, p[at + 2]! - t[2]!];
  const v = ((uy * wz - uz * wy) * nx + (uz * wx - ux * wz) * ny + (ux * wy - uy * wx) * nz) / nn;
  const u = ((wy * vz - wz * vy) * nx + (wz * vx - wx * vz) * ny + (wx * vy - wy * vx) * nz) / nn;
  if (u < 0 || v < 0 || u + v > 1) return false;
  foot[0] = t[0]! + u * ux + v * vx;
  foot[1] = t[1]! + u * uy + v * vy;
  foot[2] = t[2]! + u * uz + v * vz;
  footSquare = (p[at]! - foot[0]) ** 2 + (p[at + 1]! - foot[1]) ** 2 + (p[at + 2]! - foot[2]) ** 2;
  return true;
}

function keepFoot(found: Nearest, side: 'onA' | 'onB', p: Float64Array, at: number): void {
  if (footSquare >= found.square) return;
  found.square = footSquare;
  const other = side === 'onA' ? 'onB' : 'onA';
  for (let k = 0; k < 3; k++) {
    found[side][k] = p[at + k]!;
    found[other][k] = foot[k]!;
  }
}

/** Where the edge of one from a corner to the next goes through the other. */
function crossing(e: Float64Array, corner: number, t: Float64Array, found: Nearest): void {
  const [from, to] = [3 * corner, 3 * ((corner + 1) % 3)];
  const [ux, uy, uz] = [t[3]! - t[0]!, t[4]! - t[1]!, t[5]! - t[2]!];
  const [vx, vy, vz] = [t[6]! - t[0]!, t[7]! - t[1]!, t[8]! - t[2]!];
  const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const off = (at: number) => (e[at]! - t[0]!) * nx + (e[at + 1]! - t[1]!) * ny + (e[at + 2]! - t[2]!) * nz;
  const [d0, d1] = [off(from), off(to)];
  if (d0 * d1 > 0 || d0 === d1) return;
  const s = d0 / (d0 - d1);
  for (let k = 0; k < 3; k++) point[k] = e[from + k]! + s * (e[to + k]! - e[from + k]!);
  if (!footOnTriangle(point, 0, t)) return;
  found.square = 0;
  found.onA.set(point);
  found.onB.set(point);
}
const point = new Float64Array(3);

/** The way out of a triangle, length 1; zeros where it has no area. */
export function normalOf(t: Float64Array): Vec3 {
  const [ux, uy, uz] = [t[3]! - t[0]!, t[4]! - t[1]!, t[5]! - t[2]!];
  const [vx, vy, vz] = [t[6]! - t[0]!, t[7]! - t[1]!, t[8]! - t[2]!];
  const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const size = Math.hypot(nx, ny, nz) || 1;
  return [nx / size, ny / size, nz / size];
}
