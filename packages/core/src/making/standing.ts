/** How a solid stands on the ground, and what of it hangs over: by its facets, in the world. */
import type { Footing, Overhang } from '../questions/makeFacts.ts';
import { degrees } from '../space/angle.ts';
import { unionBoxes } from '../space/box.ts';
import type { Vec3 } from '../space/vector.ts';
import type { Vec2 } from '../space/vector2.ts';
import type { Corners } from '../snapping/facetCorners.ts';
import { areaOf, normalOf } from './pieces.ts';

/** What is higher than the lowest point by no more than this, mm, lies on the ground: facets are in single precision. */
const LEVEL_MM = 1e-4;

/** The lowest height of some facets, mm. */
export const groundOf = (facets: readonly Corners[]): number =>
  facets.reduce((min, corners) => Math.min(min, ...corners.map(([, , z]) => z)), Infinity);

/** @param limit degrees from upright that need no support */
export function overhangOf(facets: readonly Corners[], limit: number): Overhang | undefined {
  const found = hanging(facets, limit);
  if (found.length === 0) return undefined;
  const area = found.reduce((sum, one) => sum + one.area, 0);
  const box = unionBoxes(found.flatMap(({ corners }) => corners.map((at) => ({ min: at, max: at }))))!;
  const better = betterTurn(facets, limit, area);
  return {
    area,
    steepest: Math.max(...found.map(({ lean }) => lean)),
    box,
    ...(better ? { better } : {}),
  };
}

interface Hanging {
  readonly corners: Corners;
  readonly area: number;
  /** From upright, degrees. */
  readonly lean: number;
}

/** A facet that leans as far as is allowed, but for rounding, is allowed, degrees. */
const HAIR_DEGREES = 1e-4;

function hanging(facets: readonly Corners[], limit: number): Hanging[] {
  const ground = groundOf(facets);
  return facets.flatMap((corners) => {
    const down = -(normalOf(corners)?.[2] ?? 0);
    if (down <= 0 || corners.every(([, , z]) => z <= ground + LEVEL_MM)) return [];
    const lean = degrees(Math.asin(Math.min(1, down)));
    return lean <= limit + HAIR_DEGREES ? [] : [{ corners, area: areaOf(corners), lean }];
  });
}

const TURNS: readonly { about: 'x' | 'y'; angle: number; carry: (p: Vec3) => Vec3 }[] = [
  { about: 'x', angle: 180, carry: ([x, y, z]) => [x, -y, -z] },
  { about: 'x', angle: 90, carry: ([x, y, z]) => [x, -z, y] },
  { about: 'x', angle: -90, carry: ([x, y, z]) => [x, z, -y] },
  { about: 'y', angle: 90, carry: ([x, y, z]) => [z, y, -x] },
  { about: 'y', angle: -90, carry: ([x, y, z]) => [-z, y, x] },
];

/** The turn that leaves least, if it leaves less than half. */
function betterTurn(facets: readonly Corners[], limit: number, area: number): Overhang['better'] {
  let best: Overhang['better'];
  for (const { about, angle, carry } of TURNS) {
    const turned = facets.map((corners) => corners.map(carry) as unknown as Corners);
    const left = hanging(turned, limit).reduce((sum, one) => sum + one.area, 0);
    if (left < (best?.area ?? area / 2)) best = { about, angle, area: left };
  }
  return best;
}

/** @param centroid of its mass */
export function footingOf(facets: readonly Corners[], centroid: Vec3): Footing {
  const ground = groundOf(facets);
  const points = facets
    .flat()
    .filter(([, , z]) => z <= ground + LEVEL_MM)
    .map(([x, y]): Vec2 => [x, y]);
  const hull = hullOf(points);
  return { hull, margin: marginIn(hull, [centroid[0], centroid[1]]) };
}

