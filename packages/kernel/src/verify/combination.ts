/**
 * Whether a combination is what it says. The kernel's own check comes first; then bounds that every combination obeys; then points
 * of its faces, and of its operands' faces, against formulas; and the volume against facets.
 */
import {
  AT_ORIGIN,
  MERGED,
  boxSize,
  carry,
  carryBox,
  turnVector,
  unionBoxes,
  type Box,
  type CombineHow,
  type Pose,
  type Vec3,
} from '@kadrel/core';
import type { Measures } from '../facts/measure.ts';
import type { Mesh } from '../facts/mesh.ts';
import {
  distanceBetween,
  isSound,
  pointShape,
  scope,
  uniqueShapes,
  type Occt,
  type TopoDS_Shape,
} from '../occt/occt.ts';
import type { NamedShape } from '../shapes/named.ts';
import type { FacetCache, Facets } from './facets.ts';
import type { Field } from './field.ts';
import { beside, type Sample } from './samples.ts';

/** An operand as it went in, verified before. */
export interface Part {
  /** Of the item that it is. */
  readonly id: string;
  /** Put before the names of its faces; none for the first. */
  readonly tag: string;
  readonly pose: Pose;
  /** In the frame of the whole; undefined where no formula is known. */
  readonly field: Field | undefined;
  /** In its own frame. */
  readonly measures: Measures;
  readonly faceNames: readonly string[];
  readonly samples: readonly Sample[];
  readonly facets: Facets | undefined;
}

export interface Claim {
  readonly how: CombineHow;
  readonly parts: readonly Part[];
  readonly field: Field | undefined;
  readonly result: NamedShape;
  readonly measures: Measures;
  readonly samples: readonly Sample[];
  /** Facets of the result. */
  readonly mesh: Mesh;
  /** By formula, where the way that it was built knows it. */
  readonly volumeMm3?: number | undefined;
  /** How far (mm) surfaces may be off by the way that it was built. */
  readonly fuzzMm: number;
}

/** What is wrong, with places in the frame of the combination; undefined where nothing is. */
export interface Fault {
  readonly what: 'unsound' | 'open' | 'bounds' | 'misplaced' | 'missing' | 'facets' | 'loose';
  readonly places: readonly Vec3[];
}

/** Surfaces of the kernel that meet within its tolerance of 1e-7 mm count as one; probes stand clear of that. */
const PROBE_MM = 5e-7;
/** Relative: bounds of volumes hold up to the integration of curved faces. */
const SAME_VOLUME = 1e-6;
const SAME_BOX_MM = 1e-5;
const FORMULA_VOLUME = 1e-9;

export function faultOf(occt: Occt, facets: FacetCache, claim: Claim): Fault | undefined {
  const { result, measures } = claim;
  if (!(Number.isFinite(measures.volume) && measures.volume > 0)) return { what: 'unsound', places: [] };
  if (!measures.closed) return { what: 'open', places: [] };
  if (!isBounded(claim)) return { what: 'bounds', places: [] };
  if (!result.isSound && !isSound(occt, result.shape)) return { what: 'unsound', places: [] };
  return (
    misplaced(occt, claim) ??
    stray(claim) ??
    missing(claim) ??
    besideFacets(facets, claim) ??
    loose(occt, claim)
  );
}

/** Edges that are off their faces by more than this (mm) make volumes wrong in their sixth digit; usually it is 0.000001. */
const LOOSE_MM = 5e-6;

const loose = (occt: Occt, { result }: Claim): Fault | undefined =>
  loosenessOf(occt, result.shape) > LOOSE_MM ? { what: 'loose', places: [] } : undefined;

/** How far (mm) the kernel itself says that edges and corners may be off their faces, at the most. */
export const loosenessOf = (occt: Occt, shape: TopoDS_Shape): number =>
  scope((keep) => {
    const edges = uniqueShapes(occt, shape, 'TopAbs_EDGE', keep).map((edge) =>
      occt.BRep_Tool.Tolerance(keep(occt.TopoDS.Edge(edge))),
    );
    const corners = uniqueShapes(occt, shape, 'TopAbs_VERTEX', keep).map((vertex) =>
      occt.BRep_Tool.Tolerance(keep(occt.TopoDS.Vertex(vertex))),
    );
    return Math.max(0, ...edges, ...corners);
  });

