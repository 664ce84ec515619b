/** What the poles of free curves and surfaces tell of where these reach: they lie within their hull, as all weights are above 0. */
import { dot, type Vec3 } from '@kadrel/core';
import { read, type Keep, type Occt } from '../occt/occt.ts';

type Curve = InstanceType<Occt['BRepAdaptor_Curve']>;
type Surface = InstanceType<Occt['BRepAdaptor_Surface']>;

/** More poles than this cost more to read than what is looked for. */
const MANY = 256;

/** Undefined where the surface has no poles that the kernel shows, or many. */
export function polesOfSurface(surface: Surface, keep: Keep): Vec3[] | undefined {
  if ((surface.GetType() as unknown as string) !== 'GeomAbs_BSplineSurface') return undefined;
  const spline = keep(surface.BSpline());
  const [across, along] = [spline.NbUPoles(), spline.NbVPoles()];
  if (across * along > MANY) return undefined;
  return Array.from({ length: across * along }, (_, i) =>
    read(spline.Pole(1 + Math.floor(i / along), 1 + (i % along)), keep),
  );
}

/** In their order; undefined where the curve has none, many, or runs on from its end to its beginning. */
export function polesOfCurve(curve: Curve, keep: Keep): Vec3[] | undefined {
  const kind = curve.GetType() as unknown as string;
  if (kind !== 'GeomAbs_BSplineCurve' && kind !== 'GeomAbs_BezierCurve') return undefined;
  if (curve.IsPeriodic()) return undefined;
  const spline = keep(kind === 'GeomAbs_BSplineCurve' ? curve.BSpline() : curve.Bezier());
  const count = spline.NbPoles();
  if (count > MANY) return undefined;
  return Array.from({ length: count }, (_, i) => read(spline.Pole(i + 1), keep));
}

/**
 * Whether a coordinate can rise along the curve and then fall: a curve turns back no more often than its poles do (the variation
 * diminishing property: G. Farin, Curves and Surfaces for CAGD, 5th ed. 2002, sections 5.3 and 8.5; from memory).
 */
export function canTurnBack(poles: readonly Vec3[], way: Vec3): boolean {
  let hasRisen = false;
  for (let i = 1; i < poles.length; i++) {
    const rise = dot(poles[i]!, way) - dot(poles[i - 1]!, way);
    if (hasRisen && rise < 0) return true;
    if (rise > 0) hasRisen = true;
  }
  return false;
}
