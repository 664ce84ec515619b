/**
 * Bodies between two outlines whose sides run along guides. Round the outlines stand rails: the guides, and between them
 * curves that depart from the straight way as the guides beside them do. Between rail and rail lies a patch.
 * Sources: Coons's patch by its four borders; interpolation by uniform cubic splines, their ends without bend; from memory.
 */
import {
  add,
  carry,
  cross,
  curveLength,
  distance,
  dot,
  faultOf,
  fromColumns,
  partAtLength,
  pointAt,
  scale,
  subtract,
  turnBack,
  turnVector,
  unit,
  type Path,
  type PlacedPath,
  type Section,
  type Turn,
  type Vec3,
} from '@kadrel/core';
import { BuildError, scope, type Scoped, type Occt } from '../../occt/occt.ts';
import type { Ends } from '../../content/bodies.ts';
import type { NamedShape } from '../../naming/named.ts';
import { buildClosed, sewnSurface, type NamedFace } from '../surfaces.ts';

/** Pieces along a guide and along each curve of an outline: between their points lie cubic curves. */
const STEPS = 16;
const FEWEST_PATCHES = 4;
/** A guide that ends farther than this from the outline (mm) does not lead there. */
const TOUCH_MM = 1e-3;

/**
 * A way up from the first outline to the last: how far it departs from the straight one at even steps, outward from the line
 * between the middles of the outlines, round it, and along it.
 */
interface Rail {
  /** Of the way round the first outline. */
  readonly share: number;
  /** How much farther round the last one it ends. */
  readonly lead: number;
  readonly departures: readonly Vec3[];
}

interface Rings {
  readonly foot: Ring;
  readonly head: Ring;
}

/** Throws BuildError. */
export function buildGuided(
  occt: Occt,
  { outlines, guides }: { readonly outlines: readonly PlacedPath[]; readonly guides: readonly Section[] },
  ends: Ends,
): NamedShape {
  const [foot, head] = outlines.map(ringOf) as [Ring, Ring];
  const rings = { foot, head };
  const rails = guides
    .flatMap(({ pose, paths }) =>
      paths.map((path) => {
        const points = evenPoints(path).map(([x, y]) => carry(pose, [x, y, 0]));
        return railThrough(points, rings);
      }),
    )
    .sort((a, b) => a.share - b.share);
  const stations = [...foot.shares, ...rails.map(({ share }) => share)]
    .sort((a, b) => a - b)
    .filter((share, i, all) => i === 0 || share - all[i - 1]! > SAME_SHARE);
  return scope((keep) => {
    const faces = stations.map((from, i): NamedFace => {
      const to = stations[i + 1] ?? 1 + stations[0]!;
      const grid = patch(rings, rails, from, to);
      return { face: splineFace({ occt, keep }, grid), name: foot.nameAt((from + to) / 2) };
    });
    const sides = sewnSurface(occt, faces, { keep });
    return ends === 'open' ? sides : buildClosed(occt, { ...sides, shape: keep(sides.shape) });
  });
}
/** Rails nearer to each other than this, as a part of the way round, are one. */
const SAME_SHARE = 1e-9;

interface Ring {
  readonly shares: readonly number[];
  readonly middle: Vec3;
  at(share: number): Vec3;
  nameAt(share: number): string;
}

/** Into [0, 1). */
const round = (share: number) => ((share % 1) + 1) % 1;

/** Points of an outline in space, by parts of the way round; the curves of all outlines count alike. */
function ringOf({ pose, path: { curves } }: PlacedPath): Ring {
  const count = curves.length;
  const lengths = curves.map(({ curve }) => curveLength(curve));
  const at = (share: number): Vec3 => {
    const within = round(share) * count;
    const i = Math.min(count - 1, Math.floor(within));
    const part = partAtLength(curves[i]!.curve, lengths[i]! * (within - i)) ?? within - i;
    const [x, y] = pointAt(curves[i]!.curve, part);
    return carry(pose, [x, y, 0]);
  };
  // A patch that went all round would have no other beside it.
  const patches = count * Math.ceil(FEWEST_PATCHES / count);
  const shares = Array.from({ length: patches }, (_, i) => i / patches);
  const middle = scale(shares.map(at).reduce(add), 1 / patches);
  return { shares, middle, at, nameAt: (share) => curves[Math.floor(round(share) * count)]!.name };
}

