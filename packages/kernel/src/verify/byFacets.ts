/** The volume against the same combination by facets. */
import { AT_ORIGIN, type CombineHow, type Pose } from '@kadrel/core';
import { boxOfPart } from './bounds.ts';
import { SAME_VOLUME, type Claim, type ClaimFault, type Part } from './claim.ts';
import type { Field } from './distance.ts';
import type { FacetCache, Facets } from './facets.ts';
import { placedSamples, probe } from './points.ts';
import { beside, type Sample } from '../facts/samples.ts';

const FORMULA_VOLUME = 1e-9;

/** With more operands than this facets cost as much as the combination; points of all faces must do. */
const MAX_FACETTED = 12;

/** Against the volume by formula, where there is one, or the same combination by facets. */
export function besideFacets(cache: FacetCache, claim: Claim): ClaimFault | undefined {
  const { how, parts, measures, field, volumeMm3 } = claim;
  if (volumeMm3 !== undefined)
    return Math.abs(measures.volume / volumeMm3 - 1) <= FORMULA_VOLUME
      ? undefined
      : { what: 'facets', places: [] };
  if (parts.length > MAX_FACETTED && field) return undefined;
  const placed = parts.map(placedFacets);
  if (placed.some((one) => one === undefined)) return undefined;
  const all = placed.map((one) => one!);
  const { expected, error } = byFacets(cache, { how, parts }, all);
  const slack = SAME_VOLUME * Math.max(...parts.map((part) => part.measures.volume));
  return Math.abs(measures.volume - expected) <= error + slack ? undefined : { what: 'facets', places: [] };
}

/** Undefined where facets of a solid cannot be closed. */
function placedFacets(part: Part): readonly [Facets, Pose] | undefined {
  const facets = part.facets();
  return facets && [facets, part.pose];
}

type Placed = readonly (readonly [Facets, Pose])[];

/** Only what operands have in common is reckoned by facets, where that settles the whole: it is small, and so is its error. */
function byFacets(
  cache: FacetCache,
  { how, parts }: { readonly how: CombineHow; readonly parts: readonly Part[] },
  placed: Placed,
) {
  const volumes = parts.map((part) => part.measures.volume);
  const common = (solids: Placed): number => volumeOf(cache, 'intersect', solids);
  const error = how === 'subtract' ? errorOfCuts(parts, placed) : errorIn(parts, placed);
  if (how === 'intersect') return { expected: common(placed), error };
  const [first, ...others] = placed;
  if (how === 'subtract') {
    const taken = others.length === 1 ? common(placed) : withUnion(cache, first!, others);
    return { expected: volumes[0]! - taken, error };
  }
  // Each adds what it does not have in common with those before it.
  let [expected, unsure] = [volumes[0]!, 0];
  for (let i = 1; i < placed.length; i++) {
    expected +=
      volumes[i]! - (i === 1 ? common(placed.slice(0, 2)) : withUnion(cache, placed[i]!, placed.slice(0, i)));
    unsure += placed
      .slice(0, i)
      .reduce((sum, _, j) => sum + errorIn([parts[i]!, parts[j]!], [placed[i]!, placed[j]!]), 0);
  }
  return { expected, error: unsure };
}

/** What one has in common with several together. */
function withUnion(cache: FacetCache, one: Placed[number], several: Placed): number {
  const all = cache.combined('union', several);
  const whole = volumeWith(cache, one, all);
  all.delete();
  return whole;
}

function volumeWith(cache: FacetCache, [facets, pose]: Placed[number], all: Facets['solid']): number {
  const solid = cache.combined('intersect', [
    [facets, pose],
    [{ ...facets, solid: all }, AT_ORIGIN],
  ]);
  const volume = solid.volume();
  solid.delete();
  return volume;
}

/** The volume of a combination by facets, mm³. */
export function volumeOf(cache: FacetCache, how: CombineHow, placed: Placed): number {
  const solid = cache.combined(how, placed);
  const volume = solid.volume();
  solid.delete();
  return volume;
}

/** Each cut is off by what it may be off with the first. */
const errorOfCuts = (parts: readonly Part[], placed: Placed): number =>
  placed.slice(1).reduce((sum, one, i) => sum + errorIn([parts[0]!, parts[i + 1]!], [placed[0]!, one]), 0);

/**
 * What operands have in common lies in all their boxes: facets are off there by no more than the chord times the surface that fits
 * in. Round solids bend at most twice as much surface into a box as it has itself (rings do).
 */
function errorIn(parts: readonly Part[], placed: Placed): number {
  const boxes = parts.map(boxOfPart);
  const [x, y, z] = [0, 1, 2].map((i) =>
    Math.max(0, Math.min(...boxes.map(({ max }) => max[i]!)) - Math.max(...boxes.map(({ min }) => min[i]!))),
  ) as [number, number, number];
  return placed.reduce((sum, [{ error, chord }]) => {
    const [a, b, c] = [x + 2 * chord, y + 2 * chord, z + 2 * chord];
    return sum + Math.min(error, chord * 4 * (a * b + b * c + c * a));
  }, 0);
}

/** Whether what came out empty is empty: no point just below an operand's face lies within, nor do facets find a volume. */
export function isTrulyEmpty(
  cache: FacetCache,
  { how, parts }: { readonly how: CombineHow; readonly parts: readonly Part[] },
  field: Field | undefined,
): boolean {
  if (field && placedSamples(parts).some((sample) => [-1, 1].some((way) => isWithin(field, sample, way))))
    return false;
  const placed = parts.map(placedFacets);
  if (placed.some((one) => one === undefined)) return true;
  const all = placed.map((one) => one!);
  const { expected, error } = byFacets(cache, { how, parts }, all);
  return expected <= error + SAME_VOLUME * Math.max(...parts.map((part) => part.measures.volume));
}

const isWithin = (field: Field, sample: Pick<Sample, 'point' | 'outward'>, way: number): boolean =>
  field.at(beside(sample, way * probe(sample.point, 0))) < 0;
