/** The least convex solid round another. */
import quickHull from 'quickhull3d/dist/quickhull3d.js';
import { distance, dot, faultOf, length, scale, subtract, type Vec3 } from '@kadrel/core';
import type { Content } from '../../content/content.ts';
import { meshShape } from '../../facts/mesh.ts';
import { firstDerivatives, isFlatFace, isLine, outwardOf } from '../../facts/surface.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  read,
  scope,
  uniqueShapes,
  withoutFacets,
  type Keep,
  type Scoped,
  type Occt,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { SAME_CORNER_MM, isFlat, newellNormal, type FlatFace } from '../flatFaces.ts';
import { solidOfFaces } from './polyhedron.ts';

type Hull = Extract<Content, { readonly kind: 'hull' }>;

/** More corners than this make more faces than can be joined in reasonable time. */
const MAX_CORNERS = 3000;
/** Facets of round faces turn by as much as the chord lets them (radians). */
const ANY_TURN_RAD = 1;
/** Two points nearer than this part of the size are one where they come from facets: the noise of single precision. */
const NOISE = 1e-6;
/** Faces whose normals differ by less than this (sine) lie in one plane, where their corners do. */
const SAME_NORMAL = 1e-6;

/** Faces in the plane of one that was there keep its name; the others are called hull1, hull2 … Throws BuildError. */
export function buildHull(occt: Occt, of: NamedShape, { chord }: Hull): NamedShape {
  return scope((keep) => {
    const planes = planesOf({ occt, keep }, of);
    const { corners, slackMm } = cornersOf(occt, of, { chord, planes, keep });
    const faces = hullOf(corners, planes);
    requireAround(faces, corners, slackMm);
    return solidOfFaces(occt, faces, 'The hull');
  });
}

/** What makes a hull one: its faces have all corners behind them. */
function requireAround(faces: readonly FlatFace[], corners: readonly Vec3[], slackMm: number): void {
  for (const { loops } of faces) {
    const [first] = loops[0]!;
    const normal = newellNormal(loops[0]!);
    const beyond = corners.find((at) => dot(normal, subtract(at, first!)) > slackMm);
    if (beyond) throw new BuildError(faultOf('hull.not-around', {}), [beyond]);
  }
}

interface Looking {
  readonly chord: number;
  readonly planes: readonly (NamedPlane | undefined)[];
  readonly keep: Keep;
}

/** The corners; where faces or edges are round, points so near together that their facets are not off by more than the chord. */
function cornersOf(occt: Occt, { shape }: NamedShape, { chord, planes, keep }: Looking) {
  const corners = uniqueShapes({ occt, keep }, shape, 'TopAbs_VERTEX').map((vertex) =>
    read(keep(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(vertex)))), keep),
  );
  const isExact = planes.every((plane) => plane) && hasStraightEdges({ occt, keep }, shape);
  const points = isExact ? [] : roundPoints(occt, shape, { chord, planes });
  const nearMm = NOISE * points.reduce((max, at) => Math.max(max, ...at.map(Math.abs)), 0);
  for (const at of points) {
    if (corners.length > MAX_CORNERS) break;
    if (!corners.some((one) => distance(one, at) < nearMm)) corners.push(at);
  }
  if (corners.length <= MAX_CORNERS) return { corners, slackMm: SAME_CORNER_MM + nearMm };
  throw new BuildError(faultOf('hull.corners', { max: MAX_CORNERS }));
}

/** Points of facets, those of flat faces first, and put onto their planes: facets are in single precision. */
function roundPoints(occt: Occt, shape: TopoDS_Shape, { chord, planes }: Omit<Looking, 'keep'>): Vec3[] {
  const { positions, triangles, faceOfTriangle } = meshShape(occt, shape, chord, ANY_TURN_RAD);
  withoutFacets(occt, shape);
  const faceOf = new Map<number, number>();
  triangles.forEach((vertex, i) => faceOf.set(vertex, faceOfTriangle[Math.floor(i / 3)]!));
  const [flat, round]: [Vec3[], Vec3[]] = [[], []];
  for (const [vertex, face] of faceOf) {
    const at = [0, 1, 2].map((axis) => positions[3 * vertex + axis]!) as unknown as Vec3;
    const plane = planes[face];
    if (plane) flat.push(subtract(at, scale(plane.normal, dot(plane.normal, subtract(at, plane.point)))));
    else round.push(at);
  }
  return [...flat, ...round];
}

const hasStraightEdges = ({ occt, keep }: Scoped, shape: TopoDS_Shape): boolean =>
  uniqueShapes({ occt, keep }, shape, 'TopAbs_EDGE').every((edge) =>
    isLine(keep(new occt.BRepAdaptor_Curve(keep(occt.TopoDS.Edge(edge))))),
  );

interface NamedPlane {
  readonly name: string;
  readonly point: Vec3;
  readonly normal: Vec3;
}

/** Of each face that is flat. */
const planesOf = ({ occt, keep }: Scoped, { shape, faceNames }: NamedShape): (NamedPlane | undefined)[] =>
  uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((one, i) => {
    const face = keep(occt.TopoDS.Face(one));
    if (!isFlatFace(occt, face)) return undefined;
    const surface = keep(new occt.BRepAdaptor_Surface(face, true));
    const { point } = firstDerivatives(surface, { u: 0, v: 0 }, keep);
    return { name: faceNames[i]!, point, normal: outwardOf(occt, face) };
  });

/** What lies in one plane is one face, where all of its corners do; else it stays in triangles. */
function hullOf(corners: readonly Vec3[], planes: readonly (NamedPlane | undefined)[]): FlatFace[] {
  const points = corners.map((one): [number, number, number] => [...one]);
  let count = 0;
  return quickHull(points, { skipTriangulation: true }).flatMap((indices) => {
    const loop = indices.map((i) => corners[i]!);
    const pieces = isFlat({ loops: [loop] }) ? [loop] : fanOf(loop);
    return pieces.map((piece) => ({
      name: planes.find((plane) => plane && liesIn(piece, plane))?.name ?? `hull${++count}`,
      loops: [piece],
    }));
  });
}

const fanOf = ([first, ...others]: readonly Vec3[]): Vec3[][] =>
  others.slice(1).map((at, i) => [first!, others[i]!, at]);

const liesIn = (loop: readonly Vec3[], { point, normal }: NamedPlane): boolean =>
  length(subtract(newellNormal(loop), normal)) < SAME_NORMAL &&
  loop.every((at) => Math.abs(dot(normal, subtract(at, point))) < SAME_CORNER_MM);
