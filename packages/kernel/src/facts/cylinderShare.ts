/** What a face of a cylinder adds to a solid: in closed form, without the kernel's integration. */
import { add, dot, scale } from '@kadrel/core';
import type { CylinderFace } from './cylinder.ts';
import type { Share } from './share.ts';

/**
 * With p = o + r·e(u) + v·z and the normal e(u), over u and v: the area r ∫∫ 1, the volume r ∫∫ p·e / 3, and the moment r ∫∫ p (p·e) / 4, where
 * p·e = o·e + r.
 */
export function cylinderShare(face: CylinderFace): Share {
  const { origin: o, x, y, z, radius: r, outward } = face;
  const [[u0, u1], [v0, v1]] = [face.u, face.v];
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
