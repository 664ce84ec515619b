/** Operands that have no effect. */
import { MERGED } from '@kadrel/core';
import { volumeOf } from './byFacets.ts';
import type { Claim, Part } from './claim.ts';
import type { FacetCache } from './facets.ts';

/** Operands of a union that add nothing, and of a subtraction that take nothing out. */
export function idleParts(cache: FacetCache, { how, parts, result, measures }: Claim): Part[] {
  if (how === 'intersect') return [];
  const present = new Set(result.faceNames.flatMap((name) => name.split(MERGED)));
  const [first] = parts;
  const isSame = Math.abs(measures.volume - first!.measures.volume) <= IDLE_VOLUME * first!.measures.volume;
  return parts.slice(1).filter((part) => {
    const isSeen = part.faceNames.some((name) =>
      name.split(MERGED).some((one) => present.has(part.tag === '' ? one : `${part.tag}.${one}`)),
    );
    if (isSame && parts.length === 2) return true;
    if (isSeen) return false;
    // A tool that others swallow has its effect too; what lies within the united parts has none.
    if (how === 'union') return true;
    const [own, other] = [first!.facets(), part.facets()];
    if (!own || !other) return false;
    const both = [
      [own, first!.pose],
      [other, part.pose],
    ] as const;
    return volumeOf(cache, 'intersect', both) === 0;
  });
}
/** Relative: what a tool takes out at least, to count. */
const IDLE_VOLUME = 1e-12;
