/** Facets and outlines for display and mesh files. */
import { buildBvh, type Bvh } from '@kadrel/core';
import {
  addressOf,
  compoundOf,
  scope,
  uniqueShapes,
  hashOf,
  type Occt,
  type Scoped,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import { boresBetween, facetsOfBore, piecesOfBore, type Bore } from './bores.ts';
import { crowdedFaces, flatFacets, piecesOfEdges, type FaceFacets, type Fineness } from './crowded.ts';

/** V vertices (each face has its own), T triangles, counter-clockwise seen from outside. */
export interface Mesh {
  /** 3·V, mm. */
  readonly positions: Float32Array;
  /** 3·V, length 1, outward. */
  readonly normals: Float32Array;
  /** 3·T, each < V. */
  readonly triangles: Uint32Array;
  /** T: index of the face, in the kernel's order of faces. */
  readonly faceOfTriangle: Uint32Array;
  /** Greatest distance between a facet and the true surface. */
  readonly chordMm: number;
}

/** Facets turn by at most this much from one to the next (radians): round things look round at any size. */
const FACET_TURN_RAD = 0.3;

/** Facets lie within so many chords of the true surface, give or take what the kernel's own measure of it is off by. */
const CHORDS = 4;
/** Facets that span far round a bend are off by a part of their size, whatever the chord that was asked for. */
const OF_FACET = 0.1;

/** How far (mm) the true surface may be from a facet of a size. */
export const facetSlack = (chordMm: number, sizeMm: number): number => CHORDS * chordMm + OF_FACET * sizeMm;

/** Six numbers a facet: its least and greatest x, y, z. */
export function facetBoxes({ positions, triangles }: Pick<Mesh, 'positions' | 'triangles'>): Float64Array {
  const boxes = new Float64Array(2 * triangles.length);
  for (let t = 0; t < triangles.length; t += 3)
    for (let axis = 0; axis < 3; axis++) {
      const a = positions[3 * triangles[t]! + axis]!;
      const b = positions[3 * triangles[t + 1]! + axis]!;
      const c = positions[3 * triangles[t + 2]! + axis]!;
      boxes[2 * t + axis] = Math.min(a, b, c);
      boxes[2 * t + 3 + axis] = Math.max(a, b, c);
    }
  return boxes;
}

/** Facets in a tree, with their boxes. */
export interface FacetTree {
  readonly boxes: Float64Array;
  readonly tree: Bvh;
}

/** Several checks ask for it, one after another. */
const trees = new WeakMap<Mesh, FacetTree>();

export function facetTree(mesh: Mesh): FacetTree {
  const known = trees.get(mesh);
  if (known) return known;
  const boxes = facetBoxes(mesh);
  const made = { boxes, tree: buildBvh(boxes) };
  trees.set(mesh, made);
  return made;
}

/** The display's chord tolerance: a 2000th of the diagonal, within sensible bounds for parts from 1 mm to 100 m. */
export const displayChord = (diagonalMm: number): number => Math.min(5, Math.max(0.005, diagonalMm / 2000));

/** @param chordMm greatest distance between a facet and the true surface */
export function meshShape(
  occt: Occt,
  shape: TopoDS_Shape,
  chordMm: number,
  facetTurn = FACET_TURN_RAD,
): Mesh {
  return scope((keep) => {
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    const fineness = { chordMm, turnRad: facetTurn };
    return (
      meshCrowded(occt, { whole: shape, faces }, fineness) ??
      meshFaces(occt, { shape, faces, indices: faces.keys() }, fineness)
    );
  });
}

/** Faces that are not left to the kernel. */
interface Apart {
  readonly crowded: ReadonlySet<number>;
  readonly bores: readonly Bore[];
  /** Indices of all others. */
  readonly others: readonly number[];
}

/** The outlines of a shape are asked for after its facets. */
const apartOf = new WeakMap<TopoDS_Shape, Apart>();

function facesApart({ occt, keep }: Scoped, shape: TopoDS_Shape, faces: readonly TopoDS_Shape[]): Apart {
  const known = apartOf.get(shape);
  if (known) return known;
  const crowded = crowdedFaces({ occt, keep }, faces);
  const bores = crowded.size > 0 ? boresBetween({ occt, keep }, shape, crowded) : [];
  const apart = new Set([...crowded, ...bores.map(({ face }) => face)]);
  const made = { crowded, bores, others: [...faces.keys()].filter((i) => !apart.has(i)) };
  apartOf.set(shape, made);
  return made;
}

/** Straight pieces of all edges, where flat faces with many edges are laid out apart. */
function piecesBeside(
  occt: Occt,
  shape: TopoDS_Shape,
  { bores, ...fineness }: Fineness & Pick<Apart, 'bores'>,
): Map<number, Float32Array> {
  const pieces = piecesOfEdges(occt, shape, fineness);
  for (const [hash, own] of bores.flatMap((bore) => piecesOfBore(bore, fineness))) {
    const other = pieces.get(hash);
    pieces.set(hash, other ? Float32Array.of(...other, ...own) : own);
  }
  return pieces;
}

interface Whole {
  readonly whole: TopoDS_Shape;
  readonly faces: readonly TopoDS_Shape[];
}

/** Flat faces with many edges, and the bores between them, are laid out apart; undefined where there are none, or one of them cannot be. */
function meshCrowded(occt: Occt, { whole, faces }: Whole, fineness: Fineness): Mesh | undefined {
  return scope((keep) => {
    const { crowded, bores, others: indices } = facesApart({ occt, keep }, whole, faces);
    if (crowded.size === 0) return undefined;
    const others = indices.map((i) => faces[i]!);
    const shape = keep(compoundOf(occt, others));
    const mesh = meshFaces(occt, { shape, faces: others, indices: indices.values() }, fineness);
    const pieces = piecesBeside(occt, shape, { ...fineness, bores });
    const flat = [...crowded].map((i) => ({ face: i, facets: flatFacets(occt, faces[i]!, pieces) }));
    if (!flat.every(isLaidOut)) return undefined;
    return joined(mesh, [
      ...flat,
      ...bores.map((bore) => ({ face: bore.face, facets: facetsOfBore(bore, fineness) })),
    ]);
  });
}

interface LaidOut {
  readonly face: number;
  readonly facets: FaceFacets;
}
const isLaidOut = (one: { face: number; facets: FaceFacets | undefined }): one is LaidOut =>
  one.facets !== undefined;

function joined(mesh: Mesh, laidOut: readonly LaidOut[]): Mesh {
  let vertices = mesh.positions.length / 3;
  const shifted = laidOut.map(({ facets }) => {
    const first = vertices;
    vertices += facets.positions.length / 3;
    return Uint32Array.from(facets.triangles, (i) => first + i);
  });
  const facets = laidOut.map((one) => one.facets);
  return {
    positions: concatenated(Float32Array, [mesh.positions, ...facets.map(({ positions }) => positions)]),
    normals: concatenated(Float32Array, [mesh.normals, ...facets.map(({ normals }) => normals)]),
    triangles: concatenated(Uint32Array, [mesh.triangles, ...shifted]),
    faceOfTriangle: concatenated(Uint32Array, [
      mesh.faceOfTriangle,
      ...laidOut.map(({ face, facets: { triangles } }) => new Uint32Array(triangles.length / 3).fill(face)),
    ]),
    chordMm: mesh.chordMm,
  };
}

function concatenated<T extends Float32Array | Uint32Array>(
  Kind: new (length: number) => T,
  lists: readonly ArrayLike<number>[],
): T {
  const all = new Kind(lists.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const list of lists) {
    all.set(list, at);
    at += list.length;
  }
  return all;
}

const emptyMesh = (chordMm: number): Mesh => ({
  positions: new Float32Array(),
  normals: new Float32Array(),
  triangles: new Uint32Array(),
  faceOfTriangle: new Uint32Array(),
  chordMm,
});

/** What is meshed, and the index that each of its faces has in the whole. */
interface Meshed {
  readonly shape: TopoDS_Shape;
  readonly faces: readonly TopoDS_Shape[];
  readonly indices: Iterable<number>;
}

function meshFaces(occt: Occt, { shape, faces, indices }: Meshed, { chordMm, turnRad }: Fineness): Mesh {
  if (faces.length === 0) return emptyMesh(chordMm);
  return scope((keep) => {
    const data = keep(occt.ReplicadMeshExtractor.extract(shape, chordMm, turnRad, false));
    const memory = occt.wasmMemory.buffer;
    const groups = new Uint32Array(
      memory,
      addressOf(data.getFaceGroupsPtr()),
      data.getFaceGroupsSize(),
    ).slice();
    const triangles = new Uint32Array(
      memory,
      addressOf(data.getTrianglesPtr()),
      data.getTrianglesSize(),
    ).slice();
    const hashes = faces.map((face) => hashOf(occt, face));
    const index = [...indices];
    const faceOfTriangle = new Uint32Array(triangles.length / 3);
    // Groups come in the order of faces; hashes alone would not do, since two faces may have the same.
    let face = 0;
    for (let g = 0; g < groups.length; g += 3) {
      const [first, count] = [groups[g]! / 3, groups[g + 1]! / 3];
      const next = hashes.indexOf(groups[g + 2]!, face);
      const found = next >= 0 ? next : hashes.indexOf(groups[g + 2]!);
      faceOfTriangle.fill(index[Math.max(0, found)]!, first, first + count);
      face = found + 1;
    }
    return {
      // The kernel's memory may grow and move with the next call, so that everything is copied out here.
      positions: new Float32Array(memory, addressOf(data.getVerticesPtr()), data.getVerticesSize()).slice(),
      normals: new Float32Array(memory, addressOf(data.getNormalsPtr()), data.getNormalsSize()).slice(),
      triangles,
      faceOfTriangle,
      chordMm,
    };
  });
}

/** Pairs of points of the outlines (6 numbers a piece, mm), for the edges whose hash `isDrawn`. Call after `meshShape`. */
export function outlineShape(
  occt: Occt,
  shape: TopoDS_Shape,
  { chordMm, isDrawn }: { readonly chordMm: number; readonly isDrawn: (edgeHash: number) => boolean },
): Float32Array {
  return scope((keep) => {
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    const { crowded, bores, others } = facesApart({ occt, keep }, shape, faces);
    // The kernel would lay facets on the crowded faces first; all of their edges are edges of others too.
    const beside = keep(
      compoundOf(
        occt,
        others.map((i) => faces[i]!),
      ),
    );
    const pieces = piecesBeside(occt, crowded.size > 0 ? beside : shape, {
      chordMm,
      turnRad: FACET_TURN_RAD,
      bores,
    });
    return concatenated(
      Float32Array,
      [...pieces].filter(([hash]) => isDrawn(hash)).map(([, lines]) => lines),
    );
  });
}

/** Where a vertical line meets facets. */
export const heightsAt = (mesh: Mesh, x: number, y: number): number[] => hitsAt(mesh, x, y).map(({ z }) => z);

/** Where a vertical line meets facets, and of which face. */
export function hitsAt(
  { positions, triangles, faceOfTriangle }: Mesh,
  x: number,
  y: number,
): { readonly z: number; readonly face: number }[] {
  const found: { z: number; face: number }[] = [];
  for (let t = 0; t + 2 < triangles.length; t += 3) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const [ax, ay, bx, by, cx, cy] = [
      positions[a]!,
      positions[a + 1]!,
      positions[b]!,
      positions[b + 1]!,
      positions[c]!,
      positions[c + 1]!,
    ];
    const whole = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (whole === 0) continue;
    const u = ((bx - x) * (cy - y) - (by - y) * (cx - x)) / whole;
    const v = ((cx - x) * (ay - y) - (cy - y) * (ax - x)) / whole;
    const w = 1 - u - v;
    if (u < 0 || v < 0 || w < 0) continue;
    const z = u * positions[a + 2]! + v * positions[b + 2]! + w * positions[c + 2]!;
    if (!found.some((other) => Math.abs(other.z - z) < 1e-6)) found.push({ z, face: faceOfTriangle[t / 3]! });
  }
  return found;
}
