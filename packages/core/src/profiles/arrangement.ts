/**
 * The bounded areas that curves enclose, without a kernel: the curves are cut where they meet, and each area is walked round
 * with it on the left. Source: the doubly connected edge list of computational geometry, e.g. de Berg et al., chapter 2.
 */
import earcut from 'earcut';
import { isInPolygon } from '../space/polygon.ts';
import { add2, cross2, distance2, dot2, length2, subtract2, unit2, type Vec2 } from '../space/vector2.ts';
import {
  curvatureAt,
  curveLength,
  endOf,
  piecesBetween,
  reversed,
  startOf,
  velocityAt,
  type Curve,
} from '../curves/curve.ts';
import { areaBelow, boxOfCurves, flattened, simplePieces, type Box2 } from '../curves/flattened.ts';
import { meetings } from '../curves/meetings.ts';
import type { NamedCurve, Path } from './outline.ts';

/** A bounded area of the plane. */
export interface Area {
  /** Names of the curves round it, each once, in order. */
  readonly curves: readonly string[];
  /** Well inside. */
  readonly at: Vec2;
  /** mm² */
  readonly area: number;
  /** Corners of triangles that fill it, x and y. */
  readonly triangles: Float64Array;
}

/** Points nearer than this are one, mm: what the kernel takes for the same place, and its noise. */
const SAME_MM = 2e-7;
/** Curves that cross at less than this (sine) touch: which of them lies inside is left to the kernel. */
const TOUCH_SINE = 1e-5;
/** Directions that differ by less than this (radians) can be distinguished by how the curves bend. */
const SAME_WAY = 1e-7;

/** Undefined where curves lie on one another or touch, so that formulas alone do not tell what lies where. */
export function areasOf(paths: readonly Path[]): Area[] | undefined {
  const edges = cutEdges(paths.flatMap(({ curves }) => curves));
  const halves = edges && halfEdges(edges);
  if (!halves) return undefined;
  const loops = loopsOf(halves);
  const outer = loops.filter(({ area }) => area > 0).sort((a, b) => a.area - b.area);
  const holes = new Map(outer.map((loop) => [loop, [] as Loop[]]));
  for (const hole of loops.filter(({ area }) => area < 0)) {
    const around = outer.find(
      (loop) =>
        loop.island !== hole.island && loop.area > -hole.area && isInPolygon(hole.points[0]!, loop.points),
    );
    if (around) holes.get(around)!.push(hole);
  }
  return [...holes].map(([loop, inner]) => areaWithin(loop, inner));
}

/** The curves, cut wherever they meet one another. */
function cutEdges(curves: readonly NamedCurve[]): NamedCurve[] | undefined {
  const simple = curves.flatMap(({ name, curve }) =>
    simplePieces(curve).map((piece) => ({
      name,
      curve: piece,
      box: boxOfCurves([piece])!,
      cuts: [] as number[],
    })),
  );
  // Along X only those whose boxes have begun and not ended can meet.
  const byStart = simple.toSorted((a, b) => a.box.min[0] - b.box.min[0]);
  let open: typeof simple = [];
  for (const one of byStart) {
    open = open.filter((other) => other.box.max[0] + SAME_MM >= one.box.min[0]);
    for (const other of open) {
      if (!doOverlap(one.box, other.box)) continue;
      if (lieTogether(one.curve, other.curve)) return undefined;
      for (const { a, b } of meetings(one.curve, other.curve)) {
        if (doTouch(one.curve, a, other.curve, b)) return undefined;
        one.cuts.push(a);
        other.cuts.push(b);
      }
    }
    open.push(one);
  }
  return simple.flatMap(({ name, curve, cuts }) =>
    piecesBetween(curve, cuts, SAME_MM).map((piece) => ({ name, curve: piece })),
  );
}

const doOverlap = (a: Box2, b: Box2) =>
  ([0, 1] as const).every((i) => a.min[i] <= b.max[i] + SAME_MM && b.min[i] <= a.max[i] + SAME_MM);

