/** Points of surfaces, and which way faces look. */
import { add, cross, dot, length, scale, subtract, unit, type Vec3 } from '@kadrel/core';
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

/** Whether a surface is flat. */
export const isPlane = (surface: Surface): boolean =>
  (surface.GetType() as unknown as string) === 'GeomAbs_Plane';

/** Whether a curve is straight. */
export const isLine = (curve: InstanceType<Occt['BRepAdaptor_Curve']>): boolean =>
  (curve.GetType() as unknown as string) === 'GeomAbs_Line';

/** A point of a surface, and its derivatives by both parameters. */
export function firstDerivatives(
  surface: Surface,
  { u, v }: { readonly u: number; readonly v: number },
  keep: Keep,
): Derivatives {
  const { Point, D1U, D1V } = surface.EvalD1(u, v) as unknown as Record<'Point' | 'D1U' | 'D1V', Coordinates>;
  return { point: read(Point, keep), along: read(D1U, keep), across: read(D1V, keep) };
}

/** The axis of a cylinder in the frame of its shape, and whether the surface's own normal looks away from it. */
export interface RoundAxis {
  readonly origin: Vec3;
  /** Length 1. */
  readonly direction: Vec3;
  /** mm */
  readonly radius: number;
  readonly way: 1 | -1;
}

/** Undefined for all but cylinders. */
export function roundAxis(surface: Surface, keep: Keep): RoundAxis | undefined {
  if ((surface.GetType() as unknown as string) !== 'GeomAbs_Cylinder') return undefined;
  const { origin, x, y, z, radius } = cylinderAxes(surface, keep);
  return { origin, direction: z, radius, way: dot(cross(y, z), x) > 0 ? 1 : -1 };
}

/** The axis of a cylinder runs through the origin along z; x leads to where its first parameter is 0, and y to a quarter turn on. All have length 1. */
export interface CylinderAxes {
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly z: Vec3;
  /** mm */
  readonly radius: number;
}

/** By two points across the axis from each other. @param surface of a cylinder */
export function cylinderAxes(surface: Surface, keep: Keep): CylinderAxes {
  const { point, along, across } = firstDerivatives(surface, { u: 0, v: 0 }, keep);
  const facing = firstDerivatives(surface, { u: Math.PI, v: 0 }, keep).point;
  const out = scale(subtract(point, facing), 0.5);
  return {
    origin: scale(add(point, facing), 0.5),
    x: unit(out),
    y: unit(along),
    z: unit(across),
    radius: length(out),
  };
}

/** Whether a face is flat. */
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
    const { along, across } = firstDerivatives(surface, { u, v }, keep);
    const isReversed = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED';
    return scale(unit(cross(along, across)), isReversed ? -1 : 1);
  });
}
