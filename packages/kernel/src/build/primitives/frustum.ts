import { prismCorners, type BodyOf, type Valued, type Vec3 } from '@kadrel/core';
import { scope, type Scoped, type Occt } from '../../occt/occt.ts';
import { sewn, type NamedFace } from '../surfaces.ts';
import type { NamedShape } from '../../naming/named.ts';
import { polygon } from './pulled.ts';

type Frustum = Valued<BodyOf<'frustum'>>;

/** Faces: bottom, top where it has one, and side1 at the front, the others counter-clockwise. All of them are flat. */
export function buildFrustum(occt: Occt, { height, top, ...below }: Frustum): NamedShape {
  const low = prismCorners(below).map(([x, y]): Vec3 => [x, y, 0]);
  const high = prismCorners({ ...below, size: top }).map(([x, y]): Vec3 => [x, y, height]);
  const next = (i: number) => (i + 1) % low.length;
  const sideOf = (corner: Vec3, i: number) =>
    top === 0
      ? [corner, low[next(i)]!, [0, 0, height] as const]
      : [corner, low[next(i)]!, high[next(i)]!, high[i]!];
  return scope((keep) => {
    const faces = [
      flat({ occt, keep }, 'bottom', low),
      ...(top === 0 ? [] : [flat({ occt, keep }, 'top', high)]),
      // The outline begins at the right end of the front, so that its last piece is the front.
      ...low.map((corner, i) => flat({ occt, keep }, `side${next(i) + 1}`, sideOf(corner, i))),
    ];
    return sewn({ occt, keep }, faces, 'The pyramid');
  });
}

function flat({ occt, keep }: Scoped, name: string, corners: readonly Vec3[]): NamedFace {
  const wire = keep(new occt.BRepBuilderAPI_MakeWire());
  for (const edge of polygon({ occt, keep }, corners)) wire.Add(edge);
  return { name, face: keep(keep(new occt.BRepBuilderAPI_MakeFace(keep(wire.Wire()), true)).Face()) };
}