function lieTogether(a: Curve, b: Curve): boolean {
  if (a.kind === 'line' && b.kind === 'line') {
    const way = unit2([a.to[0] - a.from[0], a.to[1] - a.from[1]]);
    const off = (p: Vec2) => Math.abs(cross2(way, [p[0] - a.from[0], p[1] - a.from[1]]));
    if (off(b.from) > SAME_MM || off(b.to) > SAME_MM) return false;
    const along = (p: Vec2) => dot2(way, [p[0] - a.from[0], p[1] - a.from[1]]);
    const [from, to] = [Math.min(along(b.from), along(b.to)), Math.max(along(b.from), along(b.to))];
    return Math.min(to, along(a.to)) - Math.max(from, 0) > SAME_MM;
  }
  if (a.kind === 'arc' && b.kind === 'arc')
    return (
      distance2(a.centre, b.centre) <= SAME_MM &&
      Math.abs(a.radius - b.radius) <= SAME_MM &&
      !areEndToEnd(a, b)
    );
  // Free curves that share both ends, or a long way, are left to the kernel.
  return (
    a.kind === b.kind &&
    a.kind !== 'arc' &&
    distance2(startOf(a), startOf(b)) <= SAME_MM &&
    distance2(endOf(a), endOf(b)) <= SAME_MM
  );
}

/** Arcs of one circle whose middles lie outside each other. */
function areEndToEnd(a: Extract<Curve, { kind: 'arc' }>, b: Extract<Curve, { kind: 'arc' }>): boolean {
  const middle = (arc: typeof a) => arc.first + arc.sweep / 2;
  const apart = Math.abs(((((middle(a) - middle(b)) % 360) + 540) % 360) - 180);
  return apart >= (Math.abs(a.sweep) + Math.abs(b.sweep)) / 2 - 1e-7;
}

function doTouch(a: Curve, p: number, b: Curve, q: number): boolean {
  const isEnd = (part: number, curve: Curve) => Math.min(part, 1 - part) * curveLength(curve) <= SAME_MM;
  // Ends that meet go on into each other: that is no touching.
  if (isEnd(p, a) && isEnd(q, b)) return false;
  return Math.abs(cross2(unit2(velocityAt(a, p)), unit2(velocityAt(b, q)))) < TOUCH_SINE;
}

/** One side of an edge; the area lies to its left. */
interface Half {
  readonly name: string;
  readonly curve: Curve;
  readonly from: number;
  readonly to: number;
  /** The direction in which it leaves, radians, and how it bends to the left. */
  readonly angle: number;
  readonly bend: number;
  other: Half;
  next?: Half;
}

function halfEdges(edges: readonly NamedCurve[]): Half[] | undefined {
  const vertexAt = vertices();
  let halves = edges.flatMap(({ name, curve }) => {
    const [from, to] = [vertexAt(startOf(curve)), vertexAt(endOf(curve))];
    const there = half(name, curve, { from, to });
    const back = half(name, reversed(curve), { from: to, to: from });
    [there.other, back.other] = [back, there];
    return [there, back];
  });
  halves = withoutLooseEnds(halves);
  const leaving = groupedByStart(halves);
  for (const around of leaving.values()) {
    around.sort((a, b) => (Math.abs(a.angle - b.angle) > SAME_WAY ? a.angle - b.angle : a.bend - b.bend));
    for (const [i, one] of around.entries()) {
      const after = around[(i + 1) % around.length]!;
      if (
        one !== after &&
        Math.abs(one.angle - after.angle) <= SAME_WAY &&
        Math.abs(one.bend - after.bend) < 1e-9
      )
        return undefined;
      // Coming in on the other side of `after`, the way on with the area to the left leaves by the one just before it.
      after.other.next = one;
    }
  }
  return halves;
}

function groupedByStart(halves: readonly Half[]): Map<number, Half[]> {
  const groups = new Map<number, Half[]>();
  for (const one of halves) {
    const group = groups.get(one.from);
    if (group) group.push(one);
    else groups.set(one.from, [one]);
  }
  return groups;
}

function half(
  name: string,
  curve: Curve,
  { from, to }: { readonly from: number; readonly to: number },
): Half {
  const [x, y] = leavingWay(curve);
  const angle = Math.atan2(y, x);
  // −π and π are one direction.
  const within = angle <= -Math.PI + SAME_WAY ? angle + 2 * Math.PI : angle;
  return { name, curve, from, to, angle: within, bend: curvatureAt(curve, 0), other: undefined as never };
}

/** A free curve whose first points are one stands still at its start: it leaves towards the first that is another. */
function leavingWay(curve: Curve): Vec2 {
  const velocity = velocityAt(curve, 0);
  if (curve.kind !== 'bezier' || length2(velocity) > SAME_MM) return velocity;
  const [start] = curve.points;
  const next = curve.points.find((point) => distance2(point, start!) > SAME_MM);
  return next ? subtract2(next, start!) : velocity;
}

