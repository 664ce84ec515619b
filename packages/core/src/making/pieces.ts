/** The facets of a shape cut into pieces of about one size, so that something can be asked all over it. */
import { facetCorners, type Corners } from '../snapping/facetCorners.ts';
import type { ShapeFeatures } from '../snapping/shape.ts';
import { cross, length, scale, subtract, type Vec3 } from '../space/vector.ts';

/** A small piece of a facet, from which one looks into the material and into the air. */
export interface Piece {
  readonly corners: Corners;
  readonly middle: Vec3;
  /** Out of the solid, length 1. */
  readonly normal: Vec3;
  readonly triangle: number;
}

/** About so many pieces; more where there are more facets. */
const USUAL_PIECES = 4000;
/** However long and thin facets are. */
const MAX_PIECES = 40_000;

type Faceted = Pick<ShapeFeatures, 'positions' | 'triangles'>;

/** Of all facets, or of these. */
export function piecesOf(shape: Faceted, chosen: Iterable<number> = allOf(shape)): Piece[] {
  let area = 0;
  for (const triangle of allOf(shape)) area += areaOf(facetCorners(shape, triangle));
  // Of an equilateral piece of its share of the area the edges are so long.
  const longest = Math.sqrt((4 * area) / (Math.sqrt(3) * USUAL_PIECES));
  const pieces: Piece[] = [];
  for (const triangle of chosen) {
    const corners = facetCorners(shape, triangle);
    const normal = normalOf(corners);
    if (!normal) continue;
    for (const part of cut(corners, longest, MAX_PIECES - pieces.length))
      pieces.push({ corners: part, middle: middleOf(part), normal, triangle });
  }
  return pieces;
}

const allOf = ({ triangles }: Pick<ShapeFeatures, 'triangles'>): Iterable<number> =>
  Array(triangles.length / 3).keys();

/** Of each face so many facets at least, and of all together about so many, a face with more of them skips some. */
const MIN_OF_A_FACE = 24;
const USUAL_FACETS = 4000;

/** Facets to be looked at, spread over every face. */
export function spreadFacets({ triangles, faceOfTriangle }: ShapeFeatures): number[] {
  const counts = new Map<number, number>();
  for (const face of faceOfTriangle) counts.set(face, (counts.get(face) ?? 0) + 1);
  const share = USUAL_FACETS / (triangles.length / 3);
  const seen = new Map<number, number>();
  return [...faceOfTriangle.keys()].filter((triangle) => {
    const face = faceOfTriangle[triangle]!;
    const count = counts.get(face)!;
    const wanted = Math.min(count, Math.max(MIN_OF_A_FACE, count * share));
    const place = seen.get(face) ?? 0;
    seen.set(face, place + 1);
    return Math.floor(((place + 1) * wanted) / count) > Math.floor((place * wanted) / count);
  });
}

/** Halved across its longest edge again and again. */
function cut(whole: Corners, longest: number, max: number): Corners[] {
  const done: Corners[] = [];
  const left = [whole];
  for (let corners = left.pop(); corners; corners = left.pop()) {
    const [a, b, c] = longestFirst(corners);
    if (length(subtract(b, a)) <= longest || done.length + left.length >= max) done.push(corners);
    else {
      const half = middleOf([a, b]);
      left.push([a, half, c], [half, b, c]);
    }
  }
  return done;
}

/** Turned so that its longest edge is the first. */
function longestFirst([a, b, c]: Corners): Corners {
  const [ab, bc, ca] = [length(subtract(b, a)), length(subtract(c, b)), length(subtract(a, c))];
  if (ab >= bc && ab >= ca) return [a, b, c];
  return bc >= ca ? [b, c, a] : [c, a, b];
}

/** The mean of some points. */
export const middleOf = (points: readonly Vec3[]): Vec3 =>
  [0, 1, 2].map((i) => points.reduce((sum, point) => sum + point[i]!, 0) / points.length) as unknown as Vec3;

/** Twice the area, along the normal. */
export const doubleArea = ([a, b, c]: Corners): Vec3 => cross(subtract(b, a), subtract(c, a));

/** The area of a facet, mm². */
export const areaOf = (corners: Corners): number => length(doubleArea(corners)) / 2;

/** Undefined where it has no area. */
export function normalOf(corners: Corners): Vec3 | undefined {
  const across = doubleArea(corners);
  const size = length(across);
  return size === 0 ? undefined : scale(across, 1 / size);
}
