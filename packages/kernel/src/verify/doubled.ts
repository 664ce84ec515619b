/** Solids of one shape that lie in one another. */
import type { Vec3 } from '@kadrel/core';
import type { Mesh } from '../facts/mesh.ts';
import { distanceTo, occurrences, scope, type Occt, type TopoDS_Shape } from '../occt/occt.ts';
import { windingsBeside } from './windings.ts';

/** Points that are asked of two solids whether they lie in both. */
const MAX_DOUBTFUL = 12;
const MAX_PROBES = 300;

/**
 * Where solids of one shape lie in one another: each by itself is right then, and together they are counted twice. Facets of solids that
 * nearly touch may overlap where the solids do not: what they find is asked of the solids.
 */
export function doubledAt(occt: Occt, shape: TopoDS_Shape, mesh: Mesh): Vec3[] {
  const doubtful = windingsBeside(mesh, MAX_PROBES).filter(({ below }) => below > 1);
  return doubtful
    .slice(0, MAX_DOUBTFUL)
    .filter(({ inside }) => isInSeveral(occt, shape, inside))
    .map(({ middle }) => middle);
}

/** Solids have no distance from a point within them. */
const isInSeveral = (occt: Occt, shape: TopoDS_Shape, at: Vec3): boolean =>
  scope((keep) => {
    const solids = occurrences({ occt, keep }, shape, 'TopAbs_SOLID');
    return solids.filter((solid) => distanceTo(occt, solid, at) === 0).length > 1;
  });