/** Numbers for places: the same for points that are one. */
function vertices(): (point: Vec2) => number {
  const cells = new Map<string, { point: Vec2; id: number }[]>();
  const CELL = 100 * SAME_MM;
  let count = 0;
  return (point) => {
    const [x, y] = [Math.round(point[0] / CELL), Math.round(point[1] / CELL)];
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (const known of cells.get(`${x + i},${y + j}`) ?? [])
          if (distance2(known.point, point) <= SAME_MM) return known.id;
    const key = `${x},${y}`;
    cells.set(key, [...(cells.get(key) ?? []), { point, id: count }]);
    return count++;
  };
}

/** Edges that end in the open border nothing, nor do those that led only to them. */
function withoutLooseEnds(halves: readonly Half[]): Half[] {
  const degree = new Map<number, number>();
  for (const { from } of halves) degree.set(from, (degree.get(from) ?? 0) + 1);
  const gone = new Set<Half>();
  const leaving = groupedByStart(halves);
  const loose = halves.filter(({ from }) => degree.get(from) === 1);
  for (let one = loose.pop(); one; one = loose.pop()) {
    if (gone.has(one)) continue;
    gone.add(one).add(one.other);
    degree.set(one.to, degree.get(one.to)! - 1);
    if (degree.get(one.to) === 1) loose.push(...leaving.get(one.to)!.filter((next) => !gone.has(next)));
  }
  return halves.filter((one) => !gone.has(one));
}

interface Loop {
  readonly names: ReadonlySet<string>;
  /** Positive for what lies within it; negative for the rim of what lies round it. */
  readonly area: number;
  readonly points: readonly Vec2[];
  /** Which of the drawings that do not touch each other it belongs to. */
  readonly island: number;
}

function loopsOf(halves: readonly Half[]): Loop[] {
  const islands = islandsOf(halves);
  const seen = new Set<Half>();
  return halves.flatMap((start) => {
    if (seen.has(start)) return [];
    const names = new Set<string>();
    const points: Vec2[] = [];
    let area = 0;
    for (let one = start; !seen.has(one); one = one.next!) {
      seen.add(one);
      names.add(one.name);
      area += areaBelow(one.curve);
      points.push(...flattened(one.curve).slice(0, -1));
    }
    return [{ names, area, points, island: islands.get(start.from)! }];
  });
}

/** Places that edges join have one number. */
function islandsOf(halves: readonly Half[]): Map<number, number> {
  const leaving = groupedByStart(halves);
  const found = new Map<number, number>();
  for (const vertex of leaving.keys()) {
    const open = found.has(vertex) ? [] : [vertex];
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      if (found.has(at)) continue;
      found.set(at, vertex);
      for (const { to } of leaving.get(at) ?? []) open.push(to);
    }
  }
  return found;
}

function areaWithin(loop: Loop, holes: readonly Loop[]): Area {
  const rims = [loop, ...holes];
  const points = rims.flatMap((rim) => rim.points);
  const starts = holes.map((_, i) => rims.slice(0, i + 1).reduce((sum, rim) => sum + rim.points.length, 0));
  const corners = earcut(points.flat(), starts);
  const triangles = Float64Array.from(corners.flatMap((i) => [...points[i]!]));
  return {
    curves: [...new Set(rims.flatMap(({ names }) => [...names]))].sort(),
    area: rims.reduce((sum, { area }) => sum + area, 0),
    triangles,
    at: insideOf(triangles),
  };
}

/** The middle of the roundest large triangle. @param triangles x and y of three corners each */
export function insideOf(triangles: Float64Array): Vec2 {
  let best = -1;
  let at: Vec2 = [0, 0];
  for (let i = 0; i + 5 < triangles.length; i += 6) {
    const [a, b, c] = [0, 2, 4].map((k): Vec2 => [triangles[i + k]!, triangles[i + k + 1]!]) as [
      Vec2,
      Vec2,
      Vec2,
    ];
    const area = Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2;
    const score = area ** 2 / (distance2(a, b) + distance2(b, c) + distance2(c, a));
    if (score > best) [best, at] = [score, add2(add2(a, b), c).map((n) => n / 3) as unknown as Vec2];
  }
  return at;
}