function railThrough(points: readonly Vec3[], rings: Rings): Rail {
  const { foot, head } = rings;
  const [a, b] = [nearestShare(foot, points[0]!), nearestShare(foot, points.at(-1)!)];
  const way = a.off <= b.off ? points : points.toReversed();
  const { share, off } = a.off <= b.off ? a : b;
  const end = nearestShare(head, way.at(-1)!);
  if (off > TOUCH_MM || end.off > TOUCH_MM)
    throw new BuildError(faultOf('loft.guide-ends', {}), [
      ...(off > TOUCH_MM ? [way[0]!] : []),
      ...(end.off > TOUCH_MM ? [way.at(-1)!] : []),
    ]);
  const lead = round(end.share - share + 0.5) - 0.5;
  const departures = way.map((point, k) => {
    const { straight, axes } = straightAt(rings, share, lead, k);
    return turnBack(axes, subtract(point, straight));
  });
  return { share, lead, departures };
}

const mix = (a: Vec3, b: Vec3, part: number): Vec3 => add(a, scale(subtract(b, a), part));

/** A point of the straight way up, and the directions outward, round and along there, as columns. */
function straightAt(
  { foot, head }: Rings,
  share: number,
  lead: number,
  k: number,
): { straight: Vec3; axes: Turn } {
  const straight = mix(foot.at(share), head.at(share + lead), k / STEPS);
  const along = unit(subtract(head.middle, foot.middle));
  const out = subtract(straight, mix(foot.middle, head.middle, k / STEPS));
  const outward = unit(subtract(out, scale(along, dot(out, along))));
  return { straight, axes: fromColumns(outward, cross(along, outward), along) };
}

function evenPoints({ curves }: Path): (readonly [number, number])[] {
  const lengths = curves.map(({ curve }) => curveLength(curve));
  const whole = lengths.reduce((a, b) => a + b, 0);
  return Array.from({ length: STEPS + 1 }, (_, k) => {
    let left = (whole * k) / STEPS;
    const i = lengths.findIndex((length, n) => {
      if (left <= length || n === lengths.length - 1) return true;
      left -= length;
      return false;
    });
    const { curve } = curves[i]!;
    return pointAt(curve, k === STEPS ? 1 : (partAtLength(curve, Math.min(left, lengths[i]!)) ?? 1));
  });
}

function nearestShare(ring: Ring, point: Vec3): { share: number; off: number } {
  const COARSE = 720;
  const off = (share: number) => distance(ring.at(share), point);
  let best = 0;
  for (let i = 1; i < COARSE; i++) if (off(i / COARSE) < off(best / COARSE)) best = i;
  let [low, high] = [(best - 1) / COARSE, (best + 1) / COARSE];
  for (let round = 0; round < 60; round++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (off(a) < off(b)) high = b;
    else low = a;
  }
  const found = (low + high) / 2;
  const share = ((found % 1) + 1) % 1;
  // A guide at a corner stands on it.
  const corner = ring.shares.find((one) => distance(ring.at(one), point) < TOUCH_MM);
  return corner === undefined ? { share, off: off(share) } : { share: corner, off: off(corner) };
}

