/** Facets of bores between two flat faces that are laid out apart, by formula: the kernel takes a millisecond for each. */
import { add, cross, dot, scale, type Vec3 } from '@kadrel/core';
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
import { cylinderFace, type CylinderFace } from './cylinder.ts';

/** A whole cylinder between two circles, or the outside of one. */
export interface Bore extends CylinderFace {
  /** Index of its face. */
  readonly face: number;
  /** Hash of each of its circles, and where along the axis it is: the lower one first. */
  readonly rims: readonly { readonly hash: number; readonly v: number }[];
}

/** @param crowded indices of the faces that are laid out apart */
export function boresBetween(
  site: Scoped,
  faces: readonly TopoDS_Shape[],
  crowded: ReadonlySet<number>,
): Bore[] {
  const rims = new ShapeMap<true>(site.occt);
  for (const i of crowded)
    for (const edge of uniqueShapes(site, faces[i]!, 'TopAbs_EDGE')) rims.ensure(edge, () => true);
  return faces.flatMap((face, i) => {
    const bore = crowded.has(i) ? undefined : boreOf(site, face, rims);
    return bore ? [{ ...bore, face: i }] : [];
  });
}

function boreOf(site: Scoped, shape: TopoDS_Shape, crowded: ShapeMap<true>): Omit<Bore, 'face'> | undefined {
  const edges = uniqueShapes(site, shape, 'TopAbs_EDGE');
  const circles = edges.filter((edge) => crowded.get(edge));
  // Two circles, and the seam from one to the other.
  if (edges.length !== 3 || circles.length !== 2) return undefined;
  const face = site.keep(site.occt.TopoDS.Face(shape));
  const round = cylinderFace(site, face);
  if (!round || Math.abs(round.u[1] - round.u[0] - 2 * Math.PI) > WHOLE_TURN_RAD) return undefined;
  const rims = circles.map((circle) => ({
    hash: hashOf(site.occt, circle),
    v: heightOf(site, site.keep(site.occt.TopoDS.Edge(circle)), face),
  }));
  return { ...round, rims: rims.sort((a, b) => a.v - b.v) };
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

/** Ways out from the axis, length 1, round a bore. */
function spokesOf(bore: Bore, fineness: Fineness): Vec3[] {
  const sides = sidesOf(bore, fineness);
  return Array.from({ length: sides }, (_, i) => {
    const angle = (2 * Math.PI * i) / sides;
    return add(scale(bore.x, Math.cos(angle)), scale(bore.y, Math.sin(angle)));
  });
}

const circleAt = ({ origin, z, radius }: Bore, v: number, spokes: readonly Vec3[]): Vec3[] =>
  spokes.map((spoke) => add(add(origin, scale(z, v)), scale(spoke, radius)));

/** Straight pieces of both circles, as `piecesOfEdges` has them. */
export function piecesOfBore(bore: Bore, fineness: Fineness): [hash: number, pieces: Float32Array][] {
  const spokes = spokesOf(bore, fineness);
  return bore.rims.map(({ hash, v }) => {
    const circle = circleAt(bore, v, spokes);
    return [hash, Float32Array.from(circle.flatMap((at, i) => [...at, ...circle[(i + 1) % circle.length]!]))];
  });
}

export function facetsOfBore(bore: Bore, fineness: Fineness): FaceFacets {
  const spokes = spokesOf(bore, fineness);
  const isRightHanded = dot(cross(bore.x, bore.y), bore.z) > 0;
  const isTurned = isRightHanded !== (bore.outward === 1);
  const sides = spokes.length;
  return {
    positions: bore.rims.flatMap(({ v }) => circleAt(bore, v, spokes)).flat(),
    normals: bore.rims.flatMap(() => spokes.flatMap((spoke) => scale(spoke, bore.outward))),
    triangles: spokes.flatMap((_, i) => {
      const [a, b] = isTurned ? [(i + 1) % sides, i] : [i, (i + 1) % sides];
      return [a, b, sides + b, a, sides + b, sides + a];
    }),
  };
}
