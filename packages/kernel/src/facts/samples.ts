/** Points well inside the faces of a shape, on its true surfaces, with the way outward. */
import { add, cross, dot, scale, subtract, unit, type Vec3 } from '@kadrel/core';
import { firstDerivatives, isPlane, roundAxis, type Derivatives, type RoundAxis } from './surface.ts';
import { meshShape, type Mesh } from './mesh.ts';
import {
  scope,
  uniqueShapes,
  withoutFacets,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';

export interface Sample {
  /** In the frame of the shape, mm. */
  readonly point: Vec3;
  /** Length 1, out of the solid. */
  readonly outward: Vec3;
  /** In the kernel's order of faces. */
  readonly face: number;
}

/** Points on one face at the most, and on all faces together, as far as each has one. */
const MAX_ON_A_FACE = 12;
const MAX_IN_ALL = 300;
/** Triangles whose height is below this (mm) are slivers, in which no point is well inside. */
const SLIVER_MM = 1e-5;

/** @param mesh the facets that the kernel has just laid on this shape */
export function samplesOf(occt: Occt, shape: TopoDS_Shape, mesh: Mesh, maxOnAFace = MAX_ON_A_FACE): Sample[] {
  return scope((keep) => {
    const faces = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE');
    const each = Math.max(1, Math.min(maxOnAFace, Math.floor(MAX_IN_ALL / Math.max(1, faces.length))));
    const triangles = trianglesByFace(mesh, faces.length);
    return faces.flatMap((face, i) => {
      // A face too small to be faceted has no point well inside.
      if (triangles[i]!.count === 0) return [];
      const facets: FaceFacets = {
        choose: (max) => chosenTriangles(mesh, triangles[i]!, Math.min(max, each)),
        middle: (t) => middleOf(mesh, triangles[i]!.first + t),
      };
      return onFace(occt, keep(occt.TopoDS.Face(face)), facets).map((one) => ({ ...one, face: i }));
    });
  });
}

/** For each face its first triangle, and how many there are. */
function trianglesByFace({ faceOfTriangle }: Mesh, faces: number): { first: number; count: number }[] {
  const found = Array.from({ length: faces }, () => ({ first: 0, count: 0 }));
  for (let t = 0; t < faceOfTriangle.length; t++) {
    const entry = found[faceOfTriangle[t]!]!;
    if (entry.count === 0) entry.first = t;
    entry.count += 1;
  }
  return found;
}

/** The stoutest triangle of each of so many stretches of a face, counted from the face's first. */
function chosenTriangles(
  mesh: Mesh,
  { first, count }: { first: number; count: number },
  max: number,
): number[] {
  const stretches = Math.min(max, count);
  const chosen: number[] = [];
  for (let s = 0; s < stretches; s++) {
    let [best, stoutest] = [-1, SLIVER_MM];
    const [from, to] = [Math.floor((s * count) / stretches), Math.floor(((s + 1) * count) / stretches)];
    for (let t = from; t < to; t++) {
      const height = heightOf(mesh, first + t);
      if (height > stoutest) [best, stoutest] = [t, height];
    }
    if (best >= 0) chosen.push(best);
  }
  return chosen;
}

/** The least height of a triangle, mm. */
function heightOf({ positions, triangles }: Mesh, t: number): number {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * triangles[3 * t + k]!) as [number, number, number];
  const edge = (p: number, q: number): Vec3 => [
    positions[q]! - positions[p]!,
    positions[q + 1]! - positions[p + 1]!,
    positions[q + 2]! - positions[p + 2]!,
  ];
  const [u, v, w] = [edge(a, b), edge(a, c), edge(b, c)];
  const longest = Math.max(Math.hypot(...u), Math.hypot(...v), Math.hypot(...w));
  return longest === 0 ? 0 : Math.hypot(...cross(u, v)) / longest;
}

/** A plane or a cylinder that is right at some points is right at all: three fix a plane, five a cylinder. */
const MAX_ON_A_PLANE = 4;
const MAX_ON_A_CYLINDER = 8;