/** The way up at a place: as the guides on both sides of it, by how near they are, without a crease at them. */
function blendAt(rails: readonly Rail[], share: number): (k: number) => { lead: number; departure: Vec3 } {
  const place = round(share);
  const next = rails.find((rail) => rail.share >= place) ?? rails[0]!;
  const last = rails.findLast((rail) => rail.share <= place) ?? rails.at(-1)!;
  const part = next === last ? 0 : round(place - last.share) / round(next.share - last.share);
  const eased = part * part * (3 - 2 * part);
  return (k) => ({
    lead: last.lead + (next.lead - last.lead) * part,
    departure: mix(last.departures[k]!, next.departures[k]!, eased),
  });
}

/** Points of a patch: row by row up, from rail to rail along the outlines. */
function patch(rings: Rings, rails: readonly Rail[], from: number, to: number): Vec3[][] {
  const columns = Array.from({ length: STEPS + 1 }, (_, i) => {
    const share = from + ((to - from) * i) / STEPS;
    return { share, blend: blendAt(rails, share) };
  });
  return Array.from({ length: STEPS + 1 }, (_, k) =>
    columns.map(({ share, blend }) => {
      const { lead, departure } = blend(k);
      const { straight, axes } = straightAt(rings, share, lead, k);
      return k === 0 || k === STEPS ? straight : add(straight, turnVector(axes, departure));
    }),
  );
}

/** The bicubic surface through points at even steps; its borders depend on the points of the border alone. */
function splineFace({ occt, keep }: Scoped, grid: readonly (readonly Vec3[])[]): NamedFace['face'] {
  const rows = grid.map(splinePoles);
  const poles = rows[0]!.map((_, i) => splinePoles(rows.map((row) => row[i]!)));
  const count = STEPS + 3;
  const array = keep(new occt.NCollection_Array2_gp_Pnt(1, count, 1, count));
  poles.forEach((column, i) =>
    column.forEach((pole, k) => array.SetValue(i + 1, k + 1, keep(new occt.gp_Pnt(...pole)))),
  );
  const knots = keep(new occt.NCollection_Array1_double(1, STEPS + 1));
  const multiplicities = keep(new occt.NCollection_Array1_int(1, STEPS + 1));
  for (let i = 0; i <= STEPS; i++) {
    knots.SetValue(i + 1, i);
    multiplicities.SetValue(i + 1, i === 0 || i === STEPS ? 4 : 1);
  }
  const surface = keep(
    new occt.Geom_BSplineSurface(array, knots, knots, multiplicities, multiplicities, 3, 3, false, false),
  );
  return keep(keep(new occt.BRepBuilderAPI_MakeFace(surface, 1e-7)).Face());
}

/**
 * Poles of the clamped cubic B-spline with even knots through points, its ends without bend: those between the ends solve
 * c(i−1) + 4c(i) + c(i+1) = 6p(i).
 */
function splinePoles(points: readonly Vec3[]): Vec3[] {
  const n = points.length - 1;
  // Without bend at the ends the even poles there are the points themselves; the others by Thomas's algorithm.
  const inner = points.map((point) => point);
  const ahead: number[] = [];
  const right: Vec3[] = [];
  for (let i = 1; i < n; i++) {
    const pivot = 4 - (i === 1 ? 0 : ahead[i - 2]!);
    ahead.push(1 / pivot);
    let goal = scale(points[i]!, 6);
    if (i === 1) goal = subtract(goal, points[0]!);
    if (i === n - 1) goal = subtract(goal, points[n]!);
    const before = i === 1 ? goal : subtract(goal, right[i - 2]!);
    right.push(scale(before, 1 / pivot));
  }
  for (let i = n - 1; i >= 1; i--) {
    const after = i === n - 1 ? right[i - 1]! : subtract(right[i - 1]!, scale(inner[i + 1]!, ahead[i - 1]!));
    inner[i] = after;
  }
  // With clamped ends the second pole lies a third of the way from the first even pole to the next (Boehm's knot insertion).
  return [
    inner[0]!,
    mix(inner[0]!, inner[1]!, 1 / 3),
    ...inner.slice(1, n),
    mix(inner[n]!, inner[n - 1]!, 1 / 3),
    inner[n]!,
  ];
}
