/**
 * Whether a combination is what it says. The kernel's own check comes first; then bounds that every combination obeys; then points
 * of its faces, and of its operands' faces, against formulas; and the volume against facets.
 */
import type { Occt } from '../occt/occt.ts';
import { isSound } from '../occt/sound.ts';
import { doubledAt } from './doubled.ts';
import { isBounded } from './bounds.ts';
import { besideFacets } from './byFacets.ts';
import type { Claim, ClaimFault } from './claim.ts';
import { isFacetted } from './facetted.ts';
import type { FacetCache } from './facets.ts';
import { LOOSE_MM, loosenessOf } from './looseness.ts';
import { misplaced, missing, stray } from './points.ts';

/** Why a combination is not what it says, or undefined. */
export function claimFault(occt: Occt, facets: FacetCache, claim: Claim): ClaimFault | undefined {
  const { result, measures, mesh } = claim;
  if (!(Number.isFinite(measures.volume) && measures.volume > 0)) return { what: 'unsound', places: [] };
  if (!measures.closed) return { what: 'open', places: [] };
  if (!isBounded(claim)) return { what: 'bounds', places: [] };
  if (!isFacetted(mesh, measures)) return { what: 'facets', places: [] };
  if (!result.isSound && !isSound(occt, result.shape)) return { what: 'unsound', places: [] };
  return (
    doubled(occt, claim) ??
    misplaced(occt, claim) ??
    stray(claim) ??
    missing(claim) ??
    besideFacets(facets, claim) ??
    loose(occt, claim)
  );
}

function doubled(occt: Occt, { result, measures, mesh }: Claim): ClaimFault | undefined {
  const places = measures.solids < 2 ? [] : doubledAt(occt, result.shape, mesh);
  return places.length === 0 ? undefined : { what: 'doubled', places };
}

const loose = (occt: Occt, { result }: Claim): ClaimFault | undefined =>
  loosenessOf(occt, result.shape) > LOOSE_MM ? { what: 'loose', places: [] } : undefined;