/** The facets of one face, counted from its first. */
interface FaceFacets {
  /** Facets to look at, so many at most. */
  readonly choose: (max: number) => readonly number[];
  readonly middle: (facet: number) => Vec3;
}

/** The middles of triangles of a face, carried onto the true surface: where that is not flat, in its parameters. */
function onFace(occt: Occt, face: TopoDS_Face, { choose, middle }: FaceFacets): Omit<Sample, 'face'>[] {
  return scope((keep) => {
    const surface = keep(new occt.BRepAdaptor_Surface(face, false));
    const isFlat = isPlane(surface);
    const axis = isFlat ? undefined : roundAxis(surface, keep);
    const chosen = choose(isFlat ? MAX_ON_A_PLANE : axis ? MAX_ON_A_CYLINDER : Infinity);
    if (chosen.length === 0) return [];
    const turned = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED' ? -1 : 1;
    if (isFlat) {
      const plane = firstDerivatives(surface, { u: 0, v: 0 }, keep);
      return chosen.map((t) => onPlane(plane, middle(t), turned));
    }
    if (axis) return chosen.map((t) => onCylinder(axis, middle(t), turned));
    const location = keep(new occt.TopLoc_Location());
    const triangulation = keep(occt.BRep_Tool.Triangulation(face, location, 0));
    return chosen.flatMap((t) => {
      if (t >= triangulation.NbTriangles()) return [];
      const triangle = keep(triangulation.Triangle(t + 1));
      const corners = [1, 2, 3].map((k) => keep(triangulation.UVNode(triangle.Value(k))));
      const [u, v] = [
        corners.reduce((sum, uv) => sum + uv.X(), 0) / 3,
        corners.reduce((sum, uv) => sum + uv.Y(), 0) / 3,
      ];
      const { point, along, across } = firstDerivatives(surface, { u, v }, keep);
      const normal = unit(cross(along, across));
      // At a pole the surface has no normal by its derivatives.
      return normal.every((n) => n === 0 || Number.isNaN(n))
        ? []
        : [{ point, outward: scale(normal, turned) }];
    });
  });
}

function middleOf({ positions, triangles }: Mesh, t: number): Vec3 {
  const corners = [0, 1, 2].map((k) => 3 * triangles[3 * t + k]!);
  return [0, 1, 2].map(
    (axis) => corners.reduce((sum, i) => sum + positions[i + axis]!, 0) / 3,
  ) as unknown as Vec3;
}

/** The point of a plane below a place. */
function onPlane({ point, along, across }: Derivatives, place: Vec3, turned: number): Omit<Sample, 'face'> {
  const normal = unit(cross(along, across));
  const height = dot(subtract(place, point), normal);
  return { point: add(place, scale(normal, -height)), outward: scale(normal, turned) };
}

/** The point of a cylinder straight out from its axis through a place. */
function onCylinder(axis: RoundAxis, place: Vec3, turned: number): Omit<Sample, 'face'> {
  const from = subtract(place, axis.origin);
  const along = dot(from, axis.direction);
  const out = unit(subtract(from, scale(axis.direction, along)));
  const point = add(add(axis.origin, scale(axis.direction, along)), scale(out, axis.radius));
  return { point, outward: scale(out, turned * axis.way) };
}

export const beside = ({ point, outward }: Pick<Sample, 'point' | 'outward'>, by: number): Vec3 =>
  add(point, scale(outward, by));

/** Facets that points are taken from. */
const SAMPLE_TURN_RAD = 0.8;
const SAMPLE_CHORD = 0.02;
const MAX_COARSE = 10;

/** By coarse facets, since the points lie on the true surface. @param diagonal of its box, mm */
export function coarseSamples(occt: Occt, shape: TopoDS_Shape, diagonal: number): Sample[] {
  const mesh = meshShape(occt, shape, SAMPLE_CHORD * diagonal, SAMPLE_TURN_RAD);
  const samples = samplesOf(occt, shape, mesh, MAX_COARSE);
  withoutFacets(occt, shape);
  return samples;
}
