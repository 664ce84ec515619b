/**
 * Whether a body that was not combined is one: closed, outward, and nowhere through itself. Where a formula tells where it lies, its
 * faces must lie there; else its facets may not cross, and must be wound round once.
 */
import { faultOf, type Vec3 } from '@kadrel/core';
import type { Measures } from '../facts/measure.ts';
import { meshShape, type Mesh } from '../facts/mesh.ts';
import { BuildError, type Occt } from '../occt/occt.ts';
import { isSound } from '../occt/sound.ts';
import type { NamedShape } from '../naming/named.ts';
import { selfCrossings } from './crossing.ts';
import type { Field } from './distance.ts';
import { misplaced, stray } from './points.ts';
import type { Sample } from '../facts/samples.ts';
import { doubledAt } from './doubled.ts';
import { isFacetted } from './facetted.ts';
import { windingsBeside } from './windings.ts';

/** Why a body is not what it says. */
export interface BodyFault {
  readonly what: 'unsound' | 'open' | 'through itself' | 'misplaced';
  readonly places: readonly Vec3[];
}

/** Facets whose middles are probed, at the most. */
const MAX_POINTS = 60;
/** Facets are laid this much finer before a body is said to run through itself. */
const FINER = 8;

/** A body as it was built. */
export interface Built {
  readonly named: NamedShape;
  readonly measures: Measures;
  /** Facets of it. */
  readonly mesh: Mesh;
  readonly samples: readonly Sample[];
  /** By formula, in its own frame; undefined where none is known. */
  readonly field: Field | undefined;
}

export function bodyFault(occt: Occt, { named, measures, mesh, ...of }: Built): BodyFault | undefined {
  const { shape, isSound: known } = named;
  if (!(Number.isFinite(measures.volume) && measures.volume > 0)) return { what: 'unsound', places: [] };
  if (!measures.closed) return { what: 'open', places: [] };
  if (!isFacetted(mesh, measures) || (!known && !isSound(occt, shape)))
    return { what: 'unsound', places: [] };
  const { field } = of;
  if (field) {
    const claim = { ...of, field, mesh, result: named, fuzzMm: 0 };
    const fault = misplaced(occt, claim) ?? stray(claim);
    if (fault) return { what: 'misplaced', places: fault.places };
    const places = measures.solids < 2 ? [] : doubledAt(occt, shape, mesh);
    return places.length === 0 ? undefined : { what: 'through itself', places };
  }
  if (placesThrough(mesh).length === 0) return undefined;
  // Coarse facets of thin walls cross where the walls do not.
  const places = placesThrough(meshShape(occt, shape, mesh.chordMm / FINER, FINE_TURN_RAD));
  return places.length === 0 ? undefined : { what: 'through itself', places };
}
const FINE_TURN_RAD = 0.1;

/** By crossing facets, and by points with the inside on both sides. */
function placesThrough(mesh: Mesh): Vec3[] {
  const crossings = selfCrossings(mesh);
  if (crossings.length > 0) return crossings;
  const doubtful = throughItself(mesh);
  return doubtful.length < MIN_FOUND ? [] : doubtful;
}

/** A single point may lie on an edge of the facets as seen along its ray. */
const MIN_FOUND = 2;

/** Middles of facets that do not have the inside on one side and the outside on the other. */
export const throughItself = (mesh: Mesh): Vec3[] =>
  windingsBeside(mesh, MAX_POINTS)
    .filter(({ below, above }) => below !== 1 || above !== 0)
    .map(({ middle }) => middle);

const CODES = {
  unsound: 'body.unsound',
  open: 'body.open',
  'through itself': 'body.through-itself',
  misplaced: 'body.misplaced',
} as const;
const MAX_PLACES = 12;

/** Throws BuildError where a body is not one. */
export function requireBody(occt: Occt, built: Built): void {
  const fault = bodyFault(occt, built);
  if (fault) throw new BuildError(faultOf(CODES[fault.what], {}), fault.places.slice(0, MAX_PLACES));
}
