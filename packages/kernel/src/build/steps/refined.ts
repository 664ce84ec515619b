/**
 * Cages made finer, and the smooth patches of their limit. Pure arithmetic on corners; no kernel.
 * Sources: E. Catmull, J. Clark, Recursively generated B-spline surfaces on arbitrary topological meshes, CAD 10(6), 1978; creases:
 * T. DeRose, M. Kass, T. Truong, Subdivision surfaces in character animation, SIGGRAPH 1998;
 * C. Loop, S. Schaefer, Approximating Catmull–Clark subdivision surfaces with bicubic patches, ACM Transactions on Graphics 27(1), 2008.
 */
import { add, scale, type Vec3 } from '@kadrel/core';

export interface CageFace {
  readonly name: string;
  /** Indices of its corners, counter-clockwise seen from outside. */
  readonly corners: readonly number[];
}

/** A closed mesh: every edge has two faces, which run along it in opposite directions. */
export interface Cage {
  readonly points: readonly Vec3[];
  readonly faces: readonly CageFace[];
  /**
   * How sharp edges are that are not smooth, by `edgeKey` of their ends: 1 where they stay so for good, less where they are so in part, and
   * only the first time that the cage is made finer.
   */
  readonly sharp: ReadonlyMap<string, number>;
  /** Corners that stay where they are. */
  readonly fixed: ReadonlySet<number>;
}

