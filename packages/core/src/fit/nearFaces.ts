/**
 * Which faces of two solids come nearest to one another, by their facets. Facets lie beside the true surfaces by up to their chord,
 * so that all pairs of faces are reported that could be the nearest.
 */
import { chain, carry, inverse, type Pose } from '../space/pose.ts';
import { dot, type Vec3 } from '../space/vector.ts';
import type { Bvh } from '../space/bvh.ts';
import { FACE_PLANE, type SnapShape } from '../snapping/shape.ts';
import { LOOKING, faceReaches, looksElsewhere, reachGap, wholeOf, type FaceReach } from './faceReach.ts';
import { fill } from './facets.ts';
import { nearerStart, startsWithin, withStart, type Start } from './starts.ts';
import { nearestHolder, nearestOfTriangles, normalOf } from './triangles.ts';

/** A solid where it stands. */
export interface PlacedShape {
  readonly shape: SnapShape;
  readonly pose: Pose;
  /**
   * Whether all along its border a round face has flat neighbours. Where such a face does not look at the other solid, its border is
   * nearest, which its neighbours have too: it need not be looked at.
   */
  readonly isBetweenFlat?: ((face: number) => boolean) | undefined;
  /** Only these of its faces are looked at; all where nothing is said. */
  readonly only?: ReadonlySet<number> | undefined;
}

/** Two faces, by their places in each shape, and how near their facets come. */
export interface NearFaces {
  readonly a: number;
  readonly b: number;
  /** Between their facets, mm; 0 where they cross. */
  readonly gap: number;
  /** Points of the first that are as near as any, give or take the slack, well apart from one another; the nearest first. In the world, mm. */
  readonly starts: readonly Vec3[];
}

/** How near two solids may come, by their facets, and by which faces. */
export interface Nearness {
  /** No two points are nearer than this, mm. */
  readonly least: number;
  /** Nearest first. */
  readonly faces: readonly NearFaces[];
  /** By how much facets and true surfaces may differ, mm, both sides together. */
  readonly slack: number;
}

/** True surfaces are within so many chords of their facets. */
const CHORDS = 4;
/** Positions are in single precision: what they are off by, in parts of their size. */
const SINGLE = 1.2e-7;

/** @param reach farther apart than this (mm) they have nothing to do with each other @returns undefined then */
export function nearFaces(a: PlacedShape, b: PlacedShape, reach = Infinity): Nearness | undefined {
  const search = new Search(a, b, reach);
  return search.result();
}

interface Candidate {
  gap: number;
  starts: Start[];
  /** It looks at the other one there, so that its nearest point may lie within it. */
  facingA: boolean;
  facingB: boolean;
}

type Visit = (s: number, t: number, nodesApart: number) => void;

class Search {
  private readonly found = new Map<number, Candidate>();
  private readonly nearest = nearestHolder();
  private readonly there: Pose;
  private readonly moved: Float64Array;
  private readonly slack: number;
  private readonly triangleA = new Float64Array(9);
  private readonly triangleB = new Float64Array(9);
  /** Of each solid, by node, once it is known which faces look elsewhere. */
  private sole: { readonly a: Int32Array; readonly b: Int32Array } | undefined;
  private least: number;
  /** Of each solid, by face. */
  private turnedAway: { readonly a: Uint8Array; readonly b: Uint8Array } | undefined;

  constructor(
    private readonly a: PlacedShape,
    private readonly b: PlacedShape,
    private readonly reach: number,
  ) {
    // All is given in the frame of the first, so that two that are moved together stay as they were.
    this.there = chain(inverse(a.pose), b.pose);
    this.moved = carriedPositions(b.shape, this.there);
    const size = Math.max(largest(a.shape.positions), largest(this.moved));
    this.slack = CHORDS * (chordOf(a.shape) + chordOf(b.shape)) + 2 * SINGLE * size;
    this.least = reach;
    if (a.shape.triangles.length === 0 || b.shape.triangles.length === 0) return;
    // Once for how near they come at all, which spares most of the pairs that are gathered after that.
    this.descend(
      (gap) => gap >= this.least,
      (s, t) => this.shorten(s, t),
    );
    this.turnedAway = this.facesTurnedAway();
    this.sole = {
      a: soleFaces(a.shape, this.turnedAway.a),
      b: soleFaces(b.shape, this.turnedAway.b),
    };
    this.descend(
      (gap, i, j) => gap > this.least + this.slack || this.isSettled(gap, i, j),
      (s, t, gap) => this.compare(s, t, gap),
    );
  }

