/** How thick the material is, and how narrow the air, between faces that lie opposite each other. */
import type { Sounding } from '../questions/makeFacts.ts';
import { castOnShape, onSurface } from '../snapping/raycast.ts';
import type { SnapShape } from '../snapping/shape.ts';
import { AT_ORIGIN } from '../space/pose.ts';
import { along, distance, dot, scale, subtract, type Vec3 } from '../space/vector.ts';
import { facetCorners } from '../snapping/facetCorners.ts';
import { normalOf, piecesOf, spreadFacets, type Piece } from './pieces.ts';

/** A ray starts this far off its face, mm, so that it does not meet it: facets are in single precision. */
const SKIN_MM = 1e-4;
/** The true surface is so near, however far it stands off its facets. */
const ABOVE_CHORDS = 8;
/** Faces that lean more than 30° from lying opposite are no two sides of a wall: the tip of a wedge is none. */
const OPPOSITE = Math.cos((30 * Math.PI) / 180);
/** So many of the smallest soundings by facets are taken again on the true surfaces. */
const MAX_REFINED = 24;

/** Through the material, or out through the air. */
export type Way = 'in' | 'out';

/** A place on a facet. */
export interface Place {
  readonly face: number;
  readonly middle: Vec3;
  /** Out of the solid, length 1. */
  readonly normal: Vec3;
  /** On a flat face, a point of it that was picked. */
  readonly exact?: Vec3 | undefined;
}

/** Faces that meet are two sides of one wall only where they lie opposite each other but for 5°: at the tip of a wedge they do not. */
const OPPOSITE_BESIDE = Math.cos((5 * Math.PI) / 180);

/** From the true surface, square to it, to the next one; undefined where there is none. In the frame of the shape. */
export function soundingAt(shape: SnapShape, place: Place, way: Way): Sounding | undefined {
  const start = ontoSurface(shape, place);
  const sign = way === 'in' ? -1 : 1;
  // Facets stand off their surface to either side: the ray begins beyond both.
  const off = Math.max(0, sign * dot(subtract(place.middle, start.point), start.normal)) + SKIN_MM;
  const ray = { from: along(start.point, start.normal, sign * off), direction: scale(start.normal, sign) };
  const hit = castOnShape(shape, ray);
  if (!hit) return undefined;
  const face = shape.faceOfTriangle[hit.triangle]!;
  const instance = { part: '', pose: AT_ORIGIN, shape };
  const { point } = onSurface({ instance, distance: hit.distance, face }, ray);
  const nameOf = (one: number) => shape.names[shape.faceName[one]!]!;
  return {
    size: distance(start.point, point),
    from: start.point,
    to: point,
    faces: [nameOf(place.face), nameOf(face)],
  };
}

/** From the facet onto the true surface, with the way out of it. */
function ontoSurface(
  shape: SnapShape,
  { face, middle, normal, exact }: Place,
): { point: Vec3; normal: Vec3 } {
  if (exact) return { point: exact, normal };
  const above = ABOVE_CHORDS * shape.chordMm + SKIN_MM;
  const ray = { from: along(middle, normal, above), direction: scale(normal, -1) };
  const instance = { part: '', pose: AT_ORIGIN, shape };
  const found = onSurface({ instance, distance: above, face }, ray);
  return { point: found.point, normal: found.normal ?? normal };
}

/** Of each piece, to the face that lies opposite; infinite where none does. By facets: off by up to twice their chord. */
export const sizesOf = (shape: SnapShape, pieces: readonly Piece[], way: Way): Float64Array =>
  Float64Array.from(pieces, (piece) => sizeAt(shape, piece, { way, most: Infinity }));

/** @param most what is farther is not looked for, mm */
function sizeAt(
  shape: SnapShape,
  { middle, normal, triangle }: Piece,
  { way, most }: { readonly way: Way; readonly most: number },
): number {
  const sign = way === 'in' ? -1 : 1;
  const ray = { from: along(middle, normal, sign * SKIN_MM), direction: scale(normal, sign) };
  const hit = castOnShape(shape, ray, most);
  const facing = hit && normalOf(facetCorners(shape, hit.triangle));
  if (!facing) return Infinity;
  const [own, other] = [triangle, hit.triangle].map((t) => shape.faceOfTriangle[t]!) as [number, number];
  const isBeside = beside(shape)(own, other);
  // Where two faces meet, the air between them ends in a crevice, and that is no gap.
  if (isBeside && way === 'out') return Infinity;
  const wanted = isBeside ? OPPOSITE_BESIDE : OPPOSITE;
  return dot(facing, normal) <= -wanted ? hit.distance + SKIN_MM : Infinity;
}

type Beside = (face: number, other: number) => boolean;
const known = new WeakMap<SnapShape, Beside>();

/** Whether two faces meet in a corner or along an edge. */
function beside(shape: SnapShape): Beside {
  const found = known.get(shape);
  if (found) return found;
  const facesAt = new Map<string, Set<number>>();
  shape.triangles.forEach((vertex, corner) => {
    const at = shape.positions.subarray(3 * vertex, 3 * vertex + 3).join();
    const faces = facesAt.get(at) ?? new Set();
    facesAt.set(at, faces.add(shape.faceOfTriangle[Math.floor(corner / 3)]!));
  });
  const pairs = new Set<string>();
  for (const faces of facesAt.values())
    for (const a of faces) for (const b of faces) if (a !== b) pairs.add(`${a} ${b}`);
  const made: Beside = (face, other) => pairs.has(`${face} ${other}`);
  known.set(shape, made);
  return made;
}

/** The least of all, on the true surfaces; undefined where no faces lie opposite. */
export function thinnestSounding(shape: SnapShape, way: Way): Sounding | undefined {
  const doubt = 4 * shape.chordMm + 2 * SKIN_MM;
  const facets = spreadFacets(shape);
  const found: { piece: Piece; size: number }[] = [];
  let best = Infinity;
  for (const piece of [...piecesOf(shape, facets), ...cornerPieces(shape, facets)]) {
    const size = sizeAt(shape, piece, { way, most: best + doubt });
    if (size < Infinity) found.push({ piece, size });
    best = Math.min(best, size);
  }
  const near = found.filter(({ size }) => size <= best + doubt).sort((a, b) => a.size - b.size);
  let thinnest: Sounding | undefined;
  for (const { piece, size } of near.slice(0, MAX_REFINED)) {
    const { middle, normal, triangle } = piece;
    const face = shape.faceOfTriangle[triangle]!;
    const exact = soundingAt(shape, { face, middle, normal }, way);
    // What comes out otherwise on the true surface met another face there.
    if (exact && Math.abs(exact.size - size) <= doubt && !(thinnest && thinnest.size <= exact.size))
      thinnest = exact;
  }
  return thinnest;
}

/** Near the corners of facets, where walls that taper are thinnest. */
const INSET = 0.001;

function cornerPieces(shape: SnapShape, facets: readonly number[]): Piece[] {
  return facets.flatMap((triangle) => {
    const corners = facetCorners(shape, triangle);
    const normal = normalOf(corners);
    if (!normal) return [];
    return corners.map((corner, k): Piece => {
      const others = [corners[(k + 1) % 3]!, corners[(k + 2) % 3]!] as const;
      const middle = [0, 1, 2].map(
        (i) => (1 - 2 * INSET) * corner[i]! + INSET * (others[0][i]! + others[1][i]!),
      ) as unknown as Vec3;
      return { corners, middle, normal, triangle };
    });
  });
}
