/**
 * Facets of flat faces with many edges, from what their neighbours make of their edges: the kernel’s own time for such a face grows with
 * the square of its holes (14 s for 900).
 */
import type { Vec3 } from '@kadrel/core';
import { areaOfFacets, facetsWithin, type Flat } from './flatFacets.ts';
import { isFlatFace, outwardOf } from './surface.ts';
import {
  addressOf,
  hashOf,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';

/** Faces with fewer edges are quicker left to the kernel. */
const MANY_EDGES = 120;

/** How far facets may be from the true surface, and how far they may turn from one to the next. */
export interface Fineness {
  readonly chordMm: number;
  readonly turnRad: number;
}

/** Facets of one face. */
export interface FaceFacets {
  /** 3·V, mm. */
  readonly positions: ArrayLike<number>;
  /** 3·V, unit length, outward. */
  readonly normals: ArrayLike<number>;
  /** 3·T, counter-clockwise seen from outside. */
  readonly triangles: ArrayLike<number>;
}

/** Indices of flat faces with many edges, each of whose edges has a face beside it that is not among them. */
export function crowdedFaces({ occt, keep }: Scoped, faces: readonly TopoDS_Shape[]): Set<number> {
  const found = new Set<number>();
  const taken = new Set<number>();
  faces.forEach((face, i) => {
    if (!isFlatFace(occt, face)) return;
    const edges = uniqueShapes({ occt, keep }, face, 'TopAbs_EDGE').map((edge) => hashOf(occt, edge));
    if (edges.length < MANY_EDGES || edges.some((edge) => taken.has(edge))) return;
    found.add(i);
    for (const edge of edges) taken.add(edge);
  });
  return found;
}

/** Straight pieces of each edge of a shape that has facets: six numbers a piece, mm, by the hash of the edge. Two edges may have one hash. */
export function piecesOfEdges(
  occt: Occt,
  shape: TopoDS_Shape,
  fineness: Fineness,
): Map<number, Float32Array> {
  return scope((keep) => {
    const data = keep(occt.ReplicadEdgeMeshExtractor.extract(shape, fineness.chordMm, fineness.turnRad));
    const memory = occt.wasmMemory.buffer;
    const lines = new Float32Array(memory, addressOf(data.getLinesPtr()), data.getLinesSize());
    const groups = new Uint32Array(memory, addressOf(data.getEdgeGroupsPtr()), data.getEdgeGroupsSize());
    const pieces = new Map<number, Float32Array>();
    for (let g = 0; g < groups.length; g += 3) {
      const [first, count, edge] = [groups[g]!, groups[g + 1]!, groups[g + 2]!];
      const own = lines.slice(3 * first, 3 * (first + count));
      const other = pieces.get(edge);
      pieces.set(edge, other ? Float32Array.of(...other, ...own) : own);
    }
    return pieces;
  });
}

/** The facets of a flat face, or undefined where its edges do not close or the facets do not cover it. */
export function flatFacets(
  occt: Occt,
  face: TopoDS_Shape,
  pieces: ReadonlyMap<number, Float32Array>,
): FaceFacets | undefined {
  const loops = loopsOf(edgesOf(occt, face).flatMap((edge) => pieces.get(edge) ?? []));
  if (!loops) return undefined;
  const normal = scope((keep) => outwardOf(occt, keep(occt.TopoDS.Face(face))));
  const steepest = normal.map(Math.abs).indexOf(Math.max(...normal.map(Math.abs)));
  const [u, v] = [(steepest + 1) % 3, (steepest + 2) % 3];
  const isUp = normal[steepest]! > 0;
  const flat = loops.map((loop) => loop.map((at): Flat => [at[u]!, at[v]!]));
  const triangles = facetsWithin(flat);
  if (!triangles) return undefined;
  const points = flat.flat();
  return {
    positions: loops.flat(2),
    normals: loops.flatMap((loop) => loop.flatMap(() => normal)),
    triangles: areaOfFacets(points, triangles) > 0 === isUp ? triangles : triangles.reverse(),
  };
}

const edgesOf = (occt: Occt, face: TopoDS_Shape): number[] =>
  scope((keep) => uniqueShapes({ occt, keep }, face, 'TopAbs_EDGE').map((edge) => hashOf(occt, edge)));

/** Closed loops of straight pieces whose ends are equal bit for bit; undefined where three or a single one meet. */
function loopsOf(edges: readonly Float32Array[]): Vec3[][] | undefined {
  const ends = new Map<string, End>();
  const endAt = (pieces: Float32Array, i: number): End => {
    const at: Vec3 = [pieces[i]!, pieces[i + 1]!, pieces[i + 2]!];
    const key = at.join(' ');
    const end = ends.get(key) ?? { at, to: [], isSeen: false };
    ends.set(key, end);
    return end;
  };
  for (const pieces of edges)
    for (let i = 0; i < pieces.length; i += 6) {
      const [a, b] = [endAt(pieces, i), endAt(pieces, i + 3)];
      if (a === b) continue;
      a.to.push(b);
      b.to.push(a);
    }
  const all = [...ends.values()];
  if (all.some(({ to }) => to.length !== 2)) return undefined;
  return all.flatMap((start) => (start.isSeen ? [] : [loopFrom(start)]));
}

/** Where pieces meet. */
interface End {
  readonly at: Vec3;
  readonly to: End[];
  isSeen: boolean;
}

function loopFrom(start: End): Vec3[] {
  const loop: Vec3[] = [];
  for (let end: End | undefined = start; end; end = end.to.find(({ isSeen }) => !isSeen)) {
    end.isSeen = true;
    loop.push(end.at);
  }
  return loop;
}