/** max(A, B) ≤ A ∪ B ≤ A + B, A ∩ B ≤ min(A, B), A − B ≤ A, and boxes inside boxes. */
function isBounded({ how, parts, measures }: Claim): boolean {
  const volumes = parts.map((part) => part.measures.volume);
  const boxes = parts.map(boxOfPart);
  const slack = SAME_VOLUME * Math.max(...volumes);
  const { volume, box } = measures;
  const outer = how === 'union' ? unionBoxes(boxes)! : boxes[0]!;
  if (!liesWithin(box, outer)) return false;
  if (how === 'subtract') {
    const taken = volumes.slice(1).reduce((sum, one) => sum + one, 0);
    return volume <= volumes[0]! + slack && volume >= volumes[0]! - taken - slack;
  }
  if (how === 'intersect')
    return volume <= Math.min(...volumes) + slack && boxes.every((one) => liesWithin(box, one));
  const sum = volumes.reduce((all, one) => all + one, 0);
  return volume >= Math.max(...volumes) - slack && volume <= sum + slack;
}

/** A box in the frame of the whole that holds the part; exact for turns by quarters. */
export const boxOfPart = ({ pose, measures }: Pick<Part, 'pose' | 'measures'>): Box =>
  carryBox(pose, measures.box);

function liesWithin(inner: Box, outer: Box): boolean {
  const slack = SAME_BOX_MM + SAME_VOLUME * Math.hypot(...boxSize(outer));
  return [0, 1, 2].every(
    (i) => inner.min[i]! >= outer.min[i]! - slack && inner.max[i]! <= outer.max[i]! + slack,
  );
}

/** How far from the surface a point is probed: farther where coordinates are so large that doubles are coarser. */
const probe = (point: Vec3, fuzzMm: number) =>
  PROBE_MM + 2 * fuzzMm + 1e-11 * Math.max(...point.map(Math.abs));

/** Points of the result that are not on the border of what it should be. */
function misplaced(occt: Occt, { field, samples, fuzzMm, result }: Claim): Fault | undefined {
  if (!field) return undefined;
  const doubtful = samples.filter((sample) => {
    const step = probe(sample.point, fuzzMm);
    return field.at(beside(sample, step)) < 0 || field.at(beside(sample, -step)) > 0;
  });
  // The middle of a facet may lie beyond a face that is hollow there: only what is on the true face counts.
  const wrong = doubtful.slice(0, MOST_DOUBTFUL).filter((sample) => isOnFace(occt, result.shape, sample));
  return wrong.length === 0 ? undefined : { what: 'misplaced', places: wrong.map(({ point }) => point) };
}
/** More facets than this are looked at in steps. */
const MOST_FACETS = 6000;
/** Facets lie within their chord of the true surface, give or take what the kernel's own measure of it is off by. */
const CHORDS = 4;
/** Facets that span far round a bend are off by a part of their size, whatever the chord that was asked for. */
const OF_FACET = 0.1;

/** Facets of the result that lie farther from the border of what it should be than facets can: rough, but all over it. */
function stray({ field, mesh }: Claim): Fault | undefined {
  if (!field) return undefined;
  const { positions, triangles, chordMm } = mesh;
  const slack = CHORDS * chordMm + 1e-6 * (Math.hypot(...field.centre) + field.radius);
  const step = 3 * Math.max(1, Math.ceil(triangles.length / 3 / MOST_FACETS));
  const places: Vec3[] = [];
  for (let t = 0; t + 2 < triangles.length && places.length < MOST_DOUBTFUL; t += step) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const middle = [0, 1, 2].map(
      (k) => (positions[a + k]! + positions[b + k]! + positions[c + k]!) / 3,
    ) as unknown as Vec3;
    const size = Math.max(...[0, 1, 2].map((k) => Math.abs(positions[a + k]! - positions[b + k]!)));
    if (Math.abs(field.at(middle)) > slack + OF_FACET * size) places.push(middle);
  }
  return places.length === 0 ? undefined : { what: 'misplaced', places };
}

const MOST_DOUBTFUL = 40;
/** Points within this (mm) of a face lie on it. */
const ON_FACE_MM = 1e-6;

const isOnFace = (occt: Occt, shape: TopoDS_Shape, { face, point }: Sample): boolean =>
  scope((keep) => {
    const there = uniqueShapes(occt, shape, 'TopAbs_FACE', keep)[face]!;
    return distanceBetween(occt, there, pointShape(occt, point, keep)) < ON_FACE_MM;
  });

/** Faces of operands that must be on the border of the whole, and are not there. */
function missing({ field, parts, result, fuzzMm }: Claim): Fault | undefined {
  if (!field) return undefined;
  const present = new Set(result.faceNames.flatMap((name) => name.split(MERGED)));
  for (const [i, part] of parts.entries()) {
    for (const { point, outward, face } of part.samples) {
      const name = part.faceNames[face]!.split(MERGED)[0]!;
      if (present.has(part.tag === '' ? name : `${part.tag}.${name}`)) continue;
      const there = { point: carry(part.pose, point), outward: turnVector(part.pose.turn, outward) };
      const step = probe(there.point, fuzzMm);
      const [before, behind] = [field.at(beside(there, step)), field.at(beside(there, -step))];
      if (before * behind < 0 && !isShared(parts, i, there.point))
        return { what: 'missing', places: [there.point] };
    }
  }
  return undefined;
}

