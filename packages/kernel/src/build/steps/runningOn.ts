/** Edges of a solid that run on into one another without a bend. */
import { runningOn, unit, type EdgeEnd } from '@kadrel/core';
import type { Edge } from '../../occt/edges.ts';
import { read, scope, type Occt } from '../../occt/occt.ts';

/** Directions that differ by less than this (sine) are one: as for faces that go on into each other. */
const SMOOTH_SINE = 1e-4;

/** The given ones, and all that run on from them. */
export const edgesRunningOn = <T extends { readonly edge: Edge }>(
  occt: Occt,
  all: readonly T[],
  from: readonly T[],
): T[] => runningOn(all, from, { endsOf: ({ edge }) => endsOf(occt, edge), smoothSine: SMOOTH_SINE });

function endsOf(occt: Occt, edge: Edge): EdgeEnd[] {
  return scope((keep) => {
    const curve = keep(new occt.BRepAdaptor_Curve(edge));
    return [curve.FirstParameter(), curve.LastParameter()].map((parameter, i) => {
      const { Point, D1 } = curve.EvalD1(parameter);
      const [x, y, z] = unit(read(D1, keep));
      return { at: read(Point, keep), out: i === 0 ? [-x, -y, -z] : [x, y, z] };
    });
  });
}