  result(): Nearness | undefined {
    const { slack, least } = this;
    const faces = [...this.found].flatMap(([key, one]): NearFaces[] => {
      const [a, b] = [Math.floor(key / KEY), key % KEY];
      if (
        one.gap > least + slack ||
        (!one.facingA && this.spares('a', a)) ||
        (!one.facingB && this.spares('b', b))
      )
        return [];
      const { pose } = this.a;
      return [
        { a, b, gap: one.gap, starts: startsWithin(one.starts, least + slack).map((at) => carry(pose, at)) },
      ];
    });
    if (faces.length === 0) return undefined;
    faces.sort((p, q) => p.gap - q.gap);
    return { least: Math.max(0, least - slack), faces, slack };
  }

  /** Whether two nodes have nothing to look at but two flat faces of which as near a pair of facets is known as any in them may be. */
  private isSettled(gap: number, i: number, j: number): boolean {
    const [faceA, faceB] = [this.sole!.a[i]!, this.sole!.b[j]!];
    if (faceA === NONE || faceB === NONE) return true;
    if (faceA === SEVERAL || faceB === SEVERAL || !this.areFlat(faceA, faceB)) return false;
    const known = this.found.get(faceA * KEY + faceB);
    return known !== undefined && gap >= known.gap;
  }

  /** Pairs of nodes of both trees, those that are nearer first. @param isFar by how far their boxes are apart */
  private descend(isFar: (gap: number, i: number, j: number) => boolean, visit: Visit): void {
    const [treeA, treeB] = [this.a.shape.triangleTree, this.b.shape.triangleTree];
    const stack = [[0, 0, this.boxGap(0, 0)] as [number, number, number]];
    for (let top = stack.pop(); top; top = stack.pop()) {
      const [i, j, gap] = top;
      if (isFar(gap, i, j)) continue;
      const [leafA, leafB] = [treeA.count[i]! > 0, treeB.count[j]! > 0];
      if (leafA && leafB) {
        this.leaves([i, j], gap, visit);
        continue;
      }
      const openA = !leafA && (leafB || extent(treeA, i) >= extent(treeB, j));
      const next: [number, number, number][] = openA
        ? [i + 1, treeA.first[i]!].map((k) => [k, j, this.boxGap(k, j)])
        : [j + 1, treeB.first[j]!].map((k) => [i, k, this.boxGap(i, k)]);
      next.sort((p, q) => q[2] - p[2]);
      stack.push(...next);
    }
  }

  private leaves([i, j]: readonly [number, number], gap: number, visit: Visit): void {
    const [treeA, treeB] = [this.a.shape.triangleTree, this.b.shape.triangleTree];
    for (let p = treeA.first[i]!; p < treeA.first[i]! + treeA.count[i]!; p++)
      for (let q = treeB.first[j]!; q < treeB.first[j]! + treeB.count[j]!; q++)
        visit(treeA.order[p]!, treeB.order[q]!, gap);
  }

  private fill(s: number, t: number): number {
    fill(this.triangleA, this.a.shape.positions, this.a.shape.triangles, s);
    fill(this.triangleB, this.moved, this.b.shape.triangles, t);
    return boxGapOf(this.triangleA, this.triangleB);
  }

  private shorten(s: number, t: number): void {
    if (this.isLeftOut(s, t) || this.fill(s, t) >= this.least) return;
    nearestOfTriangles(this.triangleA, this.triangleB, this.nearest);
    this.least = Math.min(this.least, Math.sqrt(this.nearest.square));
  }

