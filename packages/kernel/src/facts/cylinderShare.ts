/** What a face of a cylinder that is a rectangle in its parameters adds to a solid: in closed form, without the kernel's integration. */
import { add, cross, dot, scale, subtract, unit, type Vec3 } from '@kadrel/core';
import { occurrences, type Keep, type Scoped, type TopoDS_Face } from '../occt/occt.ts';
import type { Share } from './share.ts';
import { firstDerivatives, type Surface } from './surface.ts';

/** The axis runs along `z` through `origin`; x, y and z have length 1. */
interface Cylinder {
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly z: Vec3;
  readonly radius: number;
}

/** Borders this near to the least or the greatest of a parameter (radians, mm) run along it. */
const SAME_PARAMETER = 1e-9;

/**
 * With p = o + r·e(u) + v·z and the normal e(u), over u and v: the area r ∫∫ 1, the volume r ∫∫ p·e / 3, and the moment r ∫∫ p (p·e) / 4, where
 * p·e = o·e + r. Undefined where the face has another border.
 */
export function cylinderShare({ occt, keep }: Scoped, face: TopoDS_Face): Share | undefined {
  const surface = keep(new occt.BRepAdaptor_Surface(face, true));
  const [u0, u1] = [surface.FirstUParameter(), surface.LastUParameter()];
  const [v0, v1] = [surface.FirstVParameter(), surface.LastVParameter()];
  if (!isRectangle({ occt, keep }, face, { u: [u0, u1], v: [v0, v1] })) return undefined;
  const { origin: o, x, y, z, radius: r } = cylinderOf(surface, keep);
  const isReversed = (face.Orientation() as unknown as string) === 'TopAbs_REVERSED';
  const outward = (dot(cross(x, y), z) > 0 ? 1 : -1) * (isReversed ? -1 : 1);
  const [turn, tall, rise] = [u1 - u0, v1 - v0, (v1 ** 2 - v0 ** 2) / 2];
  const [sines, cosines] = [Math.sin(u1) - Math.sin(u0), Math.cos(u0) - Math.cos(u1)];
  const doubled = (Math.sin(2 * u1) - Math.sin(2 * u0)) / 4;
  const mixed = (Math.sin(u1) ** 2 - Math.sin(u0) ** 2) / 2;
  const [ox, oy] = [dot(o, x), dot(o, y)];
  /** ∫ e, ∫ o·e and ∫ e (o·e) over u. */
  const round = add(scale(x, sines), scale(y, cosines));
  const across = ox * sines + oy * cosines;
  const bent = add(
    scale(x, ox * (turn / 2 + doubled) + oy * mixed),
    scale(y, ox * mixed + oy * (turn / 2 - doubled)),
  );
  const whole = across + r * turn;
  const level = add(scale(o, whole), scale(add(bent, scale(round, r)), r));
  const moment = add(scale(level, tall), scale(z, whole * rise));
  return {
    area: r * turn * tall,
    volume: (outward * r * tall * whole) / 3,
    moment: scale(moment, (outward * r) / 4),
  };
}

function cylinderOf(surface: Surface, keep: Keep): Cylinder {
  const { point, along, across } = firstDerivatives(surface, { u: 0, v: 0 }, keep);
  const facing = firstDerivatives(surface, { u: Math.PI, v: 0 }, keep).point;
  const out = scale(subtract(point, facing), 0.5);
  return {
    origin: scale(add(point, facing), 0.5),
    x: unit(out),
    y: unit(along),
    z: unit(across),
    radius: Math.hypot(...out),
  };
}

type Ends = readonly [number, number];

/** Whether the border of a face runs along the rim of its parameters, and nowhere within. */
function isRectangle(
  { occt, keep }: Scoped,
  face: TopoDS_Face,
  { u, v }: { readonly u: Ends; readonly v: Ends },
): boolean {
  const isOn = (ends: Ends, values: Ends) =>
    ends.some((end) => values.every((value) => Math.abs(value - end) < SAME_PARAMETER));
  return occurrences({ occt, keep }, face, 'TopAbs_EDGE').every((edge) => {
    const curve = keep(new occt.BRepAdaptor_Curve2d(keep(occt.TopoDS.Edge(edge)), face));
    const [from, to] = [curve.FirstParameter(), curve.LastParameter()].map((at) => keep(curve.Value(at)));
    return isOn(u, [from!.X(), to!.X()]) || isOn(v, [from!.Y(), to!.Y()]);
  });
}
