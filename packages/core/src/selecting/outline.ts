/** Regions of the screen, and how points and straight lines lie to them. Pixels; the outline belongs to the region. */
import { isInPolygon } from '../space/polygon.ts';

export type Point = readonly [x: number, y: number];

/** What was drawn on the screen to select by, px. */
export type Region =
  | {
      readonly kind: 'rectangle';
      readonly left: number;
      readonly top: number;
      readonly right: number;
      readonly bottom: number;
    }
  | { readonly kind: 'circle'; readonly centre: Point; readonly radius: number }
  /** A fence of straight legs or a lasso, closed from its last corner to its first; even-odd where it crosses itself. */
  | { readonly kind: 'polygon'; readonly corners: readonly Point[] }
  /** Everything nearer than `radius` to a path. */
  | { readonly kind: 'brush'; readonly path: readonly Point[]; readonly radius: number };

/** The box round a region, px. */
export function boundsOf(region: Region) {
  if (region.kind === 'rectangle') return region;
  const points =
    region.kind === 'circle' ? [region.centre] : region.kind === 'brush' ? region.path : region.corners;
  const grow = region.kind === 'polygon' ? 0 : region.radius;
  return {
    left: Math.min(...points.map(([x]) => x)) - grow,
    right: Math.max(...points.map(([x]) => x)) + grow,
    top: Math.min(...points.map(([, y]) => y)) - grow,
    bottom: Math.max(...points.map(([, y]) => y)) + grow,
  };
}

/** Whether a point lies in a region. */
export function contains(region: Region, point: Point): boolean {
  const [x, y] = point;
  switch (region.kind) {
    case 'rectangle':
      return x >= region.left && x <= region.right && y >= region.top && y <= region.bottom;
    case 'circle':
      return Math.hypot(x - region.centre[0], y - region.centre[1]) <= region.radius;
    case 'brush':
      return legs(region).some(([a, b]) => pointToSegment(point, a, b) <= region.radius);
    case 'polygon':
      return isInPolygon([x, y], region.corners);
  }
}

/** Whether a straight line and the region share a point. */
export function meetsSegment(region: Region, a: Point, b: Point): boolean {
  switch (region.kind) {
    case 'rectangle':
      return crossesRectangle(a, b, region);
    case 'circle':
      return pointToSegment(region.centre, a, b) <= region.radius;
    case 'brush':
      return legs(region).some(([c, d]) => segmentToSegment(a, b, c, d) <= region.radius);
    case 'polygon':
      return crossesSides(region.corners, a, b) || isInPolygon(a, region.corners);
  }
}

/** Whether the region holds all of a convex polygon. */
export function encloses(region: Region, corners: readonly Point[]): boolean {
  if (!corners.every((corner) => contains(region, corner))) return false;
  if (region.kind === 'rectangle' || region.kind === 'circle') return true;
  const edges = sides(corners);
  if (region.kind === 'brush') return edges.every(([a, b]) => isPainted(region, a, b));
  return (
    !edges.some(([a, b]) => crossesSidesProperly(region.corners, a, b)) &&
    !region.corners.some((corner) => isStrictlyInside(corners, corner))
  );
}

/** Whether brush strokes cover all of a straight line: the pieces that each leg covers, one after another. */
function isPainted(region: Region & { kind: 'brush' }, a: Point, b: Point): boolean {
  const covered = legs(region)
    .flatMap((leg) => coveredBy([a, b], leg, region.radius) ?? [])
    .sort((m, n) => m.from - n.from);
  let reach = 0;
  for (const { from, to } of covered) {
    if (from > reach + 1e-9) return false;
    reach = Math.max(reach, to);
  }
  return reach >= 1 - 1e-9;
}

/** The piece of a–b nearer than `radius` to a leg, as shares of a–b. The distance is convex along the line. */
function coveredBy([a, b]: readonly [Point, Point], [c, d]: readonly [Point, Point], radius: number) {
  const at = (s: number): Point => [a[0] + s * (b[0] - a[0]), a[1] + s * (b[1] - a[1])];
  const off = (s: number) => pointToSegment(at(s), c, d) - radius;
  let [low, high] = [0, 1];
  for (let i = 0; i < 60; i++) {
    const [m, n] = [low + (high - low) / 3, high - (high - low) / 3];
    if (off(m) < off(n)) high = n;
    else low = m;
  }
  const nearest = (low + high) / 2;
  if (off(nearest) > 1e-9) return undefined;
  return { from: edgeOf(off, nearest, 0), to: edgeOf(off, nearest, 1) };
}

function edgeOf(off: (s: number) => number, inside: number, outside: number): number {
  if (off(outside) <= 0) return outside;
  let [low, high] = [inside, outside];
  for (let i = 0; i < 60; i++) {
    const half = (low + high) / 2;
    if (off(half) <= 0) low = half;
    else high = half;
  }
  return low;
}

