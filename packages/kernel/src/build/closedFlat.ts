/**
 * A closed solid of flat faces whose edges and corners are laid once and shared, instead of sewn together: sewing looks for what belongs
 * together by how near it is, and costs more with each face that there is.
 */
import { boxOf, type Box, type Vec3 } from '@kadrel/core';
import { Sets } from '../occt/sets.ts';
import { scope, type Occt, type Scoped, type TopoDS_Shape } from '../occt/occt.ts';
import { nameFaces, type NamedShape } from '../naming/named.ts';
import { Corners, middleOf, newellNormal, volumeWithin, type FlatFace } from './flatFaces.ts';

type Face = ReturnType<Occt['TopoDS']['Face']>;
type Edge = ReturnType<Occt['TopoDS']['Edge']>;

/** Corners by number, and the loops of each face as numbers of corners. */
export interface Numbered {
  readonly points: readonly Vec3[];
  readonly faces: readonly (readonly (readonly number[])[])[];
}

/**
 * Undefined where the faces do not close as they are: an edge is not shared by two faces that run along it in opposite ways, or
 * there is not one outer surface. Faces keep their order.
 */
export function closedFlat(occt: Occt, faces: readonly FlatFace[]): NamedShape | undefined {
  const numbered = numberedCorners(faces);
  const beside = facesBeside(numbered);
  const shells = beside && shellsOf(numbered, beside);
  if (!shells) return undefined;
  return scope((keep) => {
    const made = facesWithSharedEdges({ occt, keep }, faces, numbered);
    const builder = keep(new occt.TopoDS_Builder());
    const solid = new occt.TopoDS_Solid();
    builder.MakeSolid(solid);
    for (const members of shells) {
      const shell = keep(new occt.TopoDS_Shell());
      builder.MakeShell(shell);
      for (const i of members) builder.Add(shell, made[i]!);
      shell.Closed(true);
      builder.Add(solid, shell);
    }
    return nameFaces(
      occt,
      solid,
      made.map((face, i) => ({ face, name: faces[i]!.name })),
    );
  });
}

function numberedCorners(faces: readonly FlatFace[]): Numbered {
  const corners = new Corners();
  const numbers = faces.map(({ loops }) => loops.map((loop) => loop.map((at) => corners.indexOf(at))));
  return { points: corners.points, faces: numbers };
}

/** For each edge the two faces that it parts; undefined where an edge has another number of faces, or both run along it one way. */
export function facesBeside({ points, faces }: Numbered): (readonly [number, number])[] | undefined {
  const along = new Map<number, number>();
  const keyOf = (a: number, b: number) => a * points.length + b;
  const ways = faces.flatMap((loops, face) =>
    loops.flatMap((loop) => loop.map((a, i) => ({ a, b: loop[(i + 1) % loop.length]!, face }))),
  );
  for (const { a, b, face } of ways) {
    if (a === b || along.has(keyOf(a, b))) return undefined;
    along.set(keyOf(a, b), face);
  }
  if (ways.some(({ a, b }) => !along.has(keyOf(b, a)))) return undefined;
  return ways.filter(({ a, b }) => a < b).map(({ a, b, face }) => [face, along.get(keyOf(b, a))!]);
}

/** Numbers of the faces of each surface, the outer one first; the others are hollows in it. Undefined where there is no one outer surface. */
export function shellsOf(
  { points, faces }: Numbered,
  beside: readonly (readonly [number, number])[],
): number[][] | undefined {
  const sets = new Sets(faces.length);
  for (const [a, b] of beside) sets.join(a, b);
  const shells = sets.all().map((members) => {
    const loops = members.flatMap((i) => faces[i]!.map((loop) => loop.map((corner) => points[corner]!)));
    return { members, volume: volumeWithin(loops), box: boxOf(loops.flat()) };
  });
  const [outer, ...others] = shells.filter(({ volume }) => volume > 0);
  if (!outer || others.length > 0) return undefined;
  const hollows = shells.filter((one) => one !== outer);
  if (!hollows.every(({ box }) => isWithin(box, outer.box))) return undefined;
  return [outer, ...hollows].map(({ members }) => members);
}

const isWithin = (inner: Box, outer: Box): boolean =>
  inner.min.every((n, i) => n > outer.min[i]!) && inner.max.every((n, i) => n < outer.max[i]!);

function facesWithSharedEdges(
  { occt, keep }: Scoped,
  flat: readonly FlatFace[],
  { points, faces }: Numbered,
): Face[] {
  const builder = keep(new occt.TopoDS_Builder());
  const vertices = points.map((at) =>
    keep(keep(new occt.BRepBuilderAPI_MakeVertex(keep(new occt.gp_Pnt(...at)))).Vertex()),
  );
  const edges = new Map<number, Edge>();
  const edgeOf = (a: number, b: number): TopoDS_Shape => {
    const [low, high] = a < b ? [a, b] : [b, a];
    const key = low * points.length + high;
    let edge = edges.get(key);
    if (!edge) {
      edge = keep(keep(new occt.BRepBuilderAPI_MakeEdge(vertices[low]!, vertices[high]!)).Edge());
      edges.set(key, edge);
    }
    return a < b ? edge : keep(edge.Reversed());
  };
  const wireOf = (loop: readonly number[]) => {
    const wire = keep(new occt.TopoDS_Wire());
    builder.MakeWire(wire);
    loop.forEach((a, i) => {
      builder.Add(wire, edgeOf(a, loop[(i + 1) % loop.length]!));
    });
    wire.Closed(true);
    return wire;
  };
  return faces.map((loops, i) => {
    const [outer, ...holes] = loops.map(wireOf);
    const made = keep(new occt.BRepBuilderAPI_MakeFace(planeOf({ occt, keep }, flat[i]!), outer!, false));
    for (const hole of holes) made.Add(hole);
    return keep(made.Face());
  });
}

/** Through the middle of a face's corners, square to its normal. */
function planeOf({ occt, keep }: Scoped, { loops }: FlatFace) {
  const [border] = loops;
  return keep(
    new occt.gp_Pln(
      keep(new occt.gp_Pnt(...middleOf(border!))),
      keep(new occt.gp_Dir(...newellNormal(border!))),
    ),
  );
}
