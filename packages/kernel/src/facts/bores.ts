/** Facets of bores between two flat faces that are laid out apart, by formula: the kernel takes a millisecond for each. */
import { cross, dot } from '@kadrel/core';
import {
  ShapeMap,
  hashOf,
  uniqueShapes,
  type Scoped,
  type TopoDS_Edge,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import type { FaceFacets, Fineness } from './crowded.ts';
import { cylinderFaces, type CylinderFace } from './cylinder.ts';

/** A whole cylinder between two circles, or the outside of one. */
export interface Bore extends CylinderFace {
  /** Index of its face. */
  readonly face: number;
  /** Hash of each of its circles, and where along the axis it is: the lower one first. */
  readonly rims: readonly { readonly hash: number; readonly v: number }[];
}

/** @param crowded indices of the faces that are laid out apart */
export function boresBetween(site: Scoped, shape: TopoDS_Shape, crowded: ReadonlySet<number>): Bore[] {
  const faces = uniqueShapes(site, shape, 'TopAbs_FACE');
  const rims = new ShapeMap<true>(site.occt);
  for (const i of crowded)
    for (const edge of uniqueShapes(site, faces[i]!, 'TopAbs_EDGE')) rims.ensure(edge, () => true);
  return cylinderFaces(site, shape).flatMap((round, i) => {
    if (!round || Math.abs(round.u[1] - round.u[0] - 2 * Math.PI) > WHOLE_TURN_RAD) return [];
    const ends = rimsOf(site, faces[i]!, rims);
    return ends ? [{ ...round, face: i, rims: ends }] : [];
  });
}

/** The two circles of a whole cylinder; undefined where they are not both edges of crowded faces. */
function rimsOf(site: Scoped, shape: TopoDS_Shape, crowded: ShapeMap<true>): Bore['rims'] | undefined {
  const edges = uniqueShapes(site, shape, 'TopAbs_EDGE');
  const circles = edges.filter((edge) => crowded.get(edge));
  // Two circles, and the seam from one to the other.
  if (edges.length !== 3 || circles.length !== 2) return undefined;
  const face = site.keep(site.occt.TopoDS.Face(shape));
  return circles
    .map((circle) => ({
      hash: hashOf(site.occt, circle),
      v: heightOf(site, site.keep(site.occt.TopoDS.Edge(circle)), face),
    }))
    .sort((a, b) => a.v - b.v);
}
/** What a whole turn may be off. */
const WHOLE_TURN_RAD = 1e-9;

function heightOf({ occt, keep }: Scoped, edge: TopoDS_Edge, face: TopoDS_Face): number {
  const curve = keep(new occt.BRepAdaptor_Curve2d(edge, face));
  return keep(curve.Value(curve.FirstParameter())).Y();
}

/** Facets turn by no more than was asked for, and depart from the circle by no more than a chord. */
function sidesOf({ radius }: Bore, { chordMm, turnRad }: Fineness): number {
  const byChord = 2 * Math.acos(Math.max(0, 1 - chordMm / radius));
  return Math.max(MIN_SIDES, Math.ceil((2 * Math.PI) / Math.min(turnRad, byChord)));
}
const MIN_SIDES = 6;

/** Ways out from the axis, length 1, round a bore: 3 numbers each. */
function spokesOf(bore: Bore, fineness: Fineness): Float64Array {
  const sides = sidesOf(bore, fineness);
  const spokes = new Float64Array(3 * sides);
  for (let i = 0; i < sides; i++) {
    const [cosine, sine] = [Math.cos((2 * Math.PI * i) / sides), Math.sin((2 * Math.PI * i) / sides)];
    for (let k = 0; k < 3; k++) spokes[3 * i + k] = bore.x[k]! * cosine + bore.y[k]! * sine;
  }
  return spokes;
}

/** Places of both circles, one after the other: 3 numbers each, as single floats, which pieces and facets must share to the bit. */
function circlesOf({ origin, z, radius, rims }: Bore, spokes: Float64Array): Float32Array {
  const places = new Float32Array(rims.length * spokes.length);
  rims.forEach(({ v }, rim) => {
    const first = rim * spokes.length;
    for (let n = 0; n < spokes.length; n++)
      places[first + n] = origin[n % 3]! + v * z[n % 3]! + radius * spokes[n]!;
  });
  return places;
}

/** Straight pieces of both circles, as `piecesOfEdges` has them. */
export function piecesOfBore(bore: Bore, fineness: Fineness): [hash: number, pieces: Float32Array][] {
  const spokes = spokesOf(bore, fineness);
  const places = circlesOf(bore, spokes);
  return bore.rims.map(({ hash }, rim) => {
    const circle = places.subarray(rim * spokes.length, (rim + 1) * spokes.length);
    const pieces = new Float32Array(2 * circle.length);
    for (let i = 0; i < circle.length; i += 3)
      for (let k = 0; k < 3; k++) {
        pieces[2 * i + k] = circle[i + k]!;
        pieces[2 * i + 3 + k] = circle[(i + 3 + k) % circle.length]!;
      }
    return [hash, pieces];
  });
}

export function facetsOfBore(bore: Bore, fineness: Fineness): FaceFacets {
  const spokes = spokesOf(bore, fineness);
  const isRightHanded = dot(cross(bore.x, bore.y), bore.z) > 0;
  const isTurned = isRightHanded !== (bore.outward === 1);
  const sides = spokes.length / 3;
  const normals = Float32Array.from(
    { length: 2 * spokes.length },
    (_, n) => bore.outward * spokes[n % spokes.length]!,
  );
  const triangles = new Uint32Array(6 * sides);
  for (let i = 0; i < sides; i++) {
    const next = (i + 1) % sides;
    const [a, b] = isTurned ? [next, i] : [i, next];
    triangles.set([a, b, sides + b, a, sides + b, sides + a], 6 * i);
  }
  return { positions: circlesOf(bore, spokes), normals, triangles };
}