/** A point of the region: for the case that it lies wholly within something. */
export function someMember(region: Region): Point {
  switch (region.kind) {
    case 'rectangle':
      return [(region.left + region.right) / 2, (region.top + region.bottom) / 2];
    case 'circle':
      return region.centre;
    case 'brush':
      return region.path[0]!;
    case 'polygon':
      return region.corners[0]!;
  }
}

function legs({ path }: { readonly path: readonly Point[] }): (readonly [Point, Point])[] {
  if (path.length === 1) return [[path[0]!, path[0]!]];
  return path.slice(1).map((point, i) => [path[i]!, point] as const);
}

const sides = (corners: readonly Point[]) =>
  corners.map((corner, i) => [corner, corners[(i + 1) % corners.length]!] as const);

function pointToSegment([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay];
  const size = dx * dx + dy * dy;
  const s = size === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / size));
  return Math.hypot(x - ax - s * dx, y - ay - s * dy);
}

function segmentToSegment(a: Point, b: Point, c: Point, d: Point): number {
  if (doCross(a, b, c, d)) return 0;
  return Math.min(
    pointToSegment(a, c, d),
    pointToSegment(b, c, d),
    pointToSegment(c, a, b),
    pointToSegment(d, a, b),
  );
}

// The tests of corners against a region are the many: they take no arrays apart.
const turnOf = (a: Point, b: Point, c: Point): number => {
  const turn = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  return turn > 0 ? 1 : turn < 0 ? -1 : 0;
};

/** Whether a straight line comes near another at all. */
const areApart = (a: Point, b: Point, c: Point, d: Point): boolean =>
  (a[0] < c[0] && a[0] < d[0] && b[0] < c[0] && b[0] < d[0]) ||
  (a[0] > c[0] && a[0] > d[0] && b[0] > c[0] && b[0] > d[0]) ||
  (a[1] < c[1] && a[1] < d[1] && b[1] < c[1] && b[1] < d[1]) ||
  (a[1] > c[1] && a[1] > d[1] && b[1] > c[1] && b[1] > d[1]);

function crossesSides(corners: readonly Point[], a: Point, b: Point): boolean {
  let before = corners[corners.length - 1]!;
  for (const corner of corners) {
    if (doCross(a, b, before, corner)) return true;
    before = corner;
  }
  return false;
}

function crossesSidesProperly(corners: readonly Point[], a: Point, b: Point): boolean {
  let before = corners[corners.length - 1]!;
  for (const corner of corners) {
    if (doCrossProperly(a, b, before, corner)) return true;
    before = corner;
  }
  return false;
}

/** Whether two straight lines share a point. Source: Cormen et al., Introduction to Algorithms, 33.1. */
function doCross(a: Point, b: Point, c: Point, d: Point): boolean {
  if (areApart(a, b, c, d)) return false;
  const p = turnOf(c, d, a);
  const q = turnOf(c, d, b);
  const r = turnOf(a, b, c);
  const s = turnOf(a, b, d);
  if (p !== q && r !== s) return true;
  return (
    (p === 0 && isOn(c, d, a)) ||
    (q === 0 && isOn(c, d, b)) ||
    (r === 0 && isOn(a, b, c)) ||
    (s === 0 && isOn(a, b, d))
  );
}

const isOn = (x: Point, y: Point, z: Point) =>
  Math.min(x[0], y[0]) <= z[0] &&
  z[0] <= Math.max(x[0], y[0]) &&
  Math.min(x[1], y[1]) <= z[1] &&
  z[1] <= Math.max(x[1], y[1]);

/** Cross in one inner point of both. */
const doCrossProperly = (a: Point, b: Point, c: Point, d: Point) =>
  !areApart(a, b, c, d) && turnOf(c, d, a) * turnOf(c, d, b) < 0 && turnOf(a, b, c) * turnOf(a, b, d) < 0;

function isStrictlyInside(corners: readonly Point[], point: Point): boolean {
  const turns = sides(corners).map(([a, b]) => turnOf(a, b, point));
  return turns.every((turn) => turn > 0) || turns.every((turn) => turn < 0);
}

/** Whether a segment meets a rectangle. Source: Liang and Barsky, ACM Transactions on Graphics 3 (1984). */
function crossesRectangle(
  [ax, ay]: Point,
  [bx, by]: Point,
  { left, top, right, bottom }: Region & { kind: 'rectangle' },
): boolean {
  let [enter, leave] = [0, 1];
  const borders = [
    [ax - bx, ax - left],
    [bx - ax, right - ax],
    [ay - by, ay - top],
    [by - ay, bottom - ay],
  ] as const;
  for (const [slope, room] of borders) {
    if (slope === 0 && room < 0) return false;
    if (slope === 0) continue;
    if (slope < 0) enter = Math.max(enter, room / slope);
    else leave = Math.min(leave, room / slope);
  }
  return enter <= leave;
}