  private compare(s: number, t: number, nodesApart: number): void {
    const [faceA, faceB] = [this.a.shape.faceOfTriangle[s]!, this.b.shape.faceOfTriangle[t]!];
    if (this.turnedAway!.a[faceA] === 1 || this.turnedAway!.b[faceB] === 1) return;
    if (this.isLeftOut(s, t)) return;
    const key = faceA * KEY + faceB;
    const known = this.found.get(key);
    const isSettled = known !== undefined && this.areFlat(faceA, faceB);
    if (isSettled && nodesApart >= known.gap) return;
    const max = this.least + this.slack;
    const apart = this.fill(s, t);
    if (isSettled ? apart >= known.gap : apart > max) return;
    nearestOfTriangles(this.triangleA, this.triangleB, this.nearest);
    const gap = Math.sqrt(this.nearest.square);
    if (gap > max || gap > this.reach) return;
    const facingA = (known?.facingA ?? false) || this.isFacing('a', faceA, gap);
    const facingB = (known?.facingB ?? false) || this.isFacing('b', faceB, gap);
    const start = { gap, at: point(this.nearest.onA) };
    if (!known) this.found.set(key, { gap, facingA, facingB, starts: [start] });
    else {
      known.facingA = facingA;
      known.facingB = facingB;
      known.gap = Math.min(known.gap, gap);
      known.starts = this.areFlat(faceA, faceB)
        ? [nearerStart(known.starts[0]!, start)]
        : withStart(known.starts, start);
    }
  }

  private isLeftOut(s: number, t: number): boolean {
    const { a, b } = this;
    return (
      (a.only !== undefined && !a.only.has(a.shape.faceOfTriangle[s]!)) ||
      (b.only !== undefined && !b.only.has(b.shape.faceOfTriangle[t]!))
    );
  }

  private areFlat(faceA: number, faceB: number): boolean {
    return this.a.shape.faceKind[faceA] === FACE_PLANE && this.b.shape.faceKind[faceB] === FACE_PLANE;
  }

  private isFacing(side: 'a' | 'b', face: number, gap: number): boolean {
    if (gap <= this.slack || this[side].shape.faceKind[face] === FACE_PLANE) return true;
    const { onA, onB } = this.nearest;
    const way: Vec3 = [(onB[0]! - onA[0]!) / gap, (onB[1]! - onA[1]!) / gap, (onB[2]! - onA[2]!) / gap];
    return side === 'a'
      ? dot(normalOf(this.triangleA), way) > LOOKING
      : dot(normalOf(this.triangleB), way) < -LOOKING;
  }

  /** Faces that are too far away, or that need not be looked at for their border and look nowhere near the other solid. */
  private facesTurnedAway() {
    const max = this.least + this.slack;
    const [reachA, reachB] = [
      faceReaches(this.a.shape, this.a.shape.positions),
      faceReaches(this.b.shape, this.moved),
    ];
    const [wholeA, wholeB] = [wholeOf(reachA), wholeOf(reachB)];
    const mask = (side: 'a' | 'b', reaches: readonly FaceReach[], other: FaceReach) =>
      Uint8Array.from(reaches, (own, face) =>
        Number(reachGap(own, other) > max || (this.spares(side, face) && looksElsewhere(own, other, max))),
      );
    return { a: mask('a', reachA, wholeB), b: mask('b', reachB, wholeA) };
  }

  private readonly between = { a: new Map<number, boolean>(), b: new Map<number, boolean>() };

  private spares(side: 'a' | 'b', face: number): boolean {
    const { shape, isBetweenFlat } = this[side];
    if (shape.faceKind[face] === FACE_PLANE || !isBetweenFlat) return false;
    const known = this.between[side].get(face) ?? isBetweenFlat(face);
    this.between[side].set(face, known);
    return known;
  }

