/** Points of surfaces, and which way faces look. */
import { cross, scale, unit, type Vec3 } from '@kadrel/core';
import {
  read,
  scope,
  type Coordinates,
  type Keep,
  type Occt,
  type TopoDS_Face,
  type TopoDS_Shape,
} from '../occt/occt.ts';

export type Surface = InstanceType<Occt['BRepAdaptor_Surface']>;
export type Derivatives = Record<'point' | 'along' | 'across', Vec3>;

export const isPlane = (surface: Surface): boolean =>
  (surface.GetType() as unknown as string) === 'GeomAbs_Plane';

export const isLine = (curve: InstanceType<Occt['BRepAdaptor_Curve']>): boolean =>
  (curve.GetType() as unknown as string) === 'GeomAbs_Line';

/** A point of a surface, and its derivatives by both parameters. */
export function firstDerivatives(surface: Surface, u: number, v: number, keep: Keep): Derivatives {
  const { Point, D1U, D1V } = surface.EvalD1(u, v) as unknown as Record<'Point' | 'D1U' | 'D1V', Coordinates>;
  return { point: read(Point, keep), along: read(D1U, keep), across: read(D1V, keep) };
}

export const isFlatFace = (occt: Occt, face: TopoDS_Shape): boolean =>
  scope((keep) => isPlane(keep(new occt.BRepAdaptor_Surface(keep(occt.TopoDS.Face(face)), false))));

/** The way out of a flat face, length 1. */
export const outwardOf = (occt: Occt, face: TopoDS_Face): Vec3 => {
  const [x, y, z] = outwardAt(occt, face, [0, 0]);
  return [x + 0, y + 0, z + 0];
};

/** The way out of a face at two parameters of its surface, length 1. */
export function outwardAt(occt: Occt, face: TopoDS_Face, [u, v]: readonly [number, number]): Vec3 {
  return scope((keep) => {
    const surface = keep(new occt.BRepAdaptor_Surface(face, true));
    const { along, across } = firstDerivatives(surface, u, v, keep);
    const isReversed = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED';
    return scale(unit(cross(along, across)), isReversed ? -1 : 1);
  });
}
