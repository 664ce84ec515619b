/**
 * Cages made finer, and the smooth patches of their limit. Pure arithmetic on corners; no kernel.
 * Sources: E. Catmull, J. Clark, Recursively generated B-spline surfaces on arbitrary topological meshes, CAD 10(6), 1978;
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
}

const sumOf = (points: readonly Vec3[]): Vec3 => points.reduce((sum, one) => add(sum, one), [0, 0, 0]);
const meanOf = (points: readonly Vec3[]): Vec3 => scale(sumOf(points), 1 / points.length);
const edgeKey = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`);

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

/** One step of Catmull and Clark: each face becomes as many quads as it has corners, which keep its name. */
export function refined(cage: Cage): Cage {
  const { points, faces } = cage;
  const at = (i: number) => points[i]!;
  const middles = faces.map(({ corners }) => meanOf(corners.map(at)));
  const { edges, round } = neighboursOf(cage);
  const next: Vec3[] = points.map((point, i) => {
    const n = round[i]!.faces.length;
    const face = meanOf(round[i]!.faces.map((f) => middles[f]!));
    const edge = meanOf([...round[i]!.ends].map((end) => scale(add(point, at(end)), 0.5)));
    return scale(add(add(face, scale(edge, 2)), scale(point, n - 3)), 1 / n);
  });
  const edgeIndex = new Map<string, number>();
  for (const [key, { ends, faces: beside }] of edges)
    edgeIndex.set(key, next.push(meanOf([at(ends[0]), at(ends[1]), ...beside.map((f) => middles[f]!)])) - 1);
  const quads = faces.flatMap(({ name, corners }, f): CageFace[] => {
    const middle = next.push(middles[f]!) - 1;
    const along = (i: number) =>
      edgeIndex.get(edgeKey(corners[i % corners.length]!, corners[(i + 1) % corners.length]!))!;
    return corners.map((corner, i) => ({
      name,
      corners: [corner, along(i), middle, along(i + corners.length - 1)],
    }));
  });
  return { points: next, faces: quads };
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
export function patchesOf({ points, faces }: Cage): Patch[] {
  const stars = starsOf({ points, faces });
  const at: At = (i) => points[i]!;
  return faces.map(({ name, corners }) => {
    const rowsOf = (k: number) => {
      const [v, next, far, last] = [0, 1, 2, 3].map((i) => corners[(k + i) % 4]!) as Four;
      const star = stars[v]!;
      const around = { n: star.edges.length, ends: [next, last] as const, far };
      return {
        corner: cornerPole(at, v, star),
        next: edgePole(at, v, { star, to: next }),
        last: edgePole(at, v, { star, to: last }),
        inner: innerPole(at, v, around),
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

function starsOf({ points, faces }: Cage): Star[] {
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

/** (n²·v + 4·Σe + Σd) / (n·(n + 5)) */
function cornerPole(at: At, v: number, { edges, diagonals }: Star): Vec3 {
  const n = edges.length;
  const sum = add(scale(at(v), n * n), add(scale(sumOf(edges.map(at)), 4), sumOf(diagonals.map(at))));
  return scale(sum, 1 / (n * (n + 5)));
}

interface Along {
  readonly star: Star;
  readonly to: number;
}

/** (2n·v + 4·eⱼ + 2·(eⱼ₋₁ + eⱼ₊₁) + dⱼ + dⱼ₋₁) / (2n + 10) */
function edgePole(at: At, v: number, { star: { edges, diagonals }, to }: Along): Vec3 {
  const n = edges.length;
  const j = edges.indexOf(to);
  const [before, after] = [(j + n - 1) % n, (j + 1) % n];
  const sides = scale(add(at(edges[before]!), at(edges[after]!)), 2);
  const far = add(at(diagonals[j]!), at(diagonals[before]!));
  return scale(add(add(scale(at(v), 2 * n), scale(at(to), 4)), add(sides, far)), 1 / (2 * n + 10));
}

interface Inner {
  readonly n: number;
  readonly ends: readonly [number, number];
  readonly far: number;
}

/** (n·v + 2·(e + e′) + d) / (n + 5) */
const innerPole = (at: At, v: number, { n, ends: [one, other], far }: Inner): Vec3 =>
  scale(add(add(scale(at(v), n), scale(add(at(one), at(other)), 2)), at(far)), 1 / (n + 5));
