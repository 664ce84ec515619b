/**
 * What is seen of boxes and cylinders along a direction, by formulas and without the kernel: a point of an edge is hidden where the
 * line of sight from it goes through a solid. Source: intersections of a line with slabs and with a quadric, worked out here.
 */
import { carry, carryBack, turnBack, type Pose, type Vec3 } from '@kadrel/core';

export type PlainShape = { readonly pose: Pose } & (
  | { readonly kind: 'box'; readonly size: Vec3 }
  | { readonly kind: 'cylinder'; readonly radius: number; readonly height: number }
);

/** An edge as a function of a parameter from 0 to 1, in the world, mm. */
export type EdgeWay = (t: number) => Vec3;

interface Line {
  readonly point: Vec3;
  /** Of length 1. */
  readonly towards: Vec3;
}

/** Where a line through a point leaves a shape towards who looks: how far from the point, mm, and by which face. Undefined where it misses. */
export function foremostOf(
  shape: PlainShape,
  line: Line,
): { readonly at: number; readonly face: number } | undefined {
  const spans = spansOf(shape, line, 0);
  const at = Math.min(...spans.map(([, high]) => high));
  if (at <= Math.max(...spans.map(([low]) => low))) return undefined;
  return { at, face: spans.findIndex(([, high]) => high === at) };
}

/** Length of the line of sight from a point within a solid, mm: where it runs along the surface, which counts as decided. */
export function lengthWithin(
  shape: PlainShape,
  { surface, ...line }: Line & { readonly surface: 'in' | 'out' },
): number {
  const spans = spansOf(shape, line, surface === 'in' ? SLACK : -SLACK);
  const first = Math.max(0, ...spans.map(([low]) => low));
  return Math.max(0, Math.min(...spans.map(([, high]) => high)) - first);
}

/** Where along the line each pair of sides has it between them. */
function spansOf(
  shape: PlainShape,
  { point, towards }: Line,
  slack: number,
): (readonly [low: number, high: number])[] {
  const from = carryBack(shape.pose, point);
  const way = turnBack(shape.pose.turn, towards);
  if (shape.kind === 'box')
    return shape.size.map((size, i) => slab({ from: from[i]!, way: way[i]! }, size, slack));
  return [slab({ from: from[2], way: way[2] }, shape.height, slack), disc(from, way, shape.radius + slack)];
}

/** Directions flatter than this are parallel. */
const FLAT = 1e-12;

/** Lines that run nearer to a surface than this (mm) run along it. */
const SLACK = 1e-7;

/** Where from + t·way lies between 0 and a size. */
function slab(
  { from, way }: { readonly from: number; readonly way: number },
  size: number,
  slack: number,
): readonly [number, number] {
  if (Math.abs(way) < FLAT) return from > -slack && from < size + slack ? [-Infinity, Infinity] : [0, 0];
  const ends = [-from / way, (size - from) / way];
  return [Math.min(...ends), Math.max(...ends)];
}

function disc([x, y]: Vec3, [u, v]: Vec3, radius: number): readonly [number, number] {
  const a = u * u + v * v;
  const c = x * x + y * y - radius * radius;
  if (a < FLAT) return c < 0 ? [-Infinity, Infinity] : [0, 0];
  const b = x * u + y * v;
  const root = b * b - a * c;
  return root <= 0 ? [0, 0] : [(-b - Math.sqrt(root)) / a, (-b + Math.sqrt(root)) / a];
}

/** Sharp edges, and where a cylinder turns away from who looks along a direction. */
export function edgesOfShape(shape: PlainShape, towards: Vec3): EdgeWay[] {
  const world =
    (way: EdgeWay): EdgeWay =>
    (t) =>
      carry(shape.pose, way(t));
  return (shape.kind === 'box' ? boxEdges(shape.size) : cylinderEdges(shape, towards)).map(world);
}

function boxEdges(size: Vec3): EdgeWay[] {
  return [0, 1, 2].flatMap((axis) => {
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3] as const;
    return [0, 1].flatMap((i) =>
      [0, 1].map((j): EdgeWay => (t) => {
        const at: [number, number, number] = [0, 0, 0];
        at[axis] = t * size[axis]!;
        at[u] = i * size[u]!;
        at[v] = j * size[v]!;
        return at;
      }),
    );
  });
}

function cylinderEdges(
  { radius, height, pose }: Extract<PlainShape, { kind: 'cylinder' }>,
  towards: Vec3,
): EdgeWay[] {
  const round =
    (z: number): EdgeWay =>
    (t) => [radius * Math.cos(2 * Math.PI * t), radius * Math.sin(2 * Math.PI * t), z];
  const [u, v] = turnBack(pose.turn, towards);
  const flat = Math.hypot(u, v);
  const sides =
    flat < 1e-9
      ? []
      : [1, -1].map((side): EdgeWay => (t) => [
          (-side * v * radius) / flat,
          (side * u * radius) / flat,
          t * height,
        ]);
  return [round(0), round(height), ...sides];
}
