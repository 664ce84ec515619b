/** Flat faces that move while their neighbours go on in their own planes: corners are met anew. */
import { add, cross, dot, length, scale, subtract, type Vec3 } from '@kadrel/core';
import { outwardOf } from '../../naming/chosen.ts';
import type { NamedShape } from '../../naming/named.ts';
import {
  BuildError,
  occurrences,
  read,
  scope,
  uniqueShapes,
  type Keep,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../../occt/occt.ts';
import { polygon } from '../primitives/pulled.ts';
import { sewn, type NamedFace } from '../surfaces.ts';

/** Three planes whose normals span less than this (the volume of their unit box) meet in no point. */
const MIN_SPAN = 1e-6;
/** A corner that lies off a fourth plane by more than this (mm) would need an edge of its own. */
const ON_PLANE_MM = 1e-7;

interface Moving {
  readonly faces: readonly TopoDS_Face[];
  /** Out of the faces, mm. */
  readonly by: number;
}

/** All faces keep their names. Throws BuildError. */
export function movedPlanes(occt: Occt, of: NamedShape, { faces: moving, by }: Moving): NamedShape {
  return scope((keep) => {
    const planes = uniqueShapes(occt, of.shape, 'TopAbs_FACE', keep).map((one, i) => {
      const face = keep(occt.TopoDS.Face(one));
      const moves = moving.some((other) => other.IsSame(face));
      return planeOf(occt, { face, name: of.faceNames[i]!, by: moves ? by : 0, keep });
    });
    const corners = cornersOf(planes);
    const faces = planes.map((plane) => faceAnew(occt, plane, { corners, keep }));
    return sewn(occt, faces, 'The moved faces', keep);
  });
}

interface Plane {
  readonly name: string;
  readonly normal: Vec3;
  /** dot(normal, point) of its points, after it has moved. */
  readonly offset: number;
  /** Its outer border first, counter-clockwise seen from outside; the others the other way round. */
  readonly loops: readonly (readonly Vec3[])[];
}

interface Flat {
  readonly face: TopoDS_Face;
  readonly name: string;
  readonly by: number;
  readonly keep: Keep;
}

const notFlat = () =>
  new BuildError(
    'The faces beside it lean and are not all flat, so that they cannot go on.',
    'Move the face straight out, or draft the others first.',
  );

function planeOf(occt: Occt, { face, name, by, keep }: Flat): Plane {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  if ((surface.GetType() as unknown as string) !== 'GeomAbs_Plane') throw notFlat();
  const normal = outwardOf(occt, face);
  const loops = occurrences(occt, face, 'TopAbs_WIRE', keep)
    .map((wire) => loopOf(occt, wire, keep))
    .map((loop) => ({ loop, area: areaWithin(loop, normal) }))
    .sort((a, b) => Math.abs(b.area) - Math.abs(a.area))
    .map(({ loop, area }, i) => (area > 0 === (i === 0) ? loop : [...loop].reverse()));
  return { name, normal, offset: dot(normal, loops[0]![0]!) + by, loops };
}

/** Corners of a border of straight edges, in order. */
function loopOf(occt: Occt, wire: TopoDS_Shape, keep: Keep): Vec3[] {
  const left = occurrences(occt, wire, 'TopAbs_EDGE', keep).map((sub) => {
    const edge = keep(occt.TopoDS.Edge(sub));
    const curve = keep(new occt.BRepAdaptor_Curve(edge));
    if ((curve.GetType() as unknown as string) !== 'GeomAbs_Line') throw notFlat();
    return occurrences(occt, edge, 'TopAbs_VERTEX', keep).map((vertex) =>
      read(occt.BRep_Tool.Pnt(keep(occt.TopoDS.Vertex(vertex))), keep),
    ) as [Vec3, Vec3];
  });
  const [first, second] = left.shift()!;
  const loop = [first];
  for (let end = second; left.length > 0;) {
    loop.push(end);
    const next = left.findIndex((ends) => ends.some((one) => isSame(one, end)));
    if (next < 0) throw notFlat();
    const [a, b] = left.splice(next, 1)[0]!;
    end = isSame(a, end) ? b : a;
  }
  return loop;
}

const isSame = (a: Vec3, b: Vec3) => length(subtract(a, b)) < ON_PLANE_MM;

/** Twice the area within a loop, positive when it runs counter-clockwise seen against the normal. */
const areaWithin = (loop: readonly Vec3[], normal: Vec3): number =>
  loop.reduce((sum, at, i) => sum + dot(normal, cross(at, loop[(i + 1) % loop.length]!)), 0);

type Corners = (old: Vec3) => Vec3;

/** Old corner → where the planes through it meet now. */
function cornersOf(planes: readonly Plane[]): Corners {
  const known: { readonly old: Vec3; readonly now: Vec3 }[] = [];
  return (old) => {
    const found = known.find((one) => isSame(one.old, old));
    if (found) return found.now;
    const through = planes.filter(({ loops }) => loops.some((loop) => loop.some((at) => isSame(at, old))));
    const now = through.every(({ normal, offset }) => Math.abs(dot(normal, old) - offset) < ON_PLANE_MM)
      ? old
      : meetingOf(through, old);
    known.push({ old, now });
    return now;
  };
}

function meetingOf(planes: readonly Plane[], old: Vec3): Vec3 {
  let best: readonly [Plane, Plane, Plane] | undefined;
  let most = MIN_SPAN;
  for (const a of planes)
    for (const b of planes)
      for (const c of planes) {
        const span = Math.abs(dot(a.normal, cross(b.normal, c.normal)));
        if (span > most * (1 + MIN_SPAN)) [best, most] = [[a, b, c], span];
      }
  const now = best && threePlanes(best);
  if (now && planes.every(({ normal, offset }) => Math.abs(dot(normal, now) - offset) < ON_PLANE_MM))
    return now;
  throw new BuildError(
    'More than three faces meet in a corner here, and would no longer.',
    'Move the face straight out, or all the faces round this corner.',
    [old],
  );
}

/** By Cramer's rule. */
function threePlanes([a, b, c]: readonly [Plane, Plane, Plane]): Vec3 {
  const span = dot(a.normal, cross(b.normal, c.normal));
  const sum = add(
    add(scale(cross(b.normal, c.normal), a.offset), scale(cross(c.normal, a.normal), b.offset)),
    scale(cross(a.normal, b.normal), c.offset),
  );
  return scale(sum, 1 / span);
}

interface Anew {
  readonly corners: Corners;
  readonly keep: Keep;
}

function faceAnew(occt: Occt, { name, loops }: Plane, { corners, keep }: Anew): NamedFace {
  const wires = loops.map((loop) => {
    const moved = loop.map(corners);
    loop.forEach((old, i) => requireSameWay([old, loop[(i + 1) % loop.length]!], corners));
    const wire = keep(new occt.BRepBuilderAPI_MakeWire());
    for (const edge of polygon(occt, moved, keep)) wire.Add(edge);
    return keep(wire.Wire());
  });
  const [outer, ...inner] = wires;
  const made = keep(new occt.BRepBuilderAPI_MakeFace(outer!, true));
  for (const hole of inner) made.Add(hole);
  if (!made.IsDone()) throw notFlat();
  return { name, face: keep(made.Face()) };
}

/** An edge that would turn round has shrunk to nothing on the way. */
function requireSameWay([from, to]: readonly [Vec3, Vec3], corners: Corners): void {
  if (dot(subtract(to, from), subtract(corners(to), corners(from))) > 0) return;
  throw new BuildError('An edge would shrink to nothing.', 'Move the face by less.', [from, to]);
}
