/** Flat faces that move while their neighbours go on in their own planes: corners are met anew. */
import { add, cross, dot, faultOf, scale, subtract, type Vec3 } from '@kadrel/core';
import type { NamedShape } from '../../naming/named.ts';
import { BuildError, scope, type Occt, type TopoDS_Face } from '../../occt/occt.ts';
import { Corners, SAME_CORNER_MM, type FlatFace } from '../flatFaces.ts';
import { flatFacesOf, solidOfFaces, type FoundFlat } from './polyhedron.ts';

/** Three planes whose normals span less than this (the volume of their unit box) meet in no point. */
const MIN_SPAN = 1e-6;

interface Moving {
  readonly faces: readonly TopoDS_Face[];
  /** Out of the faces, mm. */
  readonly by: number;
}

interface Plane extends FoundFlat {
  /** dot(normal, point) of its points, after it has moved. */
  readonly offset: number;
}

/** All faces keep their names. Throws BuildError. */
export function movedPlanes(occt: Occt, of: NamedShape, { faces: moving, by }: Moving): NamedShape {
  return scope((keep) => {
    const planes = flatFacesOf({ occt, keep }, of).map((flat): Plane => {
      const moves = moving.some((other) => other.IsSame(flat.face));
      return { ...flat, offset: dot(flat.normal, flat.loops[0]![0]!) + (moves ? by : 0) };
    });
    const corners = cornersOf(planes);
    const faces = planes.map(({ name, loops }): FlatFace => {
      for (const loop of loops)
        loop.forEach((old, i) => requireSameWay([old, loop[(i + 1) % loop.length]!], corners));
      return { name, loops: loops.map((loop) => loop.map(corners)) };
    });
    return solidOfFaces(occt, faces, 'The moved faces');
  });
}

/** Faces move straight out and leave their outlines behind, with new faces between: coplanar ones stay faces of their own. */
export function copiedOut(occt: Occt, of: NamedShape, { faces: moving, by }: Moving): NamedShape {
  return scope((keep) => {
    const faces = flatFacesOf({ occt, keep }, of).flatMap((flat): FlatFace[] => {
      if (!moving.some((other) => other.IsSame(flat.face))) return [flat];
      const out = scale(flat.normal, by);
      const moved = flat.loops.map((loop) => loop.map((at) => add(at, out)));
      const sides = flat.loops.flatMap((loop, k) =>
        loop.map((at, i): FlatFace => {
          const next = (i + 1) % loop.length;
          const corners = [at, loop[next]!, moved[k]![next]!, moved[k]![i]!];
          return { name: `${flat.name} side${i + 1}`, loops: [by > 0 ? corners : corners.reverse()] };
        }),
      );
      return [{ name: flat.name, loops: moved }, ...sides];
    });
    return solidOfFaces(occt, faces, 'The solid with the moved face');
  });
}

type MetAnew = (old: Vec3) => Vec3;

/** Old corner → where the planes through it meet now. */
function cornersOf(planes: readonly Plane[]): MetAnew {
  const corners = new Corners();
  const through: Plane[][] = [];
  for (const plane of planes)
    for (const at of plane.loops.flat()) (through[corners.indexOf(at)] ??= []).push(plane);
  const met = corners.points.map((old, i) => {
    const stays = through[i]!.every(
      ({ normal, offset }) => Math.abs(dot(normal, old) - offset) < SAME_CORNER_MM,
    );
    return stays ? old : meetingOf(through[i]!, old);
  });
  return (old) => met[corners.indexOf(old)]!;
}

function meetingOf(planes: readonly Plane[], old: Vec3): Vec3 {
  let best: readonly [Plane, Plane, Plane] | undefined;
  let max = MIN_SPAN;
  for (const a of planes)
    for (const b of planes)
      for (const c of planes) {
        const span = Math.abs(dot(a.normal, cross(b.normal, c.normal)));
        if (span > max * (1 + MIN_SPAN)) [best, max] = [[a, b, c], span];
      }
  const now = best && threePlanes(best);
  if (now && planes.every(({ normal, offset }) => Math.abs(dot(normal, now) - offset) < SAME_CORNER_MM))
    return now;
  throw new BuildError(faultOf('push.corner-of-many', {}), [old]);
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

/** An edge that would turn round has shrunk to nothing on the way. */
function requireSameWay([from, to]: readonly [Vec3, Vec3], corners: MetAnew): void {
  if (dot(subtract(to, from), subtract(corners(to), corners(from))) > 0) return;
  throw new BuildError(faultOf('push.edge-vanishes', {}), [from, to]);
}
