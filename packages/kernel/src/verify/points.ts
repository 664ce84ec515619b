/** Points of faces, and facets, against formulas: what is there and should not be, and what should be there and is not. */
import { MERGED, carry, turnVector, type Vec3 } from '@kadrel/core';
import { distanceTo, scope, uniqueShapes, type Occt, type TopoDS_Shape } from '../occt/occt.ts';
import { facetSlack } from '../facts/mesh.ts';
import type { Claim, ClaimFault, Part } from './claim.ts';
import { beside, type Sample } from '../facts/samples.ts';

/** Surfaces of the kernel that meet within its tolerance of 1e-7 mm count as one; probes stand clear of that. */
const PROBE_MM = 5e-7;
/** How far from the surface a point is probed: farther where coordinates are so large that doubles are coarser. */
export const probe = (point: Vec3, fuzzMm: number) =>
  PROBE_MM + 2 * fuzzMm + 1e-11 * Math.max(...point.map(Math.abs));

/** Points of the result that are not on the border of what it should be. */
export function misplaced(
  occt: Occt,
  { field, samples, fuzzMm, result }: Pick<Claim, 'field' | 'samples' | 'fuzzMm' | 'result'>,
): ClaimFault | undefined {
  if (!field) return undefined;
  const doubtful = samples.filter((sample) => {
    const step = probe(sample.point, fuzzMm);
    return field.at(beside(sample, step)) < 0 || field.at(beside(sample, -step)) > 0;
  });
  // The middle of a facet may lie beyond a face that is hollow there: only what is on the true face counts.
  const wrong = doubtful.slice(0, MAX_DOUBTFUL).filter((sample) => isOnFace(occt, result.shape, sample));
  return wrong.length === 0 ? undefined : { what: 'misplaced', places: wrong.map(({ point }) => point) };
}

/** More facets than this are looked at in steps. */
const MAX_FACETS = 3000;
/** Facets of the result that lie farther from the border of what it should be than facets can: rough, but all over it. */
export function stray({ field, mesh }: Pick<Claim, 'field' | 'mesh'>): ClaimFault | undefined {
  if (!field) return undefined;
  const { positions, triangles, chordMm } = mesh;
  const rounding = 1e-6 * (Math.hypot(...field.centre) + field.radius);
  const step = 3 * Math.max(1, Math.ceil(triangles.length / 3 / MAX_FACETS));
  const places: Vec3[] = [];
  for (let t = 0; t + 2 < triangles.length && places.length < MAX_DOUBTFUL; t += step) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const middle = [0, 1, 2].map(
      (k) => (positions[a + k]! + positions[b + k]! + positions[c + k]!) / 3,
    ) as unknown as Vec3;
    const size = Math.max(...[0, 1, 2].map((k) => Math.abs(positions[a + k]! - positions[b + k]!)));
    if (Math.abs(field.at(middle)) > rounding + facetSlack(chordMm, size)) places.push(middle);
  }
  return places.length === 0 ? undefined : { what: 'misplaced', places };
}

const MAX_DOUBTFUL = 40;
/** Points within this (mm) of a face lie on it. */
const ON_FACE_MM = 1e-6;

const isOnFace = (occt: Occt, shape: TopoDS_Shape, { face, point }: Sample): boolean =>
  scope((keep) => {
    const there = uniqueShapes({ occt, keep }, shape, 'TopAbs_FACE')[face]!;
    return distanceTo(occt, there, point) < ON_FACE_MM;
  });

/** Faces of operands that must be on the border of the whole, and are not there. */
export function missing({ field, parts, result, fuzzMm }: Claim): ClaimFault | undefined {
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

/** Points of all operands, in the frame of the whole. */
export function placedSamples(parts: readonly Part[]): { part: number; point: Vec3; outward: Vec3 }[] {
  return parts.flatMap(({ samples, pose }, part) =>
    samples.map(({ point, outward }) => ({
      part,
      point: carry(pose, point),
      outward: turnVector(pose.turn, outward),
    })),
  );
}
