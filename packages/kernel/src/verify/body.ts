/**
 * Whether a body that was not combined is one: closed, outward, and nowhere through itself. Where a formula tells where it lies, its
 * faces must lie there; else its facets may not cross, and must be wound round once.
 */
import type { Vec3 } from '@kadrel/core';
import type { Measures } from '../facts/measure.ts';
import { meshShape, type Mesh } from '../facts/mesh.ts';
import { BuildError, isSound, type Occt } from '../occt/occt.ts';
import type { NamedShape } from '../naming/named.ts';
import { selfCrossings } from './crossing.ts';
import type { Field } from './distance.ts';
import { misplaced, stray } from './points.ts';
import type { Sample } from '../facts/samples.ts';
import { windingNumber } from './winding.ts';

export interface BodyFault {
  readonly what: 'unsound' | 'open' | 'through itself' | 'misplaced';
  readonly places: readonly Vec3[];
}

/** How many rays times triangles are spent on one body. */
const MOST_WORK = 600_000;
const MOST_POINTS = 60;
/** Points stand this part of the body's size off its facets: clear of the noise of single precision. */
const STEP = 4e-6;
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
  if (!known && !isSound(occt, shape)) return { what: 'unsound', places: [] };
  const { field } = of;
  if (field) {
    const claim = { ...of, field, mesh, result: named, fuzzMm: 0 };
    const fault = misplaced(occt, claim) ?? stray(claim);
    return fault && { what: 'misplaced', places: fault.places };
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
  return doubtful.length < LEAST_FOUND ? [] : doubtful;
}

/** A single point may lie on an edge of the facets as seen along its ray. */
const LEAST_FOUND = 2;

/** Middles of facets that do not have the inside on one side and the outside on the other. */
export function throughItself(mesh: Mesh): Vec3[] {
  const { positions, triangles } = mesh;
  const count = triangles.length / 3;
  if (count === 0) return [];
  const points = Math.max(8, Math.min(MOST_POINTS, Math.floor(MOST_WORK / (2 * count))));
  const step = STEP * sizeOf(positions);
  const found: Vec3[] = [];
  for (let s = 0; s < Math.min(points, count); s++) {
    const t = Math.floor(((s + 0.5) * count) / Math.min(points, count));
    const facet = facetOf(mesh, t);
    if (!facet || facet.height < 4 * step) continue;
    const at = (by: number): Vec3 =>
      facet.middle.map((n, i) => n + by * facet.outward[i]!) as unknown as Vec3;
    if (windingNumber(mesh, at(-step)) !== 1 || windingNumber(mesh, at(step)) !== 0) found.push(facet.middle);
  }
  return found;
}

function sizeOf(positions: Float32Array): number {
  let largest = 0;
  for (const n of positions) largest = Math.max(largest, Math.abs(n));
  return largest;
}

/** The middle of a facet, the way outward and its least height; undefined where it has no area. */
function facetOf({ positions, triangles }: Mesh, t: number) {
  const corner = (k: number): Vec3 => {
    const i = 3 * triangles[3 * t + k]!;
    return [positions[i]!, positions[i + 1]!, positions[i + 2]!];
  };
  const [a, b, c] = [corner(0), corner(1), corner(2)];
  const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  const normal: Vec3 = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const size = Math.hypot(...normal);
  if (size === 0) return undefined;
  const longest = Math.max(
    Math.hypot(ux, uy, uz),
    Math.hypot(vx, vy, vz),
    Math.hypot(ux - vx, uy - vy, uz - vz),
  );
  const middle = [0, 1, 2].map((i) => (a[i]! + b[i]! + c[i]!) / 3) as unknown as Vec3;
  return { middle, outward: normal.map((n) => n / size) as unknown as Vec3, height: size / longest };
}

const WORDS: Readonly<Record<BodyFault['what'], readonly [string, string]>> = {
  unsound: ['What came out is no sound solid.', 'Change a size a little, or simplify the profile.'],
  open: ['What came out is not closed.', 'Change a size a little, or close the profile.'],
  'through itself': [
    'The body runs through itself.',
    'Make it thinner, bend it less tightly, or move what crosses apart.',
  ],
  misplaced: [
    'What the kernel built does not lie where its profile says.',
    'Take out curves that nearly lie on one another.',
  ],
};
const MOST_PLACES = 12;

/** Throws BuildError where a body is not one. */
export function requireBody(occt: Occt, built: Built): void {
  const fault = bodyFault(occt, built);
  if (fault) throw new BuildError(...WORDS[fault.what], fault.places.slice(0, MOST_PLACES));
}
