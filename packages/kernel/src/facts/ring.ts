/** Rings, whose measures the kernel does not tell: they are read off four points. */
import { add, cross, dot, length, scale, subtract, unit, type Vec3 } from '@kadrel/core';
import { read, type Keep, type Occt } from '../occt/occt.ts';

export interface Ring {
  readonly centre: Vec3;
  /** Axes: x and y across, length 1. The second parameter begins where the ring is widest. */
  readonly x: Vec3;
  readonly y: Vec3;
  readonly axis: Vec3;
  /** From the centre to the middle of the tube, and from there to the surface, mm. */
  readonly ring: number;
  readonly thin: number;
}

export function ringOf(surface: InstanceType<Occt['BRepAdaptor_Surface']>, keep: Keep): Ring {
  const at = (u: number, v: number): Vec3 => read(surface.EvalD0(u, v), keep);
  const [outer, across, inner] = [at(0, 0), at(Math.PI, 0), at(0, Math.PI)];
  const centre = scale(add(outer, across), 0.5);
  const x = unit(subtract(outer, across));
  const y = unit(subtract(at(Math.PI / 2, 0), centre));
  const [wide, narrow] = [length(subtract(outer, centre)), dot(subtract(inner, centre), x)];
  return { centre, x, y, axis: unit(cross(x, y)), ring: (wide + narrow) / 2, thin: (wide - narrow) / 2 };
}