/** Against the clock, without points on its edges. Source: A. M. Andrew, *Another efficient algorithm for convex hulls in two dimensions*, 1979. */
export function hullOf(points: readonly Vec2[]): Vec2[] {
  const sorted = [...points].sort(([a, b], [c, d]) => a - c || b - d);
  const distinct = sorted.filter(
    ([x, y], i) => i === 0 || x !== sorted[i - 1]![0] || y !== sorted[i - 1]![1],
  );
  if (distinct.length < 3) return distinct;
  const half = (order: readonly Vec2[]) => {
    const chain: Vec2[] = [];
    for (const point of order) {
      while (chain.length >= 2 && side(chain.at(-2)!, chain.at(-1)!, point) <= 0) chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(distinct), ...half(distinct.toReversed())];
}

/** Twice the area of a triangle; above 0 against the clock. */
const side = ([ax, ay]: Vec2, [bx, by]: Vec2, [cx, cy]: Vec2) =>
  (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);

/** The least distance from its edges; below 0 outside. On a line or a point nothing stands. */
function marginIn(hull: readonly Vec2[], at: Vec2): number {
  const off = (a: Vec2, b: Vec2) => side(a, b, at) / Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (hull.length === 0) return 0;
  if (hull.length === 1) return -Math.hypot(at[0] - hull[0]![0], at[1] - hull[0]![1]);
  if (hull.length === 2) return -Math.abs(off(hull[0]!, hull[1]!));
  return Math.min(...hull.map((point, i) => off(point, hull[(i + 1) % hull.length]!)));
}

/** Places where something begins in the air: lowest points of what hangs down, one for each. */
export function islandsOf(facets: readonly Corners[]): Vec3[] {
  const levels = new Levels(facets);
  return levels.lowest().filter(([, , z]) => z > groundOf(facets) + LEVEL_MM);
}

/** Corners that lie level and hang together are one; each knows whether anything beside it is lower, and which way it looks. */
class Levels {
  private readonly points: Vec3[] = [];
  /** 3·T: which point each corner is. */
  private readonly corners: Uint32Array;
  private readonly roots: number[];

  constructor(private readonly facets: readonly Corners[]) {
    const ids = new Map<string, number>();
    this.corners = Uint32Array.from(facets.flat(), (point) => {
      const key = point.map((n) => Math.round(n / LEVEL_MM)).join();
      const id = ids.get(key) ?? this.points.push(point) - 1;
      ids.set(key, id);
      return id;
    });
    this.roots = this.points.map((_, id) => id);
    this.alongEdges((a, b, rise) => {
      if (Math.abs(rise) <= LEVEL_MM) this.roots[this.rootOf(a)] = this.rootOf(b);
    });
  }

  lowest(): Vec3[] {
    const hasLower = new Set<number>();
    this.alongEdges((a, b, rise) => {
      if (Math.abs(rise) > LEVEL_MM) hasLower.add(this.rootOf(rise > 0 ? b : a));
    });
    const up = this.wayOf();
    return this.points.filter(
      (_, id) => this.rootOf(id) === id && !hasLower.has(id) && (up.get(id) ?? 0) < 0,
    );
  }

  /** Which way each level looks: that of its flat facets, or else of all beside it. */
  private wayOf(): Map<number, number> {
    const [flat, beside] = [new Map<number, number>(), new Map<number, number>()];
    this.facets.forEach((corners, t) => {
      const up = (normalOf(corners)?.[2] ?? 0) * areaOf(corners);
      const roots = new Set([0, 1, 2].map((k) => this.rootOf(this.corners[3 * t + k]!)));
      for (const root of roots) beside.set(root, (beside.get(root) ?? 0) + up);
      const [own] = roots;
      if (roots.size === 1 && isLevel(corners)) flat.set(own!, (flat.get(own!) ?? 0) + up);
    });
    return new Map([...beside, ...flat]);
  }

  /** @param visit called with both points of each edge, and by how much the second is higher, mm */
  private alongEdges(visit: (a: number, b: number, rise: number) => void): void {
    for (let t = 0; t < this.corners.length; t += 3)
      for (let k = 0; k < 3; k++) {
        const [a, b] = [this.corners[t + k]!, this.corners[t + ((k + 1) % 3)]!];
        visit(a, b, this.points[b]![2] - this.points[a]![2]);
      }
  }

  private rootOf(id: number): number {
    let root = id;
    while (this.roots[root] !== root) root = this.roots[root]!;
    this.roots[id] = root;
    return root;
  }
}

const isLevel = ([a, b, c]: Corners): boolean =>
  Math.max(a[2], b[2], c[2]) - Math.min(a[2], b[2], c[2]) <= LEVEL_MM;