/** Whether the point also lies on another operand's face, which may stand for both. */
const isShared = (parts: readonly Part[], own: number, point: Vec3): boolean =>
  parts.some(({ field }, i) => i !== own && field !== undefined && !(Math.abs(field.at(point)) > SHARED_MM));
const SHARED_MM = 1e-5;

/** With more operands than this facets cost as much as the combination; points of all faces must do. */
const MOST_FACETTED = 12;

/** Against the volume by formula, where there is one, or the same combination by facets. */
function besideFacets(cache: FacetCache, claim: Claim): Fault | undefined {
  const { how, parts, measures, field, volumeMm3 } = claim;
  if (volumeMm3 !== undefined)
    return Math.abs(measures.volume / volumeMm3 - 1) <= FORMULA_VOLUME
      ? undefined
      : { what: 'facets', places: [] };
  if (parts.length > MOST_FACETTED && field) return undefined;
  const placed = parts.map(({ facets, pose }) => facets && ([facets, pose] as const));
  if (placed.some((one) => one === undefined)) return undefined;
  const all = placed.map((one) => one!);
  const { expected, error } = byFacets(cache, how, parts, all);
  const slack = SAME_VOLUME * Math.max(...parts.map((part) => part.measures.volume));
  return Math.abs(measures.volume - expected) <= error + slack ? undefined : { what: 'facets', places: [] };
}

type Placed = readonly (readonly [Facets, Pose])[];

/** Only what operands have in common is reckoned by facets, where that settles the whole: it is small, and so is its error. */
function byFacets(cache: FacetCache, how: CombineHow, parts: readonly Part[], placed: Placed) {
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

function volumeOf(cache: FacetCache, how: CombineHow, placed: Placed): number {
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
  how: CombineHow,
  parts: readonly Part[],
  field: Field | undefined,
): boolean {
  if (field && placedSamples(parts).some((sample) => [-1, 1].some((way) => isWithin(field, sample, way))))
    return false;
  const placed = parts.map(({ facets, pose }) => facets && ([facets, pose] as const));
  if (placed.some((one) => one === undefined)) return true;
  const all = placed.map((one) => one!);
  const { expected, error } = byFacets(cache, how, parts, all);
  return expected <= error + SAME_VOLUME * Math.max(...parts.map((part) => part.measures.volume));
}

const isWithin = (field: Field, sample: Pick<Sample, 'point' | 'outward'>, way: number): boolean =>
  field.at(beside(sample, way * 2 * probe(sample.point, 0))) < 0;

function placedSamples(parts: readonly Part[]): { part: number; point: Vec3; outward: Vec3 }[] {
  return parts.flatMap(({ samples, pose }, part) =>
    samples.map(({ point, outward }) => ({
      part,
      point: carry(pose, point),
      outward: turnVector(pose.turn, outward),
    })),
  );
}

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
    if (isSeen || !part.facets || !first!.facets) return false;
    // A tool that others swallow has its effect too; what lies within the united parts has none.
    if (how === 'union') return true;
    return (
      volumeOf(cache, 'intersect', [
        [first!.facets, first!.pose],
        [part.facets, part.pose],
      ]) === 0
    );
  });
}
/** Relative: what a tool takes out at least, to count. */
const IDLE_VOLUME = 1e-12;

/** Surfaces that differ by less than this (mm) nearly coincide; by less than the kernel's tolerance they are one. */
const NEAR_MM = 1e-2;
const SAME_MM = 1e-9;
/** So many points must be near for surfaces to lie on each other, rather than to cross there. */
const LEAST_NEAR = 3;

/** The two operands whose surfaces lie on each other but for a hair, and by how much they differ at the most. */
export function nearCoincidence(
  parts: readonly Part[],
): { gapMm: number; operands: readonly string[]; places: readonly Vec3[] } | undefined {
  const samples = placedSamples(parts);
  for (const [i, { field, id }] of parts.entries()) {
    if (!field) continue;
    for (const [j, other] of parts.entries()) {
      if (j === i) continue;
      const near = samples
        .filter(({ part }) => part === j)
        .map(({ point }) => ({ point, gap: Math.abs(field.at(point)) }))
        .filter(({ gap }) => gap > SAME_MM && gap < NEAR_MM);
      if (near.length >= LEAST_NEAR)
        return {
          gapMm: Math.max(...near.map(({ gap }) => gap)),
          operands: [id, other.id],
          places: near.slice(0, LEAST_NEAR).map(({ point }) => point),
        };
    }
  }
  return undefined;
}