  /** Never more than the distance of what is in two nodes; the box of the second is turned into the frame of the first. */
  private boxGap(i: number, j: number): number {
    const { bounds: p } = this.a.shape.triangleTree;
    const { bounds: q } = this.b.shape.triangleTree;
    const { turn, shift } = this.there;
    const [at, bt] = [6 * i, 6 * j];
    let square = 0;
    for (let row = 0; row < 3; row++) {
      let middle = shift[row]!;
      let half = 0;
      for (let k = 0; k < 3; k++) {
        const n = turn[3 * row + k]!;
        middle += (n * (q[bt + k]! + q[bt + 3 + k]!)) / 2;
        half += (Math.abs(n) * (q[bt + 3 + k]! - q[bt + k]!)) / 2;
      }
      const off = Math.max(middle - half - p[at + 3 + row]!, p[at + row]! - middle - half, 0);
      square += off * off;
    }
    return Math.sqrt(square);
  }
}

/** For each node of a tree of facets the face that they are all of, those left out that look elsewhere; or none, or several. */
function soleFaces(
  { triangleTree: { first, count, order }, faceOfTriangle }: SnapShape,
  turnedAway: Uint8Array,
): Int32Array {
  const sole = new Int32Array(count.length).fill(NONE);
  const together = (p: number, q: number) => (p === NONE ? q : q === NONE || p === q ? p : SEVERAL);
  const visit = (node: number): number => {
    const [from, things] = [first[node]!, count[node]!];
    if (things === 0) return (sole[node] = together(visit(node + 1), visit(from)));
    let all = NONE;
    for (const t of order.subarray(from, from + things)) {
      const face = faceOfTriangle[t]!;
      if (turnedAway[face] !== 1) all = together(all, face);
    }
    return (sole[node] = all);
  };
  if (order.length > 0) visit(0);
  return sole;
}
const [NONE, SEVERAL] = [-1, -2];

/** More faces than this no shape has. */
const KEY = 2 ** 24;

/** Solids of flat faces and straight edges have facets that are exact. */
function chordOf({ faceKind, curveKind, chordMm }: SnapShape): number {
  return faceKind.every((kind) => kind === FACE_PLANE) && curveKind.every((kind) => kind === 0) ? 0 : chordMm;
}

function largest(positions: ArrayLike<number>): number {
  let max = 0;
  for (let i = 0; i < positions.length; i++) max = Math.max(max, Math.abs(positions[i]!));
  return max;
}

function carriedPositions({ positions }: SnapShape, { turn: t, shift: [x, y, z] }: Pose): Float64Array {
  const moved = new Float64Array(positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const [px, py, pz] = [positions[i]!, positions[i + 1]!, positions[i + 2]!];
    moved[i] = t[0] * px + t[1] * py + t[2] * pz + x;
    moved[i + 1] = t[3] * px + t[4] * py + t[5] * pz + y;
    moved[i + 2] = t[6] * px + t[7] * py + t[8] * pz + z;
  }
  return moved;
}

const point = (at: Float64Array): Vec3 => [at[0]!, at[1]!, at[2]!];

function boxGapOf(a: Float64Array, b: Float64Array): number {
  let square = 0;
  for (let k = 0; k < 3; k++) {
    const [a0, a1] = [Math.min(a[k]!, a[3 + k]!, a[6 + k]!), Math.max(a[k]!, a[3 + k]!, a[6 + k]!)];
    const [b0, b1] = [Math.min(b[k]!, b[3 + k]!, b[6 + k]!), Math.max(b[k]!, b[3 + k]!, b[6 + k]!)];
    const off = Math.max(b0 - a1, a0 - b1, 0);
    square += off * off;
  }
  return Math.sqrt(square);
}

function extent({ bounds }: Bvh, node: number): number {
  const at = 6 * node;
  return Math.max(
    bounds[at + 3]! - bounds[at]!,
    bounds[at + 4]! - bounds[at + 1]!,
    bounds[at + 5]! - bounds[at + 2]!,
  );
}
