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
  /** Edges that stay sharp, by `edgeKey` of their ends. */
  readonly sharp: ReadonlySet<string>;
  /** Of those: 1 where they stay so for good, less where they are so in part, and only the first time that the cage is made finer. */
  readonly sharpness: number;
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

/** What becomes of a corner by the sharp edges that end there. */
type Bend =
  { readonly is: 'smooth' | 'corner' } | { readonly is: 'crease'; readonly ends: readonly [number, number] };
const SMOOTH: Bend = { is: 'smooth' };
const CORNER: Bend = { is: 'corner' };

function bendsOf({ points, sharp, fixed }: Cage): Bend[] {
  const ends = points.map((): number[] => []);
  for (const key of sharp) {
    const [a, b] = key.split(' ').map(Number) as [number, number];
    ends[a]!.push(b);
    ends[b]!.push(a);
  }
  return ends.map((others, i): Bend => {
    if (fixed.has(i) || others.length > 2) return CORNER;
    const [one, other] = others;
    return one === undefined || other === undefined ? SMOOTH : { is: 'crease', ends: [one, other] };
  });
}

/** One step of Catmull and Clark: each face becomes as many quads as it has corners, which keep its name. */
export function refined(cage: Cage): Cage {
  const { points, faces, sharp, sharpness, fixed } = cage;
  const at = (i: number) => points[i]!;
  const middles = faces.map(({ corners }) => meanOf(corners.map(at)));
  const neighbours = neighboursOf(cage);
  const next = movedCorners(cage, { middles, neighbours });
  const edgeIndex = new Map<string, number>();
  const sharpPieces = new Set<string>();
  for (const [key, { ends, faces: beside }] of neighbours.edges) {
    const isSharp = sharp.has(key);
    const own = ends.map(at);
    const smooth = meanOf([...own, ...beside.map((f) => middles[f]!)]);
    const index = next.push(isSharp ? between(smooth, meanOf(own), sharpness) : smooth) - 1;
    edgeIndex.set(key, index);
    if (isSharp && sharpness === 1) for (const end of ends) sharpPieces.add(edgeKey(end, index));
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
  return { points: next, faces: quads, sharp: sharpPieces, sharpness, fixed };
}

interface Round {
  readonly middles: readonly Vec3[];
  readonly neighbours: Neighbours;
}

function movedCorners(cage: Cage, { middles, neighbours: { round } }: Round): Vec3[] {
  const at = (i: number) => cage.points[i]!;
  const bends = bendsOf(cage);
  return cage.points.map((point, i) => {
    const bend = bends[i]!;
    const sharp = sharpPlace(point, bend, at);
    if (sharp && (cage.sharpness === 1 || cage.fixed.has(i))) return sharp;
    const n = round[i]!.faces.length;
    const face = meanOf(round[i]!.faces.map((f) => middles[f]!));
    const edge = meanOf([...round[i]!.ends].map((end) => scale(add(point, at(end)), 0.5)));
    const smooth = scale(add(add(face, scale(edge, 2)), scale(point, n - 3)), 1 / n);
    return sharp ? between(smooth, sharp, cage.sharpness) : smooth;
  });
}

/** Where a corner goes by the sharp edges that end there; undefined where it is smooth. */
function sharpPlace(point: Vec3, bend: Bend, at: At): Vec3 | undefined {
  if (bend.is === 'corner') return point;
  return bend.is === 'crease' ? scale(add(scale(point, 6), sumOf(bend.ends.map(at))), 1 / 8) : undefined;
}

/** A part of the way from one place to another; exact at both ends. */
const between = (a: Vec3, b: Vec3, part: number): Vec3 =>
  part === 1 ? b : add(scale(a, 1 - part), scale(b, part));

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
