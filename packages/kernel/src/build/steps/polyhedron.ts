/** Solids with flat faces and straight edges as corners, and back. */
import { MEETING, distance, sharesName, faultOf, type ChosenPlace, type Vec3 } from '@kadrel/core';
import { isFlatFace, isLine, outwardOf } from '../../facts/surface.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  occurrences,
  read,
  scope,
  uniqueShapes,
  type Scoped,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { polygon } from '../primitives/pulled.ts';
import { closedFlat } from '../closedFlat.ts';
import { Corners, areaWithin, isSameCorner, type FlatFace } from '../flatFaces.ts';
import { sewn, type NamedFace } from '../surfaces.ts';

/** A face as it is in a solid. */
export interface FoundFlat extends FlatFace {
  readonly face: TopoDS_Face;
  readonly normal: Vec3;
}

/** Its faces in the kernel’s order. Throws BuildError where one is round, or has a round edge. */
export const flatFacesOf = ({ occt, keep }: Scoped, { shape, faceNames }: NamedShape): FoundFlat[] =>
  uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE').map((one, i) =>
    flatFace(occt, { face: keep(occt.TopoDS.Face(one)), name: faceNames[i]! }),
  );

const notFlat = () => new BuildError(faultOf('flat-faced.round', {}));

function flatFace(
  occt: Occt,
  { face, name }: { readonly face: TopoDS_Face; readonly name: string },
): FoundFlat {
  return scope((keep) => {
    if (!isFlatFace(occt, face)) throw notFlat();
    const normal = outwardOf(occt, face);
    const loops = occurrences({ occt, keep }, face, 'TopAbs_WIRE')
      .map((wire) => loopOf({ occt, keep }, wire))
      .map((loop) => ({ loop, area: areaWithin(loop, normal) }))
      .sort((a, b) => Math.abs(b.area) - Math.abs(a.area))
      .map(({ loop, area }, i) => (area > 0 === (i === 0) ? loop : [...loop].reverse()));
    return { face, name, normal, loops };
  });
}

/** Corners of a border of straight edges, in order. */
function loopOf({ occt, keep }: Scoped, wire: TopoDS_Shape): Vec3[] {
  const left = occurrences({ occt, keep }, wire, 'TopAbs_EDGE').map((sub) => {
    const edge = keep(occt.TopoDS.Edge(sub));
    const curve = keep(new occt.BRepAdaptor_Curve(edge));
    if (!isLine(curve)) throw notFlat();
    return occurrences({ occt, keep }, edge, 'TopAbs_VERTEX').map((vertex) =>
      read(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(vertex))), keep),
    ) as [Vec3, Vec3];
  });
  const [first, second] = left.shift()!;
  const loop = [first];
  for (let end = second; left.length > 0;) {
    loop.push(end);
    const next = left.findIndex((ends) => ends.some((one) => isSameCorner(one, end)));
    if (next < 0) throw notFlat();
    const [a, b] = left.splice(next, 1)[0]!;
    end = isSameCorner(a, end) ? b : a;
  }
  return loop;
}

/** All corners of a face, both ends of an edge, or one corner. Throws BuildError where there is none of that name. */
export function cornersAt(flat: readonly FoundFlat[], { at, near }: ChosenPlace): Vec3[] {
  const wanted = at.split(MEETING);
  const corners = new Corners();
  const names: string[][] = [];
  for (const { name, loops } of flat)
    for (const corner of loops.flat()) (names[corners.indexOf(corner)] ??= []).push(name);
  const found = corners.points.filter((_, i) =>
    wanted.every((one) => names[i]!.some((name) => sharesName(one, name))),
  );
  if (found.length === 0)
    throw new BuildError(
      faultOf(NONE_SUCH[wanted.length] ?? 'flat-faced.no-corner', { faces: wanted.join(' · ') }),
      near ? [near] : [],
    );
  if (wanted.length < 3 || !near || found.length < 2) return found;
  return [[...found].sort((a, b) => distance(a, near) - distance(b, near))[0]!];
}

/** By how many faces meet in it. */
const NONE_SUCH = [undefined, 'flat-faced.no-face', 'flat-faced.no-edge'] as const;

/** The solid of flat faces. Throws BuildError where they do not close. */
export function solidOfFaces(occt: Occt, faces: readonly FlatFace[], what: string): NamedShape {
  const closed = closedFlat(occt, faces);
  if (closed) return closed;
  return scope((keep) =>
    sewn(
      { occt, keep },
      faces.map((one) => faceOf({ occt, keep }, one)),
      what,
    ),
  );
}

/** One flat face; the caller gives it back. */
export function faceOf({ occt, keep }: Scoped, { name, loops }: FlatFace): NamedFace {
  const [outer, ...inner] = loops.map((loop) => {
    const wire = keep(new occt.BRepBuilderAPI_MakeWire());
    for (const edge of polygon({ occt, keep }, loop)) wire.Add(edge);
    return keep(wire.Wire());
  });
  const made = keep(new occt.BRepBuilderAPI_MakeFace(outer!, true));
  for (const hole of inner) made.Add(hole);
  if (!made.IsDone()) throw new BuildError(faultOf('flat-faced.bent', {}), [...loops[0]!.slice(0, 4)]);
  return { name, face: keep(made.Face()) };
}