const sumOf = (points: readonly Vec3[]): Vec3 => points.reduce((sum, one) => add(sum, one), [0, 0, 0]);
const meanOf = (points: readonly Vec3[]): Vec3 => scale(sumOf(points), 1 / points.length);
export const edgeKey = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`);

/** What is round the corners of a cage, and along its edges. */
interface Neighbours {
  readonly edges: ReadonlyMap<string, { readonly ends: readonly [number, number]; readonly faces: number[] }>;
  readonly round: readonly { readonly faces: number[]; readonly ends: Set<number> }[];
}

function neighboursOf({ points, faces }: Cage): Neighbours {
  const edges = new Map<string, { readonly ends: readonly [number, number]; readonly faces: number[] }>();
  const round = points.map((): { faces: number[]; ends: Set<number> } => ({ faces: [], ends: new Set() }));
  faces.forEach(({ corners }, f) =>
    corners.forEach((from, i) => {
      const to = corners[(i + 1) % corners.length]!;
      const key = edgeKey(from, to);
      if (!edges.has(key)) edges.set(key, { ends: [from, to], faces: [] });
      edges.get(key)!.faces.push(f);
      round[from]!.faces.push(f);
      round[from]!.ends.add(to);
      round[to]!.ends.add(from);
    }),
  );
  return { edges, round };
}

/** The other end of a sharp edge. */
interface SharpEnd {
  readonly to: number;
  readonly sharpness: number;
}

/** The sharp edges at each corner, the sharpest first. */
function sharpEndsOf({ points, sharp }: Cage): SharpEnd[][] {
  const ends = points.map((): SharpEnd[] => []);
  for (const [key, sharpness] of sharp) {
    const [a, b] = key.split(' ').map(Number) as [number, number];
    ends[a]!.push({ to: b, sharpness });
    ends[b]!.push({ to: a, sharpness });
  }
  return ends.map((those) => those.sort((one, other) => other.sharpness - one.sharpness));
}

/** What becomes of a corner by the edges that end there and are sharp for good. */
type Bend =
  { readonly is: 'smooth' | 'corner' } | { readonly is: 'crease'; readonly ends: readonly [number, number] };
const SMOOTH: Bend = { is: 'smooth' };
const CORNER: Bend = { is: 'corner' };

const bendsOf = (cage: Cage): Bend[] =>
  sharpEndsOf(cage).map((ends, i): Bend => {
    const [one, other, third] = ends.filter(({ sharpness }) => sharpness === 1);
    if (cage.fixed.has(i) || third) return CORNER;
    return one && other ? { is: 'crease', ends: [one.to, other.to] } : SMOOTH;
  });

/** One step of Catmull and Clark: each face becomes as many quads as it has corners, which keep its name. */
export function refined(cage: Cage): Cage {
  const { points, faces, sharp, fixed } = cage;
  const at = (i: number) => points[i]!;
  const middles = faces.map(({ corners }) => meanOf(corners.map(at)));
  const neighbours = neighboursOf(cage);
  const next = movedCorners(cage, { middles, neighbours });
  const edgeIndex = new Map<string, number>();
  const sharpPieces = new Map<string, number>();
  for (const [key, { ends, faces: beside }] of neighbours.edges) {
    const sharpness = sharp.get(key) ?? 0;
    const own = ends.map(at);
    const smooth = meanOf([...own, ...beside.map((f) => middles[f]!)]);
    const index = next.push(between(smooth, meanOf(own), sharpness)) - 1;
    edgeIndex.set(key, index);
    if (sharpness === 1) for (const end of ends) sharpPieces.set(edgeKey(end, index), 1);
  }
  const quads = faces.flatMap(({ name, corners }, f): CageFace[] => {
    const middle = next.push(middles[f]!) - 1;
    const along = (i: number) =>
      edgeIndex.get(edgeKey(corners[i % corners.length]!, corners[(i + 1) % corners.length]!))!;
    return corners.map((corner, i) => ({
      name,
      corners: [corner, along(i), middle, along(i + corners.length - 1)],
    }));
  });
  return { points: next, faces: quads, sharp: sharpPieces, fixed };
}

interface Round {
  readonly middles: readonly Vec3[];
  readonly neighbours: Neighbours;
}

function movedCorners(cage: Cage, { middles, neighbours: { round } }: Round): Vec3[] {
  const at = (i: number) => cage.points[i]!;
  const sharp = sharpEndsOf(cage);
  return cage.points.map((point, i) => {
    if (cage.fixed.has(i)) return point;
    const n = round[i]!.faces.length;
    const face = meanOf(round[i]!.faces.map((f) => middles[f]!));
    const edge = meanOf([...round[i]!.ends].map((end) => scale(add(point, at(end)), 0.5)));
    const smooth = scale(add(add(face, scale(edge, 2)), scale(point, n - 3)), 1 / n);
    return creased({ point, smooth, at }, sharp[i]!);
  });
}

/**
 * Where a corner goes by the sharp edges that end there: to the crease of two, and to where it is for three or more. Where they are sharp
 * in part, each of the rules has the share in which so many are: of edges of 100 %, 60 % and 20 %, a fifth is a corner, two fifths are
 * a crease of the first two, and two fifths are smooth.
 */
function creased(
  { point, smooth, at }: { readonly point: Vec3; readonly smooth: Vec3; readonly at: At },
  [one, other, third]: readonly SharpEnd[],
): Vec3 {
  if (!one || !other) return smooth;
  const crease = scale(add(scale(point, 6), add(at(one.to), at(other.to))), 1 / 8);
  const [two, three] = [other.sharpness, third?.sharpness ?? 0];
  const withCrease = three === 1 ? smooth : between(smooth, crease, (two - three) / (1 - three));
  return between(withCrease, point, three);
}

/** A part of the way from one place to another; exact at both ends. */
function between(a: Vec3, b: Vec3, part: number): Vec3 {
  if (part === 0) return a;
  return part === 1 ? b : add(scale(a, 1 - part), scale(b, part));
}

export interface Patch {
  readonly name: string;
  /** Sixteen control points of a bicubic Bézier patch, row by row. */
  readonly poles: readonly Vec3[];
}

/** Round a corner, counter-clockwise: neighbours along edges, and after each the far corner of the quad that comes next. */
interface Star {
  readonly edges: readonly number[];
  readonly diagonals: readonly number[];
}

/** A patch for each quad; patches beside one another have the same border points, so that they close. */
export function patchesOf(cage: Cage): Patch[] {
  const { points, faces } = cage;
  const spots = spotsOf(cage);
  const at: At = (i) => points[i]!;
  return faces.map(({ name, corners }) => {
    const rowsOf = (k: number) => {
      const [v, next, far, last] = [0, 1, 2, 3].map((i) => corners[(k + i) % 4]!) as Four;
      const spot = spots[v]!;
      return {
        corner: cornerPole(at, spot),
        next: edgePole(at, spot, next),
        last: edgePole(at, spot, last),
        inner: innerPole(at, spot, { ends: [next, last], far }),
      };
    };
    const [a, b, c, d] = [0, 1, 2, 3].map(rowsOf) as [Poles, Poles, Poles, Poles];
    const poles = [
      [a.corner, a.next, b.last, b.corner],
      [a.last, a.inner, b.inner, b.next],
      [d.next, d.inner, c.inner, c.last],
      [d.corner, d.last, c.next, c.corner],
    ];
    return { name, poles: poles.flat() };
  });
}
type Four = [number, number, number, number];
type Poles = Readonly<Record<'corner' | 'next' | 'last' | 'inner', Vec3>>;

/** A corner of the cage, and what is round it. */
interface Spot {
  readonly v: number;
  readonly star: Star;
  readonly bend: Bend;
  /** Of each edge of the star. */
  readonly isSharp: readonly boolean[];
}

function spotsOf(cage: Cage): Spot[] {
  const bends = bendsOf(cage);
  return starsOf(cage).map((star, v) => ({
    v,
    star,
    bend: bends[v]!,
    isSharp: star.edges.map((end) => cage.sharp.has(edgeKey(v, end))),
  }));
}

function starsOf({ points, faces }: Pick<Cage, 'points' | 'faces'>): Star[] {
  /** For each corner and each neighbour: the quad that begins there, as the next neighbour and the far corner. */
  const after = points.map(() => new Map<number, { next: number; far: number }>());
  for (const { corners } of faces)
    corners.forEach((v, i) => {
      const [to, far, next] = [1, 2, 3].map((k) => corners[(i + k) % 4]!) as [number, number, number];
      after[v]!.set(to, { next, far });
    });
  return after.map((quads) => {
    const edges: number[] = [];
    const diagonals: number[] = [];
    const [first] = quads.keys();
    for (let edge = first; edge !== undefined && edges.length < quads.size;) {
      const quad: { next: number; far: number } = quads.get(edge)!;
      edges.push(edge);
      diagonals.push(quad.far);
      edge = quad.next;
    }
    return { edges, diagonals };
  });
}

type At = (i: number) => Vec3;

/**
 * What stands for the valence where a quad begins: the number of quads round a smooth corner; on one side of a crease twice as many,
 * as if the surface went on there in its mirror image.
 */
function valenceAt({ star: { edges }, bend, isSharp }: Spot, quad: number): number {
  const n = edges.length;
  if (bend.is === 'smooth') return n;
  if (bend.is === 'corner') return 4;
  let count = 1;
  for (let j = quad; !isSharp[j] && count < n; j = (j + n - 1) % n) count++;
  for (let j = (quad + 1) % n; !isSharp[j] && count < n; j = (j + 1) % n) count++;
  return 2 * count;
}

/** (n²·v + 4·Σe + Σd) / (n·(n + 5)); on a crease that of a cubic B-spline, (4·v + e + e′) / 6. */
function cornerPole(at: At, { v, star: { edges, diagonals }, bend }: Spot): Vec3 {
  if (bend.is === 'corner') return at(v);
  if (bend.is === 'crease') return scale(add(scale(at(v), 4), sumOf(bend.ends.map(at))), 1 / 6);
  const n = edges.length;
  const sum = add(scale(at(v), n * n), add(scale(sumOf(edges.map(at)), 4), sumOf(diagonals.map(at))));
  return scale(sum, 1 / (n * (n + 5)));
}

/** (2n·v + 4·eⱼ + 2·(eⱼ₋₁ + eⱼ₊₁) + dⱼ + dⱼ₋₁) / (2n + 10); along a crease, and from a sharp corner, (2·v + eⱼ) / 3. */
function edgePole(at: At, spot: Spot, to: number): Vec3 {
  const { v, bend, isSharp } = spot;
  const { edges, diagonals } = spot.star;
  const j = edges.indexOf(to);
  if (bend.is === 'corner' || (bend.is === 'crease' && isSharp[j]))
    return scale(add(scale(at(v), 2), at(to)), 1 / 3);
  const n = valenceAt(spot, j);
  const [before, after] = [(j + edges.length - 1) % edges.length, (j + 1) % edges.length];
  const sides = scale(add(at(edges[before]!), at(edges[after]!)), 2);
  const far = add(at(diagonals[j]!), at(diagonals[before]!));
  return scale(add(add(scale(at(v), 2 * n), scale(at(to), 4)), add(sides, far)), 1 / (2 * n + 10));
}

interface Quad {
  /** Its corners beside the one it is seen from: the next one first. */
  readonly ends: readonly [number, number];
  readonly far: number;
}

/** (n·v + 2·(e + e′) + d) / (n + 5) */
function innerPole(at: At, spot: Spot, { ends: [one, other], far }: Quad): Vec3 {
  const n = valenceAt(spot, spot.star.edges.indexOf(one));
  const sides = scale(add(at(one), at(other)), 2);
  return scale(add(add(scale(at(spot.v), n), sides), at(far)), 1 / (n + 5));
}
